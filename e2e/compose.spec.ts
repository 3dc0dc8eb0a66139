import { expect, test } from "@playwright/test";
import { long } from "./support/long.ts";
import { makeForm, Studio } from "./support/studio.ts";

test("a part is bound by dragging it to a field; after a reload it is still there", async ({ page }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Bound by hand");
  await studio.compose(ref);
  await page.getByRole("button", { name: "Pick county" }).dragTo(page.locator('[data-field="note"]'));
  await expect(page.locator('[data-field="note"]')).toContainText("county");
  await expect(studio.wire("county", "note")).toHaveCount(1);
  await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
  await page.reload();
  await expect(studio.wire("county", "note")).toHaveCount(1);

  await page.getByRole("link", { name: "Rehearse" }).click();
  await studio.search.pressSequentially("12 harbour row tidewell", { delay: 10 });
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
  await page.keyboard.press("Enter");
  await expect(studio.field("Note")).toHaveValue("Sallow");
  await expect(studio.wire("county", "note")).toHaveAttribute("data-lit", "true");
});

test("fields are put in order by dragging them", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Ordered by hand"));
  const order = () => page.locator("li[data-field]").evaluateAll((cards) => cards.map((card) => card.dataset.field));
  const card = (name: string) => page.locator(`li[data-field="${name}"]`);
  await page.getByRole("button", { name: "Show Country" }).dragTo(card("street"), { targetPosition: { x: 60, y: 4 } });
  await expect.poll(order).toEqual(["find", "country", "street", "note", "town", "place"]);
  const { height } = (await card("town").boundingBox())!;
  await page
    .getByRole("button", { name: "Show Find your address" })
    .dragTo(card("town"), { targetPosition: { x: 60, y: height - 3 } });
  await expect.poll(order).toEqual(["country", "street", "note", "town", "find", "place"]);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(order).toEqual(["find", "country", "street", "note", "town", "place"]);
  await expect(studio.wire("town", "town")).toHaveCount(1);
});

test("a part is bound and unbound by keyboard alone", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Bound by keys"));
  await page.getByRole("button", { name: "Pick region" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("“region” is selected: now select the field it fills.")).toBeVisible();
  await page.getByRole("button", { name: "Bind region to Note" }).focus();
  await page.keyboard.press("Enter");
  await expect(studio.wire("region", "note")).toHaveCount(1);
  await page.getByRole("button", { name: "Unbind region from Note" }).focus();
  await page.keyboard.press("Delete");
  await expect(studio.wire("region", "note")).toHaveCount(0);
  await expect(page.getByText(/draft \d · saved/)).toBeVisible();
});

test("what was done is undone and done again", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Undone"));
  await page.getByRole("button", { name: "Unbind town from Town" }).click();
  await expect(studio.wire("town", "town")).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(studio.wire("town", "town")).toHaveCount(1);
  await page.locator("body").press("Control+Shift+Z");
  await expect(studio.wire("town", "town")).toHaveCount(0);
  await page.locator("body").press("Control+z");
  await expect(studio.wire("town", "town")).toHaveCount(1);
});

test("a pattern shows what it gives in each country while it is typed, and what is wrong in it", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Patterns"));
  await page.getByRole("button", { name: "Show Note" }).click();
  const pattern = page.getByLabel("Filled with");
  await pattern.fill("{street or block}, {house or building}[ ({unit})]");
  const table = page.getByRole("table");
  await expect(table.getByRole("row", { name: /^Lorramere [^,]/ })).toContainText("Harbour Row, 12");
  await expect(table.getByRole("row", { name: /Ovarde/ })).toContainText("Østergränd, 3");
  await expect(table.getByRole("row", { name: /Thalmyra/ })).toContainText(/Τετράγωνο \d+, 4/);
  await expect(page.getByText(/draft \d · saved/)).toBeVisible();

  await pattern.fill("{street} {village}");
  await expect(page.getByText("there is no address part or attribute “village” (not saved yet)")).toBeVisible();
  await expect(pattern).toHaveAttribute("aria-invalid", "true");
  await page.reload();
  await page.getByRole("button", { name: "Show Note" }).click();
  await expect(pattern).toHaveValue("{street or block}, {house or building}[ ({unit})]");
});

test("a form is published, and its page shows what was published, not the draft", async ({ page }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Published");
  await studio.compose(ref);
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByRole("button", { name: "Version 1 is live" })).toBeDisabled();
  await page.getByRole("button", { name: "Show Note" }).click();
  await page.getByLabel("Label").fill("Remark");
  await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
  await page.goto(`/f/${ref}`);
  await expect(page.getByLabel("Note")).toBeVisible();
  await page.goto(`/forms/${ref}/compose`);
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByRole("button", { name: "Version 2 is live" })).toBeVisible();
  await page.goto(`/f/${ref}`);
  await expect(page.getByLabel("Remark")).toBeVisible();
});

test("a change made elsewhere meanwhile is not overwritten", long(), async ({ page, context }) => {
  const studio = new Studio(page);
  const ref = await makeForm(page, "Two windows");
  await studio.compose(ref);
  const other = new Studio(await context.newPage());
  await other.compose(ref);
  await other.page.getByRole("button", { name: "Unbind town from Town" }).click();
  await expect(other.page.getByText(/draft 2 · saved/)).toBeVisible();
  await page.getByRole("button", { name: "Show Note" }).click();
  await page.getByLabel("Label").fill("Mine");
  await expect(page.getByText(/saved elsewhere in the meantime/)).toBeVisible();
  await page.getByRole("button", { name: "Load the newest version" }).click();
  await expect(studio.wire("town", "town")).toHaveCount(0);
  await expect(page.getByText(/draft 2 · saved/)).toBeVisible();
});

test("a new form is made from the list, with something to try at once", async ({ page }) => {
  await page.goto("/forms");
  await expect(page.getByRole("link", { name: /Become a reader/ })).toBeVisible();
  await page.getByRole("button", { name: "New form" }).click();
  await expect(page).toHaveURL(/\/forms\/form-[0-9a-f]+\/compose$/);
  await page.getByRole("link", { name: "Rehearse" }).click();
  const studio = new Studio(page);
  await studio.search.pressSequentially("12 harb");
  await expect(studio.list.getByRole("option").first()).toContainText("12 Harbour Row");
});

test("fields are added, named, moved and taken out again, by keyboard too", long(), async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Put together"));
  const labels = () => page.locator("[data-field] [aria-label^='Show']").allTextContents();
  await page.getByRole("button", { name: "Show Town" }).click();
  await page.getByRole("button", { name: "+ field" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("menuitem", { name: "text", exact: true })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "New field" })).toBeVisible();
  await page.getByLabel("Label").fill("Floor");
  await page.getByLabel("Name").fill("1st");
  await expect(page.getByText("a name starts with a letter")).toBeVisible();
  await page.getByLabel("Name").fill("town");
  await expect(page.getByText("another field has this name")).toBeVisible();
  await page.getByLabel("Name").fill("floor");
  await page.keyboard.press("Enter");
  await expect(page.locator('[data-field="floor"]')).toBeVisible();
  const at = async () => (await labels()).findIndex((text) => text.startsWith("Floor"));
  const before = await at();
  await page.getByRole("button", { name: "Move Floor up" }).click();
  await expect.poll(at).toBe(before - 1);
  await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();
  await page.reload();
  await expect.poll(at).toBe(before - 1);
  await page.getByRole("button", { name: "Show Floor" }).click();
  await page.getByRole("button", { name: "Remove Floor" }).click();
  await expect(page.locator('[data-field="floor"]')).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.locator('[data-field="floor"]')).toBeVisible();
});

test(
  "what starts a lookup, when a field is shown and what is said are set by hand, and hold in rehearsal",
  long(),
  async ({ page }) => {
    const studio = new Studio(page);
    const ref = await makeForm(page, "Ruled");
    await studio.compose(ref);
    await page.getByRole("button", { name: "Show Find your address" }).click();
    await page.getByRole("button", { name: "Remove Find your address" }).click();
    await page.getByRole("button", { name: "Show Town" }).click();
    await expect(page.getByRole("button", { name: "a field loses focus" })).toHaveAttribute("aria-pressed", "true");
    await page.getByRole("button", { name: "several fields are filled in" }).click();
    await page.getByRole("checkbox", { name: "Country", exact: true }).uncheck();
    await page.getByLabel("When nothing is found").fill("No such house.");
    await page.getByRole("button", { name: "Show Note" }).click();
    await page.getByRole("button", { name: "depends on another field" }).click();
    await page.getByLabel("When this field").selectOption({ label: "Town" });
    await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();

    await page.getByRole("link", { name: "Rehearse" }).click();
    await expect(studio.field("Note")).toBeHidden();
    await studio.field("Street and number").click();
    await page.keyboard.type("7 Zyxwvut");
    await page.keyboard.press("Tab");
    await studio.field("Town").click();
    await page.keyboard.type("Quuxby");
    await expect(studio.field("Note")).toBeVisible();
    await page.keyboard.press("Tab");
    await expect(page.getByText("No such house.")).toBeVisible();
    await studio.field("Street and number").fill("12 harbour row");
    await studio.field("Town").fill("tidewell");
    await studio.field("Town").blur();
    await expect(studio.field("Country")).toHaveValue("QR");
    await expect(studio.field("Street and number")).toHaveValue("12 Harbour Row");
  },
);

test("what to look at is listed, and leads to its field", async ({ page }) => {
  const studio = new Studio(page);
  await studio.compose(await makeForm(page, "Looked at"));
  const list = page.getByRole("region", { name: "Worth checking" });
  await expect(list).toContainText("nothing");
  await page.getByRole("button", { name: "Show Note" }).click();
  await page.getByLabel("Autofill token").fill("address-line1");
  await expect(list).toContainText(
    "Note “address-line1” is also used by Street and number, and browsers fill only one of them.",
  );
  await page.getByRole("button", { name: "Show Town" }).click();
  await list.getByRole("button", { name: "Show Note: duplicate token" }).click();
  await expect(page.getByRole("heading", { name: "Note" })).toBeVisible();
});

test("what an address is looked up among, and what may differ, is set without its JSON", long(), async ({ page }) => {
  const ref = await makeForm(page, "Narrowed");
  await new Studio(page).compose(ref);
  await page.getByRole("button", { name: "Show On the map" }).click();
  await page.getByRole("checkbox", { name: "Offers a relief view" }).check();
  await page.locator("[data-field]").first().click();
  await page.getByRole("checkbox", { name: "town", exact: true }).last().check();
  await page.getByRole("checkbox", { name: "house", exact: true }).first().check();
  await page.getByLabel("Only these countries (codes)").fill("qr, qv");
  await expect(page.getByText(/draft \d+ · saved/)).toBeVisible();
  await expect
    .poll(async () => {
      const { definition, draft } = await (await page.request.get(`/api/forms/${ref}`)).json();
      return (definition ?? draft.definition).addresses;
    })
    .toEqual([{ name: "", kinds: ["town"], mayDiffer: ["postcode", "house"], countries: ["QR", "QV"] }]);
  await page.getByRole("link", { name: "Rehearse" }).click();
  await expect(page.getByRole("button", { name: "Show relief" })).toBeVisible();
});
