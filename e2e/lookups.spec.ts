import { expect, type Page, test } from "@playwright/test";
import { long } from "./support/long.ts";

const candidates = (page: Page) => page.getByRole("list", { name: "Candidates" }).locator("> li");
const glossOf = (page: Page, candidate = 0) =>
  candidates(page).nth(candidate).getByRole("list", { name: "Word by word" }).getByRole("listitem");

test.describe("asking by hand", () => {
  test("a text is asked, and each of its words says how it was taken", async ({ page }) => {
    await page.goto("/lookups");
    await page.getByRole("textbox", { name: "Forward" }).fill("12 the harbor rw tidewell HT9 29");
    await page.keyboard.press("Enter");
    await expect(glossOf(page)).toContainText([
      /12same12house/,
      /theignored/,
      /harborspellingHarbourstreet/,
      /rwabbreviationRowstreet/,
      /tidewellsameTidewelltown/,
      /HT9 29differs/,
    ]);
    await expect(page).toHaveURL(/\/lookups\/forward\?.*q=12\+the\+harbor/);
    await page.reload();
    await expect(candidates(page).first()).toContainText("12 Harbour Row, Tidewell");
  });

  const WORDS: [what: string, q: string, seen: RegExp][] = [
    ["clean", "12 Harbour Row, Tidewell", /Harboursame/],
    ["another script", "pelania", /pelaniasamePelania/],
    ["a missing number", "9999 Harbour Row, Tidewell", /9999no such number/],
    ["a wrong postcode", "12 Harbour Row, Tidewell, HT9 29", /differs/],
  ];
  for (const [what, q, seen] of WORDS) {
    test(`the gloss says ${what}`, long(what !== "a missing number"), async ({ page }) => {
      await page.goto(`/lookups/forward?q=${encodeURIComponent(q)}&gloss=1`);
      await expect(candidates(page).first().getByRole("list", { name: "Word by word" })).toContainText(seen);
    });
  }

  test("where nothing is found it says why, how it was read, and what would be found", async ({ page }) => {
    await page.goto("/lookups/forward?q=14b+Vuxxel+Street,+Qworthamm&gloss=1");
    await expect(page.getByText("Unknown: Vuxxel, Qworthamm.").first()).toBeVisible();
    await expect(page.getByRole("list", { name: "Word by word" })).toContainText("Vuxxel Street");
    await page.getByRole("link", { name: "Search for “14b Street” only" }).click();
    await expect(candidates(page).first()).toBeVisible();
  });

  test("suggestions follow the typing, and lead on to what is inside", async ({ page }) => {
    await page.goto("/lookups/suggest");
    await page.getByRole("textbox", { name: "Suggest" }).pressSequentially("harbour row tidewell");
    await expect(candidates(page).first()).toContainText("Harbour Row, Tidewell");
    await candidates(page)
      .first()
      .getByRole("button", { name: /inside/ })
      .click();
    await expect(candidates(page).first()).toContainText(/^\d+\S* Harbour Row, Tidewell/);
  });

  test("a press on the map asks backwards", async ({ page }) => {
    await page.goto("/lookups/forward?q=Tidewell&kinds=town&gloss=1");
    await expect(candidates(page)).toHaveCount(1);
    const map = page.getByRole("application");
    await expect(map).toHaveAttribute("data-complete", "true");
    await map.click({ position: { x: 60, y: 60 } });
    await expect(page).toHaveURL(/\/lookups\/reverse\?at=/);
    await expect(candidates(page).last()).toContainText("Lorramere");
  });

  test("a line and its marker are tied", async ({ page }) => {
    await page.goto("/lookups/forward?q=12+Harbour+Row,+Tidewell&kinds=address&limit=1&gloss=1");
    await expect(candidates(page)).toHaveCount(1);
    const map = page.getByRole("application");
    await expect(map).toHaveAttribute("data-view", /,16\.40$/);
    const box = (await map.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 8);
    await expect(candidates(page).first()).toHaveAttribute("data-marked", "true");
    await page.mouse.move(box.x + 12, box.y + 12);
    await expect(candidates(page).first()).toHaveAttribute("data-marked", "false");
  });

  test("a record shows its facts, the hours by day on request", async ({ page }) => {
    await page.goto("/lookups/suggest?q=branch+library&kinds=place&limit=1");
    await candidates(page).first().getByRole("button").first().click();
    await expect(page).toHaveURL(/\/lookups\/records\/q/);
    await page.getByRole("button", { name: "Hours by day" }).click();
    await expect(candidates(page).first()).toContainText(/Monday\d\d:\d\d to \d\d:\d\d/);
    await expect(candidates(page).first()).toContainText("Sunday");
  });

  test("a refusal is shown with what to do", async ({ page }) => {
    await page.goto("/lookups/reverse?at=95,-21.4");
    await expect(page.getByRole("alert")).toContainText("swapped");
    await expect(page.getByRole("alert")).toContainText("at=-35.2,-21.4");
  });
});

test.describe("the raw answer", () => {
  test("is walked by keyboard, and each value says the way to it", async ({ page }) => {
    await page.goto("/lookups/forward?q=Tidewell&kinds=town&gloss=1");
    const tree = page.getByRole("tree", { name: "Response" });
    await tree.getByRole("treeitem", { name: /^▸?\s*town/ }).click();
    await expect(page.getByText("/features/0/properties/parts/town", { exact: true })).toBeVisible();
    await tree.focus();
    await page.keyboard.press("ArrowDown");
    await expect(page.getByText("/features/0/properties/parts/town/name", { exact: true })).toBeVisible();
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.press("ArrowLeft");
    await expect(tree.getByRole("treeitem", { name: "▸ town Tidewell" })).toHaveAttribute("aria-expanded", "false");
  });

  test("a part of it is bound to a field of a form", long(), async ({ page }) => {
    await page.goto("/forms");
    await page.getByRole("button", { name: "New form" }).click();
    await expect(page).toHaveURL(/\/forms\/form-[0-9a-f]+\/compose/);
    const ref = /form-[0-9a-f]+/.exec(page.url())![0];
    await page.goto("/lookups/forward?q=Tidewell&kinds=town&gloss=1");
    await page.getByRole("treeitem", { name: /county/ }).click();
    await page.getByRole("button", { name: "Bind to a field" }).click();
    const dialog = page.getByRole("dialog", { name: "Bind county to a field" });
    await dialog.getByLabel("Form").selectOption(ref);
    await dialog.getByLabel("Field").selectOption("town");
    await dialog.getByRole("button", { name: "Bind", exact: true }).click();
    await expect(dialog.getByRole("status")).toContainText("Bound and saved");
    await expect(dialog.getByLabel("Field")).toContainText("now {county}");
    await page.request.get(`/api/forms/${ref}`).then(async (answer) => {
      const { definition } = await answer.json();
      expect(definition.fields.find(({ name }: { name: string }) => name === "town").binding).toBe("{county}");
    });
  });

  test("stays quick when it is large: only what shows is drawn", async ({ page }) => {
    await page.goto("/lookups/forward?q=harbour&limit=50&gloss=1");
    await expect(page.getByRole("treeitem").first()).toBeVisible();
    await page.getByRole("tree").focus();
    await page.keyboard.press("End");
    expect(await page.getByRole("treeitem").count()).toBeLessThan(60);
  });

  test("stands beside the same request as code, and its headers", async ({ page }) => {
    await page.goto("/lookups/forward?q=Tidewell&gloss=1");
    await page.getByRole("button", { name: "Request", exact: true }).click();
    await expect(page.getByText("/v1/forward?q=Tidewell&gloss=1")).toBeVisible();
    await page.getByRole("button", { name: "Kit" }).click();
    await expect(page.getByText('client.forward({"q":"Tidewell","gloss":"1"})')).toBeVisible();
    await page.getByRole("button", { name: "Headers" }).click();
    await expect(page.getByText(/engine;dur=/)).toBeVisible();
  });
});

test.describe("settings", () => {
  test("narrow the lookup, one chip each, and can be taken away", long(), async ({ page }) => {
    await page.goto("/lookups/forward?q=harbour+row&gloss=1");
    await page.getByRole("button", { name: "+ filter" }).click();
    await page.getByLabel("countries").fill("QR");
    await page.getByLabel("limit").fill("2");
    await page.getByRole("dialog").getByRole("button", { name: "Look up" }).click();
    await expect(page).toHaveURL(/countries=QR/);
    await expect(candidates(page)).toHaveCount(2);
    await page.getByRole("button", { name: "Remove limit" }).click();
    await expect(page).not.toHaveURL(/limit=/);
  });

  test("two stand side by side, with what differs marked", async ({ page }) => {
    await page.goto("/lookups/suggest?q=12+harb&limit=3");
    await page.getByRole("button", { name: "Compare settings" }).click();
    await expect(page.getByText("Other settings", { exact: true })).toBeVisible();
    await expect(page.getByText("only with these settings")).toHaveCount(0);
    await page.getByRole("button", { name: "+ filter" }).last().click();
    await page.getByLabel("near", { exact: true }).fill("-36.2,-21.1");
    await page.getByRole("dialog").getByRole("button", { name: "Look up" }).click();
    await expect(page.getByText(/with (these|the other) settings/).first()).toBeVisible();
  });

  test("earlier lookups are kept, requested again, and forgotten", long(), async ({ page }) => {
    await page.goto("/lookups/forward?q=Sandmouth&gloss=1");
    await expect(candidates(page).first()).toBeVisible();
    const kept = () =>
      page.waitForResponse((answer) => answer.url().endsWith("/api/lookups") && answer.request().method() === "POST");
    await kept();
    await page.goto("/lookups");
    await page.getByRole("button", { name: "History" }).click();
    // requested again it is kept again, and not only after all are forgotten
    const again = kept();
    await page
      .getByRole("link", { name: /Sandmouth/ })
      .first()
      .click();
    await expect(page).toHaveURL(/q=Sandmouth/);
    await again;
    await page.getByRole("button", { name: "History" }).click();
    await page.getByLabel(/Keep lookups for 30 days/).click();
    await expect(page.getByText("Lookups are not saved.")).toBeVisible();
    await page.getByLabel(/Keep lookups for 30 days/).click();
    await expect(page.getByText("No lookups yet.")).toBeVisible();
  });
});

test("what was found is a picture too, with the element to paste into a page", long(), async ({ page }) => {
  await page.goto("/lookups/forward?q=12+harbour+row,+tidewell&gloss=1");
  await page.getByRole("button", { name: "Picture", exact: true }).click();
  const picture = page.getByRole("img", { name: /^Map of 12 Harbour Row, Tidewell/ });
  await expect(picture).toBeVisible();
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(300);
  await expect(page.locator("pre")).toContainText('crossorigin="anonymous"');
  await page.getByLabel("Size").selectOption({ label: "600 × 400" });
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(600);
  await expect(page.locator("pre")).toContainText('width="600"');
  await page.getByLabel("Style", { exact: true }).selectOption({ label: "Heights" });
  await expect(page.locator("pre")).toContainText("style=heights");
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.src)).toContain("style=heights");
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.complete)).toBe(true);
});

test("the line of a distance stands on the map, and on its picture", async ({ page }) => {
  await page.goto("/lookups/distance?from=-35.1841,-21.6253&to=-36.6,-22.6");
  await page.getByRole("button", { name: "Picture", exact: true }).click();
  await expect(
    page.getByRole("img", { name: "Map with a line of 180 km from -35.1841,-21.6253 to -36.6,-22.6" }),
  ).toBeVisible();
  const map = page.getByRole("application");
  await expect.poll(async () => Number((await map.getAttribute("data-view"))!.split(",")[2])).toBeLessThan(8);
});
