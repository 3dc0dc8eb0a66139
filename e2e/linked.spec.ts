import { expect, type Page, test } from "@playwright/test";
import { long } from "./support/long.ts";
import { askedBy, standsStill } from "./support/rest.ts";

const MAP = "[data-bibliotope=map]";
const HERE = { latitude: -35.1841, longitude: -21.6253, accuracy: 12 };

async function open(page: Page, ref: string): Promise<void> {
  await page.goto(`/f/${ref}`);
  await expect(page.locator("[data-bibliotope=form]")).toBeVisible();
}

const box = (page: Page, label: string) => page.getByRole("combobox", { name: label, exact: true });

async function take(page: Page, label: string, text: string): Promise<void> {
  // lines for fewer letters may be there before those for all of them
  const answered = page.waitForResponse((response) => askedBy(response.url()) === text);
  await box(page, label).click();
  await page.keyboard.type(text);
  await answered;
  await expect(box(page, label)).toHaveAttribute("aria-busy", "false");
  const list = page.locator("[data-bibliotope=search]").filter({ has: box(page, label) });
  await list.getByRole("option").filter({ hasText: "Reading Room" }).first().click();
  await expect(page.locator(`[name=${label.toLowerCase()}-ref]`)).not.toHaveValue("");
}

test.describe("two linked searches", () => {
  test(
    "tell how far it is, in the unit one chooses, and are exchanged with all they filled",
    long(),
    async ({ page }) => {
      await open(page, "lend-to-a-branch");
      const far = page.getByLabel("Distance");
      await expect(far).toHaveText("shown when both addresses are known");
      await take(page, "From", "reading room tidewell");
      await take(page, "To", "reading room sandmouth");
      await expect(far).toHaveText(/^\d+\.\d+ km$/);
      const kilometres = Number.parseFloat((await far.textContent())!);
      await page.getByLabel("Unit").selectOption("mi");
      await expect(far).toHaveText(/^\d+\.\d+ mi$/);
      expect(Number.parseFloat((await far.textContent())!) * 1.609344).toBeCloseTo(kilometres, 0);

      const ends = async () =>
        Promise.all(
          ["from-find", "from-ref", "from-position", "to-find", "to-ref", "to-position"].map((name) =>
            page.locator(`[name=${name}]`).inputValue(),
          ),
        );
      const before = await ends();
      const brought = await page.getByLabel("Delivery address").textContent();
      await page.getByRole("button", { name: "Swap" }).click();
      await expect.poll(ends).toEqual([...before.slice(3), ...before.slice(0, 3)]);
      await expect(page.getByLabel("Collection address")).toHaveText(brought!);
      await expect(far).toHaveText(/mi$/);
      await page.getByRole("button", { name: "Swap" }).click();
      await expect.poll(ends).toEqual(before);
    },
  );

  test("are exchanged with one end empty, and with what is only typed", long(), async ({ page }) => {
    await open(page, "lend-to-a-branch");
    await take(page, "From", "reading room tidewell");
    await box(page, "To").click();
    await page.keyboard.type("sand");
    await page.keyboard.press("Tab");
    const ref = await page.locator("[name=from-ref]").inputValue();
    await page.getByRole("button", { name: "Swap" }).click();
    await expect(box(page, "From")).toHaveValue("sand");
    await expect(box(page, "To")).toHaveValue(/Reading Room/);
    await expect(page.locator("[name=to-ref]")).toHaveValue(ref);
    await expect(page.locator("[name=from-ref]")).toHaveValue("");
    await expect(page.locator(MAP)).toContainText(/There is a marker at .+ Reading Room\./);
  });

  test("take an end from where the device is, once it was confirmed", long(), async ({ page, context }) => {
    await context.grantPermissions(["geolocation"]);
    await context.setGeolocation(HERE);
    await open(page, "lend-to-a-branch");
    await take(page, "To", "reading room sandmouth");
    await page.getByRole("button", { name: "Use my location" }).first().click();
    const said = page.locator('[data-address="from"]');
    await expect(said).toContainText("This device is within 12 m of here. Is it this place?");
    // the form asks for places: the nearest one, not the house
    const nearest = said.locator("[data-bibliotope=match] > :last-child");
    await expect(nearest).toHaveText(/^\D+, \d+\w? .+, Tidewell/);
    const name = (await nearest.textContent())!.split(",")[0];
    await expect(page.locator("[name=from-ref]")).toHaveValue("");
    await nearest.click();
    await expect(box(page, "From")).toHaveValue(new RegExp(`^${name}, `));
    await expect(page.locator("[name=from-ref]")).not.toHaveValue("");
    await expect(page.getByLabel("Distance")).toHaveText(/km$/);
  });

  test("take an end from its own marker that is moved, whose text follows", long(), async ({ page }) => {
    await open(page, "lend-to-a-branch");
    await take(page, "From", "mill reading room tidewell");
    await take(page, "To", "thrift reading room tidewell");
    const [from, to] = await Promise.all([
      page.locator("[name=from-ref]").inputValue(),
      page.locator("[name=to-ref]").inputValue(),
    ]);
    // the map glides until both ends are in view: a step of a marker is so many pixels of it
    await expect(page.locator(MAP)).toHaveAttribute("data-complete", "true");
    await standsStill(page);
    await page.getByRole("listbox", { name: "Markers" }).focus();
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("m");
    for (let i = 0; i < 6; i++) await page.keyboard.press("ArrowUp");
    await page.keyboard.press("Enter");
    await expect(page.locator("[name=to-ref]")).not.toHaveValue(to);
    await expect(box(page, "To")).not.toHaveValue(/Thrift Reading Room/);
    await expect(page.locator("[name=from-ref]")).toHaveValue(from);
  });
});

test.describe("the device's position", () => {
  test("is refused with words and a next step, and fills nothing that is not confirmed", async ({ page, context }) => {
    await context.clearPermissions();
    await open(page, "suggest-a-stop");
    await page.getByRole("button", { name: "Use my location" }).click();
    await expect(page.getByText("This page is not allowed to use the device's location.")).toBeVisible();
    await context.grantPermissions(["geolocation"]);
    await context.setGeolocation({ ...HERE, accuracy: 2300 });
    await page.getByRole("button", { name: "Use my location" }).click();
    await expect(page.getByText("This device is within 2.3 km of here. Move the marker to the right")).toBeVisible();
    await page.getByRole("button", { name: "Another address" }).click();
    await expect(page.locator("[data-bibliotope=match]")).toHaveCount(0);
    await expect(page.getByLabel("Position")).toHaveValue("");
    await page.getByRole("button", { name: "Use my location" }).click();
    await page.locator("[data-bibliotope=match]").click();
    await expect(page.getByLabel("Position")).toHaveValue("-35.1841,-21.6253");
    await expect(page.getByLabel("Address", { exact: true })).toHaveText(/12 Harbour Row/);
    await expect(page.getByLabel("Height")).toHaveText(/m above the sea/);
  });
});
