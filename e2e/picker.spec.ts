import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";
import { standsStill } from "./support/rest.ts";
import { changeForm, makeForm, publish } from "./support/studio.ts";

/** A form whose map opens over it. */
async function withPicker(page: Page, title: string): Promise<void> {
  const ref = await makeForm(page, title);
  await changeForm(page, ref, (definition) => {
    definition.fields.find(({ kind }: { kind: string }) => kind === "map").opens = true;
    definition.fields.push({ name: "confirmed", kind: "hidden", label: "Confirmed", binding: "{confirmed}" });
  });
  await publish(page, ref);
  await page.goto(`/f/${ref}`);
}

const picker = (page: Page) => page.getByRole("dialog", { name: "On the map" });
const values = (page: Page) =>
  page.locator("[data-bibliotope=form]").evaluate((form: HTMLFormElement) => Object.fromEntries(new FormData(form)));

test("a map that opens over the form fills it on Done alone, by pointer", long(), async ({ page }) => {
  await withPicker(page, "Picked by hand");
  await page.getByLabel("Find your address").fill("");
  await page.getByLabel("Find your address").click();
  await page.keyboard.type("12 harbour row tidewell");
  await page.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
  const before = await values(page);
  // cancelled, by the button and by Escape
  for (const end of ["button", "Escape"]) {
    await page.getByRole("button", { name: "Find it on the map" }).click();
    await expect(picker(page).locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
    await expect(picker(page).locator(".bt-picked")).toContainText("12 Harbour Row, Tidewell");
    const { x, y, width, height } = (await picker(page).locator("[data-bibliotope=map]").boundingBox())!;
    await page.mouse.move(x + width / 2, y + height / 2);
    await page.mouse.down();
    await page.mouse.move(x + width / 2 - 160, y + height / 2 - 60, { steps: 8 });
    await page.mouse.up();
    await expect(picker(page).locator(".bt-picked")).not.toContainText("12 Harbour Row, Tidewell");
    expect(await axeFindings(page)).toEqual([]);
    if (end === "button") await picker(page).getByRole("button", { name: "Cancel" }).click();
    else await page.keyboard.press("Escape");
    await expect(picker(page)).toBeHidden();
    expect(await values(page)).toEqual(before);
  }
  await page.getByRole("button", { name: "Find it on the map" }).click();
  await expect(picker(page).locator(".bt-picked")).toContainText("12 Harbour Row, Tidewell");
  await picker(page)
    .locator("[data-bibliotope=map]")
    .click({ position: { x: 420, y: 120 } });
  await expect(picker(page).locator(".bt-picked")).not.toContainText("12 Harbour Row, Tidewell");
  // the map glides there, and the address follows it
  await standsStill(page);
  const told = await picker(page).locator(".bt-picked").textContent();
  await picker(page).getByRole("button", { name: "Done" }).click();
  await expect(picker(page)).toBeHidden();
  await expect(page.getByLabel("Find your address")).toHaveValue(told!);
  await expect(page.locator("[name=confirmed]")).toHaveValue("yes");
  expect(await values(page)).not.toEqual(before);
});

test("a map that opens over the form is used by keyboard, and takes nothing where no address is near", async ({
  page,
}) => {
  await withPicker(page, "Picked by keys");
  await page.getByRole("button", { name: "Find it on the map" }).focus();
  await page.keyboard.press("Enter");
  // the whole archipelago: the mark stands in the sea
  await expect(picker(page).locator(".bt-picked")).toHaveText("Nothing was found near this position.");
  await expect(picker(page).getByRole("button", { name: "Done" })).toBeDisabled();
  await page.keyboard.press("Escape");
  await expect(picker(page)).toBeHidden();
  await expect(page.getByRole("button", { name: "Find it on the map" })).toBeFocused();
  expect(Object.values(await values(page)).filter(Boolean)).toEqual([]);
});

/** Chooses a reading room in a form that asks for places. */
async function chooseRoom(page: Page): Promise<string> {
  await page.locator("[name=find]").click();
  await page.keyboard.type("mill reading room");
  await page.getByRole("option").filter({ hasText: "Tidewell" }).first().click();
  await expect(page.locator("[name=ref]")).not.toHaveValue("");
  return await page.locator("[name=ref]").inputValue();
}

/** What the form holds, as the service has it. */
async function heldRecord(page: Page) {
  const ref = await page.locator("[name=ref]").inputValue();
  const { url, keys } = ready();
  const answer = await page.request.get(`${url}/v1/records/${ref}`, {
    headers: { authorization: `Bearer ${keys.srv}` },
  });
  return (await answer.json()).properties;
}

test(
  "a form that asks for places takes none but places from its map: dragged, pressed, under the aim",
  long(),
  async ({ page }) => {
    await page.goto("/f/reading-rooms");
    const map = page.locator("[data-bibliotope=map]");
    await chooseRoom(page);
    // on a slow machine two pictures may be the same before the map has begun to move
    await expect(map).toContainText("There is a marker at");
    await standsStill(page);
    const holdsAPlace = async () => {
      await standsStill(page);
      const { kind, parts, line } = await heldRecord(page);
      expect(kind).toBe("place");
      expect(line).toContain(`${parts.place.name}, `);
      return await values(page);
    };
    await holdsAPlace();
    const { x, y, width, height } = (await map.boundingBox())!;
    // the street is full of houses; what is dragged or pressed there is the nearest place
    await page.mouse.move(x + width / 2, y + height / 2 - 6);
    await page.mouse.down();
    await page.mouse.move(x + width / 2 + 40, y + height / 2 + 20, { steps: 8 });
    // what is requested the last step of the drag may be the answer for where it is dropped
    const answered = page.waitForResponse(/\/v1\/reverse/, { timeout: 2000 }).catch(() => undefined);
    await page.mouse.up();
    await answered;
    await holdsAPlace();
    await map.click({ position: { x: width / 2 - 60, y: height / 2 + 60 } });
    const pressed = await holdsAPlace();
    await page.getByRole("button", { name: "Aim with the map" }).click();
    const told = map.locator(".bt-aimed p");
    await expect(told).toHaveText(String(pressed.find));
    await page.getByRole("button", { name: "Use this place" }).click();
    expect(await holdsAPlace()).toEqual(pressed);
  },
);

test("what a map that opens over a form tells is what Done fills, also where places are requested", async ({
  page,
}) => {
  const made = await makeForm(page, "A room, picked");
  await changeForm(page, made, (definition) => {
    definition.fields.find(({ kind }: { kind: string }) => kind === "map").opens = true;
    definition.fields.push({ name: "ref", kind: "hidden", label: "Reference", binding: "{ref}" });
    definition.addresses = [{ name: "", kinds: ["place"] }];
  });
  await publish(page, made);
  await page.goto(`/f/${made}`);
  const room = await chooseRoom(page);
  const search = page.getByLabel("Find your address");
  await page.getByRole("button", { name: "Find it on the map" }).click();
  await expect(picker(page).locator(".bt-picked")).toContainText("Mill Reading Room");
  const told = await picker(page).locator(".bt-picked").textContent();
  await picker(page).getByRole("button", { name: "Done" }).click();
  await expect(search).toHaveValue(told!);
  await expect(page.locator("[name=ref]")).toHaveValue(room);
});
