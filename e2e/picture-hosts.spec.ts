import { expect, test } from "@playwright/test";
import { PNG } from "pngjs";
import { axeFindings } from "./support/axe.ts";
import { long } from "./support/long.ts";
import { makeForm, Studio } from "./support/studio.ts";

const CREDIT = "Aerial survey of the islands (made up)";

test(
  "a form's map shows pictures of one's own, from hosts that were allowed for it alone",
  long(),
  async ({ page }, info) => {
    test.setTimeout(120_000);
    const studio = new Studio(page);
    const ref = await makeForm(page, "From the air");
    const { hosts } = await (await page.request.get("/api/hosts")).json();
    const { host, port, forPictures } = hosts.find(({ standIn }: { standIn: string }) => standIn === "survey");
    expect(forPictures).toBe(true);
    await studio.compose(ref);
    await page.getByRole("button", { name: "Show On the map" }).click();
    const address = page.getByLabel("URL template (XYZ or WMTS)");
    await address.fill("https://pictures.example/{z}/{x}");
    await expect(page.getByText("The address needs {z}, {x} and {y}, or {TileMatrix}")).toBeVisible();
    await address.fill("https://pictures.example/{z}/{x}/{y}.jpg");
    await expect(page.getByText("Enter who made them. The map shows it.")).toBeVisible();
    await page.getByLabel("Attribution").fill(CREDIT);
    await expect(page.getByText("https://pictures.example is not allowed for tiles yet")).toBeVisible();
    await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
    await page.getByRole("button", { name: "Publish" }).click();
    await expect(
      page.getByText("The tiles “Background” come from https://pictures.example, which is not allowed for tiles."),
    ).toBeVisible();
    expect(await axeFindings(page)).toEqual([]);

    await address.fill(`http://${host}:${port}/survey/{z}/{x}/{y}.jpg`);
    await page.getByLabel("Maximum zoom").fill("17");
    await page.getByLabel("Layer name").fill("From the air");
    await expect(page.getByText("is not allowed for tiles yet")).toBeHidden();
    await page.screenshot({ path: info.outputPath("compose.png") });
    await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();
    await page.getByRole("button", { name: "Publish" }).click();
    await expect(page.getByText(/Version \d+ is live/)).toBeVisible();

    await studio.rehearse(ref);
    await expect(studio.map.getByText(CREDIT)).toBeVisible();
    await studio.search.pressSequentially("12 harbour row tidewell", { delay: 10 });
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
    await page.keyboard.press("Enter");
    // ground from the air is darker than any paper by day
    const brightness = async () => {
      const { data } = PNG.sync.read(await studio.map.screenshot());
      let sum = 0;
      for (let i = 0; i < data.length; i += 4) sum += data[i + 1];
      return sum / (data.length / 4);
    };
    await expect.poll(brightness, { timeout: 60_000 }).toBeLessThan(170);
    await page.screenshot({ path: info.outputPath("rehearse.png") });
    expect(await axeFindings(page)).toEqual([]);
  },
);
