import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, test } from "@playwright/test";
import { ready } from "./support/house.ts";

/** A form with a control that is an element of the page's own. */
const PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><title>Own controls</title>
<form><label>Street <input name="street" autocomplete="address-line1"></label>
<label>Postcode <input name="code" autocomplete="postal-code"></label>
<own-field name="town" autocomplete="address-level2"></own-field></form>
<script type="module" src="/page.js"></script></html>`;

const script = () => `import { bind, Client } from "${ready().url}/kit/v1/bibliotope.js";
customElements.define("own-field", class extends HTMLElement {
  static formAssociated = true;
  #internals = this.attachInternals();
  #value = "";
  get name() { return this.getAttribute("name"); }
  get value() { return this.#value; }
  set value(value) { this.#value = value; this.#internals.setFormValue(value); this.textContent = "Town: " + value; }
});
window.heard = [];
const form = document.querySelector("form");
for (const type of ["input", "change"]) form.addEventListener(type, ({ target }) => heard.push(type + " " + target.name));
bind(form, { client: new Client({ key: "${ready().keys.web}", url: "${ready().url}" }) });`;

let server: Server;
let url: string;
test.beforeAll(async () => {
  server = createServer((request, response) => {
    const isScript = request.url === "/page.js";
    response.setHeader("content-type", isScript ? "text/javascript" : "text/html").end(isScript ? script() : PAGE);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
test.afterAll(() => void server.close());

test("a control of the page's own is filled, and any framework hears of it", async ({ page }) => {
  await page.goto(url);
  await page.getByLabel("Street").click();
  await page.keyboard.type("12 harb");
  await page.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  await expect(page.getByText("Town: Tidewell")).toBeVisible();
  const sent = await page.evaluate(() => Object.fromEntries(new FormData(document.querySelector("form")!)));
  expect(sent).toMatchObject({ street: "12 Harbour Row", town: "Tidewell", code: "HT0 10" });
  const heard = await page.evaluate(() => (window as unknown as { heard: string[] }).heard);
  expect(heard).toEqual(expect.arrayContaining(["input town", "change town", "input code", "change code"]));
});

test("what stood in a field before it was filled comes back by undo, and by redo what was filled", async ({ page }) => {
  await page.goto(url);
  await page.getByLabel("Postcode").click();
  await page.keyboard.type("AB1");
  await page.getByLabel("Street").click();
  await page.keyboard.type("12 harb");
  await page.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
  const code = page.getByLabel("Postcode");
  await expect(code).toHaveValue("HT0 10");
  await code.click();
  await page.keyboard.press("Control+z");
  await expect(code).toHaveValue("AB1");
  // it is the person's own now
  await expect(code).toHaveAttribute("data-bt", "corrected");
  await page.keyboard.press("Control+Shift+z");
  await expect(code).toHaveValue("HT0 10");
  await expect(code).toHaveAttribute("data-bt", "filled");
});
