import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, type Page, test } from "@playwright/test";
import { ready } from "./support/house.ts";

/** A developer's own page on a port of its own, with the kit from ours. */
function page(key: string, policy = false): string {
  const { url } = ready();
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Members</title>
<form><label>Street <input name="street" autocomplete="address-line1"></label>
<label>Town <input name="town" autocomplete="address-level2"></label>
<label>Postcode <input name="code" autocomplete="postal-code"></label>
<label>Country <input name="country" autocomplete="country-name"></label></form>
<div id="map" ${policy ? "" : 'style="width:400px;height:300px"'}></div>
<script type="module" src="/page.js?key=${key}"></script><!-- ${url} --></html>`;
}

function script(key: string): string {
  const { url } = ready();
  return `import { bind, Client, InteractiveMap } from "${url}/kit/v1/bibliotope.js";
const client = new Client({ key: "${key}", url: "${url}" });
bind(document.querySelector("form"), { client });
const place = document.querySelector("#map");
place.style.width = "400px"; place.style.height = "300px";
new InteractiveMap(place, { client, label: "Where" });
document.documentElement.dataset.ready = "true";`;
}

let server: Server;
let origin: string;

test.beforeAll(async () => {
  server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url ?? "/", "http://x");
    const key = searchParams.get("key") ?? "";
    if (pathname === "/page.js") return void response.setHeader("content-type", "text/javascript").end(script(key));
    const strict = searchParams.get("policy") === "strict";
    if (strict) {
      const { url } = ready();
      response.setHeader(
        "content-security-policy",
        `default-src 'none'; script-src 'self' ${url}; connect-src ${url}; style-src 'none'; worker-src 'none'; img-src 'none'`,
      );
    }
    response.setHeader("content-type", "text/html").end(page(key, strict));
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});

test.afterAll(() => void server.close());

test("a plain form on another origin fills itself by its autofill tokens, with no preflight for a letter", async ({
  page: browser,
}) => {
  const preflights: string[] = [];
  const session = await browser.context().newCDPSession(browser);
  await session.send("Network.enable");
  session.on("Network.requestWillBeSent", ({ request }) => {
    if (request.method === "OPTIONS") preflights.push(request.url);
  });
  await browser.goto(`${origin}/?key=${ready().keys.web}`);
  await browser.getByLabel("Street").click();
  await browser.getByLabel("Street").pressSequentially("12 harb", { delay: 40 });
  await expect(browser.getByRole("option").first()).toContainText("12 Harbour Row, Tidewell");
  await browser.keyboard.press("ArrowDown");
  await browser.keyboard.press("Enter");
  await expect(browser.getByLabel("Town")).toHaveValue("Tidewell");
  await expect(browser.getByLabel("Postcode")).toHaveValue(/^[A-Z]{2}\d \d{2}$/);
  await expect(browser.getByLabel("Country")).toHaveValue("Lorramere");
  await expect(browser.getByLabel("Street")).toHaveValue("12 Harbour Row");
  await expect(browser.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  expect(preflights).toEqual([]);
});

/** What the developer is told in the console. */
const warning = async (page: Page) =>
  (await page.waitForEvent("console", (message) => message.text().startsWith("Bibliotope: "))).text();

test("a key that is not for this origin: the person is told that it may not be used, the developer why", async ({
  page: browser,
  request,
}) => {
  const { csrf } = await (await request.get("/api/session")).json();
  const made = await request.post("/api/keys", {
    headers: { "x-csrf-token": csrf },
    data: { kind: "web", name: "Members' site", origins: ["https://members.example"] },
  });
  const { key } = await made.json();
  // the map may be the first to be refused
  const warned = warning(browser);
  await browser.goto(`${origin}/?key=${key}`);
  await browser.getByLabel("Street").click();
  await browser.getByLabel("Street").pressSequentially("12");
  await expect(browser.getByText("Address search is not allowed on this page.")).toBeVisible();
  expect(await warned).toContain(`The key “Members' site” does not allow ${origin}.`);
  await expect(browser.getByRole("option")).toHaveCount(0);
});

test("a server key in a page is refused, and the developer sees the reason", async ({ page: browser }) => {
  // the map may be the first to be refused
  const warned = warning(browser);
  await browser.goto(`${origin}/?key=${ready().keys.srv}`);
  await browser.getByLabel("Street").click();
  await browser.getByLabel("Street").pressSequentially("12");
  await expect(browser.getByText("Address search is not allowed on this page.")).toBeVisible();
  expect(await warned).toContain("This server key was sent from a page");
});

test("under a strict policy that forbids workers and inline styles, the list works and the map is painted", async ({
  page: browser,
}) => {
  await browser.goto(`${origin}/?policy=strict&key=${ready().keys.web}`);
  await expect(browser.locator("html")).toHaveAttribute("data-ready", "true");
  await browser.getByLabel("Street").click();
  await browser.getByLabel("Street").pressSequentially("12 harb");
  await expect(browser.getByRole("option").first()).toContainText("12 Harbour Row");
  const position = await browser.getByRole("listbox").evaluate((list) => getComputedStyle(list).position);
  expect(position).toBe("absolute");
  await expect(browser.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
});
