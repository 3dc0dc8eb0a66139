import { execFile } from "node:child_process";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { promisify } from "node:util";
import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";
import { servePages } from "./support/own-page.ts";
import { makeForm } from "./support/studio.ts";

const code = (page: Page) => page.getByRole("region", { name: "Code" });
const piece = async (page: Page, ref: string, name: string) => {
  await page.goto(`/forms/${ref}/take-away`);
  await page.getByRole("group", { name: "What to take away" }).getByRole("button", { name, exact: true }).click();
  return (await code(page).locator("code").textContent())!;
};

const SAMPLES = [
  "become-a-reader",
  "offer-a-house",
  "lend-to-a-branch",
  "reading-rooms",
  "books-abroad",
  "suggest-a-stop",
] as const;

let server: Server | undefined;
test.afterEach(() => void server?.close());

/** Serves a page of another origin than the service's, as a developer's own server does. */
async function serve(html: string, policy: string): Promise<string> {
  server = createServer((request, response) => {
    // browsers ask for an icon by themselves
    if (request.url !== "/") return response.writeHead(204).end();
    response.writeHead(200, { "content-type": "text/html", "content-security-policy": policy });
    // what the server does with its key from the environment
    response.end(
      html.replace('name="bibliotope-key" content=""', `name="bibliotope-key" content="${ready().keys.web}"`),
    );
  });
  await new Promise<void>((resolve) => server!.listen(0, "127.0.0.1", resolve));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
}

for (const ref of SAMPLES)
  test(
    `${ref}: the page taken away runs as it is on another origin, under its policy`,
    long(ref !== SAMPLES[0]),
    async ({ page }) => {
      const html = await piece(page, ref, "Page");
      expect(html).not.toContain(ready().keys.web);
      await expect(page.getByRole("button", { name: "Policy" })).toBeVisible();
      await page.getByRole("button", { name: "Policy" }).click();
      await expect(code(page)).toContainText(/sha256-.{43}=/);
      const policy = /^Content-Security-Policy: (.+)$/m.exec((await code(page).textContent())!)![1];
      const wrong: string[] = [];
      page.on("console", (message) => message.type() === "error" && wrong.push(message.text()));
      page.on("pageerror", (error) => wrong.push(error.message));
      const logged: Record<string, string>[] = [];
      page.on("console", (message) => {
        if (message.type() === "log")
          void message
            .args()[0]
            .jsonValue()
            .then((value) => logged.push(value));
      });
      await page.goto(await serve(html, policy));
      await expect(page.locator("[data-bibliotope=form]")).toBeVisible();
      if (ref === "become-a-reader") {
        await page.getByLabel("Find your address").click();
        await page.keyboard.type("12 harb");
        await page.getByRole("option").filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
        await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
        await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 12 Harbour Row.");
        await page.getByLabel("Your name").fill("Ada");
        await page.getByRole("button", { name: "Send" }).click();
        await expect.poll(() => logged.at(-1)).toMatchObject({ reader: "Ada", town: "Tidewell", country: "QR" });
      } else if (ref === "offer-a-house") {
        for (const [label, text] of [
          ["Street", "harbor row"],
          ["House", "12"],
          ["Town", "tidewell"],
        ]) {
          await page.getByLabel(label, { exact: true }).click();
          await page.keyboard.type(text);
          await page.keyboard.press("Tab");
        }
        await expect(page.getByLabel("Postcode")).toHaveValue("HT0 10");
      } else if (ref === "reading-rooms") {
        await page.getByLabel("Find a reading room").click();
        await page.keyboard.type("mill reading room tidewell");
        await page
          .locator("[data-bibliotope=suggestions]")
          .getByRole("option")
          .filter({ hasText: "Reading Room" })
          .first()
          .click();
        await expect(page.getByLabel("Reading room", { exact: true })).toHaveText(/Mill Reading Room/);
        const still = page.locator("[data-bibliotope=form] img");
        await expect
          .poll(() => still.evaluate((img: HTMLImageElement) => img.complete && img.naturalWidth > 0))
          .toBe(true);
      } else if (ref === "books-abroad") {
        await page.getByLabel("Country").focus();
        await page.keyboard.type("Lorr");
        await page.keyboard.press("Tab");
        // labels follow the country
        for (const [field, text] of [
          ["town", "tidewell"],
          ["street", "harbour row"],
          ["house", "12"],
        ]) {
          await page.locator(`[data-bibliotope=form] [name="${field}"]`).click();
          await page.keyboard.type(text);
        }
        await page.getByRole("button", { name: "Look up" }).click();
        await expect(page.getByLabel("On the envelope")).toHaveText(/12 Harbour Row[\s\S]*Tidewell/);
      } else if (ref === "suggest-a-stop") {
        await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
        await page.locator("[data-bibliotope=map]").click({ position: { x: 200, y: 150 } });
        await expect(page.getByLabel("Position")).toHaveValue(/^-3\d\.\d+,-2\d\.\d+$/);
      } else {
        for (const label of ["From", "To"]) {
          await page.getByRole("combobox", { name: label, exact: true }).click();
          await page.keyboard.type(label === "From" ? "mill reading room tidewell" : "thrift reading room tidewell");
          const list = page.getByRole("listbox", { name: "Suggestions" });
          await list.getByRole("option").filter({ hasText: "Reading Room" }).first().click();
        }
        await expect(page.getByLabel("Distance")).toHaveText(/km$/);
      }
      await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
      expect(wrong).toEqual([]);
    },
  );

test("a page that has no key yet says what is missing, in words", async ({ page }) => {
  const html = await piece(page, "become-a-reader", "Page");
  const pages = await servePages({ "/": html });
  try {
    await page.goto(pages.origin);
    await expect(page.getByRole("heading", { name: "Become a reader" })).toBeVisible();
    await expect(page.getByRole("alert")).toContainText(/^This form cannot be shown\. The page has no web key yet/);
  } finally {
    pages.close();
  }
});

test("the calls run in a shell, with the key and the values from its environment", async ({ page }) => {
  const text = await piece(page, "offer-a-house", "Calls");
  const run = promisify(execFile);
  // fields that are left empty have no variable
  const values = { STREET: "Harbour Row", HOUSE: "12", TOWN: "Tidewell" };
  const env = { ...process.env, BIBLIOTOPE_SERVER_KEY: ready().keys.srv, ...values };
  const [lookup] = text.replace("curl --get", "curl --silent --get").split("# Every call");
  const { stdout } = await run("bash", ["-c", lookup], { env });
  expect(JSON.parse(stdout).features[0].properties.line).toContain("12 Harbour Row, Tidewell");
});

test("rehearsals go along as tests", async ({ page }) => {
  const ref = await makeForm(page, "Taken away with tests");
  expect(await piece(page, ref, "Tests")).toContain("No rehearsals are saved with this form yet");
  const { csrf } = await (await page.request.get("/api/session")).json();
  const steps = [{ do: "type", field: "note", text: "ring twice" }];
  await page.request.post(`/api/forms/${ref}/rehearsals`, {
    headers: { "x-csrf-token": csrf },
    data: { name: "A note", situation: "normal", steps, expected: { note: "ring twice" } },
  });
  expect(await piece(page, ref, "Tests")).toContain('test("A note", async');
});

test("what is taken away is saved as a file, copied, and accessible", long(), async ({ page }) => {
  await piece(page, "books-abroad", "Definition");
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a file" }).click();
  expect((await download).suggestedFilename()).toBe("books-abroad.json");
  expect(await axeFindings(page)).toEqual([]);
});
