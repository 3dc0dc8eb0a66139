import { type APIRequestContext, expect, type Page, test } from "@playwright/test";
import { type FormDefinition, usesOf } from "../packages/core/src/form/index.ts";
import { SAMPLE_FORMS } from "../packages/islands/src/forms/index.ts";
import { FormPage } from "../packages/kit/src/playwright/index.ts";
import { pageOf } from "../packages/studio/src/take-away/page.ts";
import { baseUrl } from "./support/house.ts";
import { type OwnPages, servePages, withKey } from "./support/own-page.ts";

const LOOPBACK = ["http://127.0.0.1:*"];
const [{ definition: READER }] = SAMPLE_FORMS;

interface Made {
  id: number;
  key: string;
}

async function send(request: APIRequestContext, method: "post" | "put", path: string, data: object): Promise<Made> {
  const { csrf } = await (await request.get("/api/session")).json();
  const answer = await request[method](path, { headers: { "x-csrf-token": csrf }, data });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer.json();
}

const rules = (calls: readonly string[]) => ({ name: "Of a form", origins: LOOPBACK, calls });

let pages: OwnPages | undefined;
test.afterEach(() => pages?.close());

async function open(page: Page, definition: FormDefinition, key: string): Promise<void> {
  pages = await servePages({ "/": withKey(pageOf(definition, baseUrl()), key) });
  await page.goto(pages.origin);
  await expect(page.locator("[data-bibliotope=form]")).toBeVisible();
}

test("a form that uses what its key lacks says so at its start, to the person and to the developer", async ({
  page,
  request,
}) => {
  const lacking = usesOf(READER).filter((use) => use !== "reverse");
  const { id, key } = await send(request, "post", "/api/keys", { kind: "web", ...rules(lacking) });
  const warned = page.waitForEvent("console", (message) => message.text().startsWith("Bibliotope: "));
  await open(page, READER, key);
  const said = page.getByText("The map cannot look up addresses on this page. Type the address by hand.");
  await expect(said).toBeVisible();
  expect((await warned).text()).toMatch(/uses reverse, which its key does not allow\. Change the key under Keys/);
  // the rest of it works
  await page.getByLabel("Find your address").pressSequentially("12 harb");
  await expect(page.getByRole("option").first()).toContainText("12 Harbour Row");

  // allowed more, the same page has nothing to say, and the map fills it
  await send(request, "put", `/api/keys/${id}`, rules(usesOf(READER)));
  await page.reload();
  await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await expect(said).toHaveCount(0);
  await new FormPage(page).pointAt({ lat: -35.1841, lon: -21.6253 });
  await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
});

test("a key without suggestions is told in the search field, before anybody types in vain", async ({
  page,
  request,
}) => {
  const { key } = await send(request, "post", "/api/keys", { kind: "web", ...rules(["countries", "tiles"]) });
  await open(page, READER, key);
  await expect(page.getByText("Address search is not allowed on this page.").first()).toBeVisible();
});

test("each sample form comes up with a key of just what it uses, and nothing is refused", async ({ page, request }) => {
  for (const { ref, definition } of SAMPLE_FORMS) {
    const { key } = await send(request, "post", "/api/keys", { kind: "web", ...rules(usesOf(definition)) });
    const refused: string[] = [];
    const note = (response: { status(): number; url(): string }) => {
      if (response.status() === 403) refused.push(response.url());
    };
    page.on("response", note);
    await open(page, definition, key);
    if (definition.fields.some(({ kind, opens }) => kind === "map" && !opens))
      await expect(page.locator("[data-bibliotope=map]"), ref).toHaveAttribute("data-complete", "true");
    expect(refused, ref).toEqual([]);
    page.off("response", note);
    pages?.close();
  }
});

test("the workbench proposes the key of a form: just the lookups that it uses", async ({ page }) => {
  await page.goto("/forms/become-a-reader/take-away");
  await page.getByRole("button", { name: "Create a key for this form" }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("only the kinds of lookup this form uses");
  await expect(dialog.getByLabel("Name")).toHaveValue("Become a reader");
  for (const [words, is] of [
    ["suggestions", true],
    ["reverse", true],
    ["pictures", true],
    ["batches", false],
    ["postcodes", false],
  ] as const)
    await expect(dialog.getByLabel(words, { exact: true })).toBeChecked({ checked: is });
  await dialog.getByLabel("Origins, one per line").fill("https://members.example");
  await dialog.getByRole("button", { name: "Create key" }).click();
  await expect(dialog).toContainText("bt_web_");
});
