import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type APIRequestContext, chromium, expect, type Locator, type Page, test } from "@playwright/test";
import { CHROMIUM } from "../bench/browser.ts";
import { axeFindings } from "./support/axe.ts";
import { baseUrl } from "./support/house.ts";
import { type OwnPages, servePages } from "./support/own-page.ts";

const HARBOUR = "-35.1841,-21.6253";

async function makeKey(request: APIRequestContext, kind: "web" | "view", origins: string[]): Promise<string> {
  const { csrf } = await (await request.get("/api/session")).json();
  const data = { kind, name: "Of a picker", origins };
  const made = await request.post("/api/keys", { headers: { "x-csrf-token": csrf }, data });
  return (await made.json()).key;
}

/** A page of a developer's: a window of the picker by the kit, or a frame of it by hand, and what came of it. */
const opening = (
  key: string,
  asked: object,
) => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Visits</title>
<button>Pick the place</button><output>nothing yet</output>
<script type="module">
import { openPicker } from "${baseUrl()}/kit/v1/bibliotope.js";
const out = document.querySelector("output");
document.querySelector("button").addEventListener("click", async () => {
  const place = await openPicker({ url: "${baseUrl()}", key: "${key}", params: ${JSON.stringify(asked)} });
  out.textContent = place ? JSON.stringify(place) : "cancelled";
});
document.documentElement.dataset.ready = "true";
</script></html>`;

const framing = (
  key: string,
  origin: string,
) => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Visits</title>
<iframe title="Pick" width="420" height="560" allow="geolocation"
  src="${baseUrl()}/pick?key=${key}&origin=${encodeURIComponent(origin)}&state=seven&at=${HARBOUR}"></iframe>
<output>nothing yet</output>
<script>
addEventListener("message", ({ origin, data }) => {
  if (origin === "${baseUrl()}") document.querySelector("output").textContent = JSON.stringify(data);
});
</script></html>`;

let pages: OwnPages | undefined;
test.afterEach(() => pages?.close());
const out = (page: Page) => page.locator("output");
const told = (page: { locator(selector: string): Locator }) => page.locator(".bt-picked");

test("in a window of its own it hands back on Done, and nothing on Cancel, Escape or when it is closed", async ({
  page,
  request,
}) => {
  const key = await makeKey(request, "web", ["http://127.0.0.1:*"]);
  pages = await servePages({ "/": opening(key, { at: HARBOUR, zoom: "17", label: "Where shall we come?" }) });
  await page.goto(pages.origin);
  await expect(page.locator("html")).toHaveAttribute("data-ready", "true");
  const open = async () => {
    const [popup] = await Promise.all([page.waitForEvent("popup"), page.getByRole("button").click()]);
    await expect(told(popup)).toContainText("Harbour Row, Tidewell");
    return popup;
  };
  for (const end of [
    // the window may be gone before the press has ended, or the key comes up again
    (popup: Page) =>
      popup
        .getByRole("button", { name: "Cancel" })
        .click()
        .catch(() => undefined),
    (popup: Page) => popup.keyboard.press("Escape").catch(() => undefined),
    (popup: Page) => popup.close(),
  ]) {
    const popup = await open();
    const isClosed = popup.waitForEvent("close");
    await end(popup);
    await isClosed;
    await expect(out(page)).toHaveText("cancelled");
    await page.evaluate(() => (document.querySelector("output")!.textContent = "nothing yet"));
  }
  const popup = await open();
  await expect(popup).toHaveTitle("Where shall we come?");
  expect(await axeFindings(popup)).toEqual([]);
  // somebody else sends something meanwhile
  await page.evaluate(() => {
    window.postMessage({ from: "bibliotope", ended: "picked", state: "", place: { line: "Elsewhere" } }, "*");
  });
  await popup.getByLabel("Search").click();
  await popup.keyboard.type("3 mill lane");
  await expect(popup.getByRole("option").first()).toContainText("3 Mill Lane");
  const line = await popup.getByRole("option").first().locator("[data-bibliotope=line]").textContent();
  await popup.keyboard.press("ArrowDown");
  await popup.keyboard.press("Enter");
  await expect(told(popup)).toContainText(line!);
  // the mark comes to stand there, and what was chosen stays chosen
  await expect(popup.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
  await expect(told(popup)).toContainText(line!);
  expect(await out(page).textContent()).toBe("nothing yet");
  const isClosed = popup.waitForEvent("close");
  await popup.getByRole("button", { name: "Done" }).click();
  await isClosed;
  await expect(out(page)).toContainText('"state":"chosen"');
  const place = JSON.parse((await out(page).textContent())!);
  expect(place.line).toContain(line);
  expect(place.ref).toMatch(/^q[rvy]-/);
  expect(place.parts.street.name).toBeTruthy();
});

test("in a frame it hands back to the page around, which alone may show it; a refused position is told", async ({
  page,
  request,
}) => {
  const key = await makeKey(request, "web", ["http://127.0.0.1:*"]);
  const site: Record<string, string> = { "/": "" };
  pages = await servePages(site);
  site["/"] = framing(key, pages.origin);
  await page.goto(pages.origin);
  const frame = page.frameLocator("iframe");
  await expect(told(frame)).toContainText("Harbour Row, Tidewell");
  await frame.getByRole("button", { name: "Show my location" }).click();
  await expect(frame.getByText("This page is not allowed to use the device's location.")).toBeVisible();
  const line = await told(frame).textContent();
  await frame.getByRole("button", { name: "Done" }).click();
  await expect(out(page)).toContainText('"state":"seven"');
  const back = JSON.parse((await out(page).textContent())!);
  expect(back).toMatchObject({ from: "bibliotope", ended: "picked", place: { line, state: "chosen" } });
  await expect(frame.getByText(`Returned: ${line}`)).toBeVisible();

  // another origin than the one that it is for shows nothing of it
  const other = await servePages({ "/": framing(key, pages.origin) });
  const refused = page.waitForEvent("console", (message) => message.text().includes("frame-ancestors"));
  await page.goto(other.origin);
  await refused;
  other.close();
});

test("it goes on to an address, with a spot as it is where any spot will do", async ({ page, request }) => {
  const key = await makeKey(request, "web", ["http://127.0.0.1:*"]);
  pages = await servePages({ "/done": "<!doctype html><title>Done</title>" });
  const to = `${pages.origin}/done?order=7`;
  const asked = new URLSearchParams({ key, redirect: to, state: "w1", anywhere: "1", at: "-35.19,-21.64", zoom: "15" });
  await page.goto(`/pick?${asked}`);
  await expect(page.getByRole("button", { name: "Done" })).toBeEnabled();
  await page.getByRole("button", { name: "Done" }).click();
  await page.waitForURL(/\/done/);
  const { searchParams } = new URL(page.url());
  expect(Object.fromEntries(searchParams)).toMatchObject({
    ...{ order: "7", ended: "picked", state: "w1", ref: "", line: "", address: "typed" },
    ...{ lat: "-35.19", lon: "-21.64" },
  });
  await page.goto(`/pick?${asked}`);
  await page.getByRole("button", { name: "Cancel" }).click();
  await page.waitForURL(/ended=cancelled/);
});

test("it speaks over a web view's bridge, stands in 320 pixels, by night, from right to left, and by keyboard alone", async ({
  page,
  request,
}) => {
  const key = await makeKey(request, "view", ["app://localhost"]);
  const handed: string[] = [];
  await page.exposeFunction("handOver", (text: string) => void handed.push(text));
  await page.addInitScript(() => {
    Object.assign(window, {
      places: { postMessage: (text: string) => (window as never as { handOver(text: string): void }).handOver(text) },
    });
    // a web view may have nothing to keep things in
    Object.defineProperty(window, "localStorage", {
      get: () => {
        throw new DOMException("no storage");
      },
    });
    Object.defineProperty(window, "sessionStorage", {
      get: () => {
        throw new DOMException("no storage");
      },
    });
  });
  await page.setViewportSize({ width: 320, height: 560 });
  await page.goto(
    `/pick?${new URLSearchParams({ key, bridge: "places", lang: "ar", night: "1", at: HARBOUR, accent: "7a1f5c" })}`,
  );
  await expect(page.locator("html")).toHaveAttribute("dir", "rtl");
  await expect(told(page)).toContainText("Harbour Row");
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  expect(await axeFindings(page)).toEqual([]);
  const done = page.locator(".bt-send");
  await expect(done).toBeInViewport({ ratio: 1 });
  await page.keyboard.press("Tab");
  await page.keyboard.press("Tab");
  await expect(page.locator("[data-bibliotope=map]")).toBeFocused();
  const before = await told(page).textContent();
  for (let step = 0; step < 3; step++) await page.keyboard.press("ArrowRight");
  await expect(told(page)).not.toHaveText(before!);
  await expect(done).toBeEnabled();
  await done.focus();
  await page.keyboard.press("Enter");
  await expect.poll(() => handed.length).toBe(1);
  expect(JSON.parse(handed[0])).toMatchObject({ ended: "picked", place: { state: "chosen" } });
});

test("a key of web views works from a page of its program's own scheme, and from no other", async ({ request }) => {
  test.skip(!existsSync(CHROMIUM.executablePath), "needs Debian's whole chromium, which npm run bench installs");
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-view-"));
  writeFileSync(
    join(folder, "manifest.json"),
    JSON.stringify({ manifest_version: 3, name: "Visits", version: "1", web_accessible_resources: [] }),
  );
  writeFileSync(join(folder, "page.html"), "<!doctype html><title>Visits</title>");
  const context = await chromium.launchPersistentContext("", {
    ...CHROMIUM,
    args: [...CHROMIUM.args, "--headless=new", `--disable-extensions-except=${folder}`, `--load-extension=${folder}`],
  });
  try {
    const page = await context.newPage();
    // the number of a program's own origin is made of the folder that it lies in
    const id = await extensionId(folder);
    const origin = `chrome-extension://${id}`;
    await page.goto(`${origin}/page.html`);
    const statusWith = (key: string) =>
      page.evaluate(async (url) => {
        const answer = await fetch(url);
        return [location.origin, answer.status, (await answer.json()).outcome ?? ""];
      }, `${baseUrl()}/v1/suggest?q=12+harb&access_token=${key}`);
    expect(await statusWith(await makeKey(request, "view", [origin]))).toEqual([origin, 200, "matched"]);
    expect(await statusWith(await makeKey(request, "view", ["app://localhost"]))).toEqual([origin, 403, ""]);
  } finally {
    await context.close();
    rmSync(folder, { recursive: true });
  }
});

/** What the browser calls a program that was loaded from a folder: the first half of the digest of its path, in letters. */
async function extensionId(folder: string): Promise<string> {
  const digest = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(folder));
  return Array.from(new Uint8Array(digest).slice(0, 16), (byte) =>
    [byte >> 4, byte & 15].map((half) => String.fromCharCode(97 + half)).join(""),
  ).join("");
}
