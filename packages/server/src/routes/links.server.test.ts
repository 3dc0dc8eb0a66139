import type { LinkAnswer, MadeKey } from "@bibliotope/wire";
import { PNG } from "pngjs";
import { beforeAll, describe, expect, it } from "vitest";
import { ask, json, shared, signedIn } from "../../testing/shared.ts";

const HOUSE = "qr-hgwrp5";
let browser: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  browser = await signedIn();
});

async function make(rules: object = {}): Promise<MadeKey> {
  const response = await browser.send("POST", "/api/keys", { kind: "srv", name: "Of links", ...rules });
  expect(response.status).toBe(201);
  return (await response.json()) as MadeKey;
}
async function linkOf(query: string, key = shared().keys.srv): Promise<LinkAnswer> {
  const { status, body } = await json(`/v1/links?${query}`, { key });
  expect(status, JSON.stringify(body)).toBe(200);
  return body;
}
/** As a browser without a key does. */
const follow = (url: string, init: RequestInit = {}) =>
  ask(url.replace(/^https?:\/\/[^/]+/, ""), { key: null, ...init, headers: { accept: "text/html", ...init.headers } });
const statusOf = async (url: string) => (await follow(url)).status;

describe("a link that shows one place", () => {
  it("is a page with its card, map and way, for whoever has it and without a key", async () => {
    const { url, endsAt, qr } = await linkOf(`of=${HOUSE}&hours=48`);
    expect(Date.parse(endsAt) - Date.now()).toBeGreaterThan(47 * 3_600_000);
    const page = await follow(url);
    expect(page.status).toBe(200);
    const html = await page.text();
    expect(html).toContain("12 Harbour Row");
    expect(html).toMatch(/href="geo:-35\.\d+,-21\.\d+"/);
    expect(html).not.toMatch(/bt_srv|<script/);
    const [, map] = /<img class="where" src="([^"]+)"/.exec(html)!;
    const picture = await follow(new URL(map, url).href);
    const { width, height } = PNG.sync.read(Buffer.from(await picture.arrayBuffer()));
    expect([width, height]).toEqual([600, 400]);
    expect(
      PNG.sync.read(Buffer.from(await (await follow(new URL(`${map}?density=2`, url).href)).arrayBuffer())).width,
    ).toBe(1200);
    const code = await follow(qr!);
    expect([code.status, code.headers.get("content-type")]).toEqual([200, "image/svg+xml; charset=utf-8"]);
  });

  it("shows the facts of a place, as text whatever they hold", async () => {
    const { body } = await json("/v1/suggest?q=library&kinds=place");
    const { url } = await linkOf(`of=${body.suggestions[0].ref}&label=${encodeURIComponent("<b>Here</b>")}`);
    const html = await (await follow(url)).text();
    expect(html).toContain("&lt;b&gt;Here&lt;/b&gt;");
    expect(html).toContain("<dt>Opening hours</dt><dd><bdi>Monday–Friday 09:00–");
    expect(html).toContain("<dt>Seats</dt>");
    expect(html).toContain("<dt>Languages</dt><dd><bdi>English");
    const german = await (await follow(url, { headers: { "accept-language": "de" } })).text();
    expect(german).toContain("<dt>Öffnungszeiten</dt><dd><bdi>Montag–Freitag 09:00–");
    expect(html).not.toMatch(/undefined|null|\[object/);
  });

  it("speaks the language of the link, else the one of whoever opens it", async () => {
    const { url } = await linkOf(`of=${HOUSE}`);
    const opened = await follow(url, { headers: { "accept-language": "ja, de-AT;q=0.9, en;q=0.5" } });
    expect(opened.headers.get("vary")).toContain("Accept-Language");
    expect(await opened.text()).toContain("In einer Karten-App öffnen");
    const arabic = await (await follow((await linkOf(`of=${HOUSE}&lang=ar`)).url)).text();
    expect(arabic).toContain('<html lang="ar" dir="rtl">');
    expect(arabic).toContain("افتح في تطبيق خرائط");
  });

  it("is a picture alone, which a mail of any origin may show", async () => {
    const { url, qr } = await linkOf("at=-35.1841,-21.6253&shows=still&width=320&height=200&label=Here");
    expect(url).toMatch(/\.png$/);
    expect(qr).toBe(undefined);
    const picture = await follow(url, { headers: { accept: "image/*", "sec-fetch-site": "cross-site" } });
    expect(picture.headers.get("cross-origin-resource-policy")).toBe("cross-origin");
    expect(PNG.sync.read(Buffer.from(await picture.arrayBuffer())).width).toBe(320);
  });

  it("shows nothing else, whatever is done to it", async () => {
    const { url } = await linkOf(`of=${HOUSE}`);
    const { url: picture } = await linkOf(`of=${HOUSE}&shows=still`);
    const [base, token] = [url.slice(0, url.lastIndexOf("/") + 1), url.slice(url.lastIndexOf("/") + 1)];
    const [id, text, mac] = token.split(".");
    const other = (await linkOf("at=-35.2,-21.6")).url.split("/").at(-1)!.split(".");
    const attacks = {
      "one letter of its signature": `${base}${id}.${text}.${mac.slice(0, -1)}${mac.endsWith("A") ? "B" : "A"}`,
      "one letter of what it shows": `${base}${id}.${text.slice(0, 9)}${text[9] === "A" ? "B" : "A"}${text.slice(10)}.${mac}`,
      "the signature of another": `${base}${id}.${text}.${other[2]}`,
      "no signature": `${base}${id}.${text}.`,
      "no key": `${base}.${text}.${mac}`,
      "a key of nobody": `${base}zzzz.${text}.${mac}`,
      "a page as a picture": `${base}${token}.png`,
      "a picture as a page": picture.replace(/\.png$/, ""),
      "the map of a picture": picture.replace(/\.png$/, "/map.png"),
      "another file": `${base}${token}/..%2f..%2fapi%2fkeys`,
      "what is behind it": `${base}${token}/rows`,
      "a very long one": `${base}${"A".repeat(5000)}`,
    };
    for (const [name, attack] of Object.entries(attacks)) expect(await statusOf(attack), name).toBe(404);
    expect((await follow(url, { method: "POST" })).status).toBe(404);
    // what is added to it changes nothing
    expect(await (await follow(`${url}?of=qr-1&hours=9999`)).text()).toBe(await (await follow(url)).text());
    // it is no key
    expect((await json(`/v1/suggest?q=a&access_token=${token}`, { key: null })).status).toBe(401);
  });

  it("ends with its time, with its key, and with what that may see", async () => {
    const { id, key } = await make();
    const { url } = await linkOf(`of=${HOUSE}`, key);
    expect(await statusOf(url)).toBe(200);
    const change = (rules: object) => browser.send("PUT", `/api/keys/${id}`, { name: "Of links", ...rules });
    await change({ countries: ["QV"] });
    expect(await statusOf(url)).toBe(403);
    await change({ calls: ["suggest"] });
    expect(await statusOf(url)).toBe(410);
    await change({ endsAt: new Date(Date.now() - 1000).toISOString() });
    expect(await statusOf(url)).toBe(410);
    await change({});
    expect(await statusOf(url)).toBe(200);
    await browser.send("DELETE", `/api/keys/${id}`, {});
    const gone = await follow(url);
    expect(gone.status).toBe(410);
    expect(await gone.text()).toContain("This link was revoked");
  });

  it("goes on when another key signs, and ends where that is wanted", async () => {
    const { url } = await linkOf(`of=${HOUSE}`);
    const before = (await (await browser.get("/api/link-key")).json()) as { count: number };
    const renewed = await browser.send("PUT", "/api/link-key", { endsOld: false });
    expect(await renewed.json()).toMatchObject({ count: before.count + 1 });
    expect(await statusOf(url)).toBe(200);
    expect(await (await browser.send("PUT", "/api/link-key", { endsOld: true })).json()).toMatchObject({ count: 1 });
    expect(await statusOf(url)).toBe(404);
  });

  it("is made for what there is, by keys that may, and not for long by those that others can read", async () => {
    for (const [request, status] of [
      ["", 400],
      [`of=${HOUSE}&at=-35,-21`, 400],
      ["of=qr-00000", 404],
      [`of=${HOUSE}&hours=0`, 400],
      [`of=${HOUSE}&hours=100000`, 400],
      [`of=${HOUSE}&shows=all`, 400],
      [`of=${HOUSE}&width=9`, 400],
    ] as const)
      expect((await json(`/v1/links?${request}`)).status, request).toBe(status);
    const { keys } = shared();
    const page = { key: keys.web, headers: { origin: "http://localhost:5173" } };
    expect((await json(`/v1/links?of=${HOUSE}&hours=24`, page)).status).toBe(200);
    expect((await json(`/v1/links?of=${HOUSE}&hours=25`, page)).status).toBe(400);
    expect((await json(`/v1/links?of=${HOUSE}`, { key: keys.app })).status).toBe(403);
  });
});
