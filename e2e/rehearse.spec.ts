import { SAMPLE_FORMS } from "@bibliotope/islands";
import { expect, type Page, test } from "@playwright/test";
import { pageOf } from "../packages/studio/src/take-away/page.ts";
import { REPLAY_KEY } from "../packages/studio/src/trace/har.ts";
import { axeFindings } from "./support/axe.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";
import { Studio } from "./support/studio.ts";

const play = (page: Page, situation: string) => page.getByLabel("Situation").selectOption({ label: situation });

test(
  "a form is rehearsed in every situation of the wire, with words where the person looks",
  long(),
  async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    for (const [situation, words] of [
      ["nothing is found", "Nothing found. Check the spelling"],
      ["the service is down", "The address search does not work at the moment."],
      ["a limit is reached", "Too many searches just now."],
      ["the key is refused", "Address search is not allowed on this page."],
      ["a request is invalid", "The address search could not read this."],
      ["off-line", "The address search cannot be reached."],
    ]) {
      await play(page, situation);
      await expect(page.getByText(`Simulated: ${situation}`)).toBeVisible();
      await studio.search.click();
      await page.keyboard.type("harb");
      await expect(page.getByText(words)).toBeVisible();
      await expect(studio.list).toBeHidden();
      // never a wall: the fields can be typed into
      await studio.field("Town").fill("Tidewell");
      await expect(studio.field("Town")).toHaveValue("Tidewell");
    }
    await play(page, "slow answers");
    await studio.search.click();
    await page.keyboard.type("12 harbour row tidewell");
    await expect(studio.search).toHaveAttribute("aria-busy", "true");
    await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
    await play(page, "normal");
    await expect(page.getByText(/Simulated/)).toHaveCount(0);
  },
);

test("several that fit are played too, and chosen on the map", async ({ page }) => {
  await page.goto("/forms/offer-a-house/rehearse");
  await play(page, "several match");
  for (const [label, text] of [
    ["Street", "Harbour Row"],
    ["House", "12"],
    ["Town", "Tidewell"],
  ]) {
    await page.getByLabel(label, { exact: true }).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Tab");
  }
  await expect(page.getByText(/\d addresses match\. Which one is it\?/)).toBeVisible();
  const line = await page.locator("[data-bibliotope=match] > :last-child").nth(1).textContent();
  const list = page.getByRole("listbox", { name: "Markers" });
  await list.focus();
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.locator("[data-bibliotope=match]")).toHaveCount(0);
  expect(line).toContain(await page.getByLabel("House", { exact: true }).inputValue());
});

test("what a rehearsal asked is saved, and replayed in the form's page where there is no service", async ({
  page,
  context,
}) => {
  const studio = new Studio(page);
  await studio.rehearse();
  const useForm = async (shown: Page) => {
    await shown.getByRole("combobox", { name: "Find your address" }).fill("12 harb");
    const list = shown.getByRole("listbox", { name: "Suggestions" });
    await list
      .getByRole("option", { name: /12 Harbour Row, Tidewell/ })
      .first()
      .click();
    await expect(shown.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
  };
  await useForm(page);
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as HAR" }).click();
  const archive = await (await saved).path();
  const form = SAMPLE_FORMS.find(({ ref }) => ref === "become-a-reader")!;
  const html = pageOf(form.definition, ready().url).replace('key" content=""', `key" content="${REPLAY_KEY}"`);
  const replay = await context.newPage();
  await replay.route(`${ready().url}/members`, (route) => route.fulfill({ contentType: "text/html", body: html }));
  // the archive has the words of the lookups, unchanged; what is not in it is not there
  await replay.routeFromHAR(archive, { url: `${ready().url}/v1/**`, notFound: "abort" });
  // the kit alone comes from the service, as it would from a bundler
  await replay.goto(`${ready().url}/members`);
  await useForm(replay);
  await expect(replay.locator("[name=confirmed]")).toHaveValue("yes");
});

test("the device's refusals are played, each with its words", long(), async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  for (const [situation, words] of [
    ["position denied", "This page is not allowed to use the device's location."],
    ["position switched off", "The device's location is not available."],
    ["position times out", "Locating the device took too long."],
    ["position inaccurate", "1.4 km"],
  ]) {
    await play(page, situation);
    await page.getByRole("button", { name: "Show my location" }).click();
    await expect(studio.map).toContainText(words);
  }
});

test(
  "a form is looked at as broad as on a desk, a tablet and a phone, and axe finds nothing",
  long(),
  async ({ page }) => {
    const studio = new Studio(page);
    await studio.rehearse();
    const form = page.locator("[data-bibliotope=form]");
    const half = page.locator('[data-field="flat"]');
    const share = async () => (await half.boundingBox())!.width / (await form.boundingBox())!.width;
    const widths: number[] = [];
    for (const width of ["Tablet", "Desk", "Phone"]) {
      await page.getByRole("button", { name: width, exact: true }).click();
      await expect.poll(share).toBeGreaterThan(width === "Phone" ? 0.9 : 0.4);
      if (width !== "Phone") expect(await share()).toBeLessThan(0.6);
      widths.push((await form.boundingBox())!.width);
      const violations = await axeFindings(page);
      expect(violations).toEqual([]);
    }
    expect(widths.toSorted((a, b) => b - a)).toEqual(widths);
  },
);

test("a form is opened on a stored record: nothing is requested, nothing counts as filled, the map shows the place", async ({
  page,
}) => {
  await page.goto("/forms/offer-a-house/rehearse");
  for (const [label, text] of [
    ["Street", "Harbour Row"],
    ["House", "12"],
    ["Town", "Tidewell"],
  ]) {
    await page.getByLabel(label, { exact: true }).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Tab");
  }
  await expect(page.getByLabel("Postcode")).toHaveValue("HT0 10");
  const asked: string[] = [];
  page.on("request", (request) => {
    const { pathname } = new URL(request.url());
    if (/^\/v1\/(suggest|forward|reverse|records)/.test(pathname)) asked.push(pathname);
  });
  await page.getByRole("button", { name: "Open a stored record" }).click();
  await expect(page.getByText("Stored record")).toBeVisible();
  await expect(page.getByLabel("Postcode")).toHaveValue("HT0 10");
  await expect(page.locator("[name=exactness]")).toHaveValue("surveyed");
  await expect(page.locator("[data-bt]")).toHaveCount(0);
  await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker");
  expect(asked).toEqual([]);
  await expect(page.getByRole("region", { name: "Timeline" })).toContainText("Type into the search box");
  // and goes on from there as any form does
  await page.getByLabel("House").fill("14");
  await page.getByLabel("House").blur();
  await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 14 Harbour Row.");
  expect(asked).toEqual(["/v1/forward"]);
  await page.getByRole("button", { name: "Start over" }).click();
  await expect(page.getByLabel("Postcode")).toHaveValue("");
});

test("what the form would send stands beside it, with where each value comes from", long(), async ({ page }) => {
  const studio = new Studio(page);
  await studio.rehearse();
  await page.getByRole("button", { name: "Submitted values" }).click();
  const panel = page.getByRole("complementary", { name: "Submitted values" });
  const row = (name: string) =>
    panel.getByRole("row").filter({ has: page.getByRole("rowheader", { name, exact: true }) });
  await expect(panel.locator("strong")).toHaveText("empty");
  await studio.search.click();
  await page.keyboard.type("12 harbour row tidewell");
  await expect(studio.list.locator("[data-sure]")).toHaveCount(1);
  await page.keyboard.press("Enter");
  await expect(studio.field("Town")).toHaveValue("Tidewell");
  await expect(panel.locator("strong")).toHaveText("chosen");
  await expect(row("town")).toContainText(/Tidewell.*from the record/);
  await expect(row("confirmed")).toContainText("yes");
  await studio.field("Street and number").fill("99 Elsewhere Lane");
  await expect(panel.locator("strong")).toHaveText("changed");
  await expect(row("street")).toContainText("was 12 Harbour Row");
  await expect(row("town")).toContainText("from the previous place");
  await expect(row("position")).toContainText("–");
  await expect(row("confirmed")).toContainText("no");
  expect(await axeFindings(page)).toEqual([]);
});

test(
  "the button that sends the form is in sight at 1280 × 800, before the form is filled and after",
  long(),
  async ({ page }) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    const studio = new Studio(page);
    await studio.rehearse();
    const send = page.getByRole("button", { name: "Send" });
    await expect(send).toBeInViewport({ ratio: 1 });
    await studio.search.pressSequentially("12 harb");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(studio.field("Town")).toHaveValue("Tidewell");
    await expect(page.getByRole("button", { name: "Save as HAR" })).toBeVisible();
    await expect(send).toBeInViewport({ ratio: 1 });
  },
);
