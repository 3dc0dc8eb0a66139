import { createServer, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { expect } from "@playwright/test";
import { PNG } from "pngjs";
import { axeFindings } from "./support/axe.ts";
import { type KitWindow, test } from "./support/kit-page.ts";
import { long } from "./support/long.ts";

const HARBOUR = { at: { lat: -35.1841, lon: -21.6253 }, zoom: 14 };
/** A colour that no map style has. */
const VIOLET = "#c81ec8";
/** A colour of the map. */
const LAND = "#f6f2e6";
const LOST = "“From the air” could not be loaded. The standard map is shown instead.";

const tile = (side: number) => {
  const png = new PNG({ width: side, height: side });
  for (let i = 0; i < side * side; i++) png.data.set([0xc8, 0x1e, 0xc8, 0xff], 4 * i);
  return PNG.sync.write(png);
};
const PICTURE = tile(256);
const BROAD = tile(2100);
const good = (response: ServerResponse) => void response.writeHead(200, { "content-type": "image/png" }).end(PICTURE);

/** A server of picture tiles that does what a test wants. */
class TileServer {
  asked: string[] = [];
  answer: (response: ServerResponse) => void = good;
  readonly #server = createServer((request, response) => {
    this.asked.push(request.url ?? "");
    response.setHeader("access-control-allow-origin", "*");
    response.setHeader("cache-control", "no-store");
    this.answer(response);
  });

  async start(): Promise<void> {
    await new Promise<void>((resolve) => this.#server.listen(0, "127.0.0.1", resolve));
  }

  get origin(): string {
    return `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}`;
  }

  stop(): void {
    this.#server.closeAllConnections();
    this.#server.close();
  }
}

let tiles: TileServer;
test.beforeEach(async () => {
  tiles = new TileServer();
  await tiles.start();
});
test.afterEach(() => tiles.stop());

const air = (path = "/{z}/{x}/{y}.png", more = {}) => ({
  ...{ name: "From the air", url: `${tiles.origin}${path}`, attribution: "Flown by <b>nobody</b>, 2026" },
  ...more,
});
/** CSS pixels of the map. */
const WHOLE = 640 * 480;

test("pictures of one's own stand in place of the map, whoever made them is named, and the map comes back", async ({
  kit,
  page,
}) => {
  await kit.make({ view: HARBOUR, pictures: [air()], shows: "From the air", mapStyles: ["streets", "ground"] });
  await expect.poll(() => kit.pixels(VIOLET)).toBeGreaterThan(WHOLE * 0.7);
  await expect(page.getByText("Flown by <b>nobody</b>, 2026")).toBeVisible();
  expect(tiles.asked.every((path) => /^\/14\/\d+\/\d+\.png$/.test(path))).toBe(true);
  const choice = page.getByRole("combobox", { name: "Map style" });
  await expect(choice.locator("option")).toHaveText(["Streets", "Ground", "From the air"]);
  await expect(choice.locator("option:checked")).toHaveText("From the air");
  await expect(page.getByText(/^From the air, .* across, around 35\.184° south/)).toBeAttached();
  // of the page around it, which has nothing but the map, nothing is requested
  expect((await axeFindings(page)).filter((found) => !/^(landmark|page-has|region)/.test(found))).toEqual([]);
  await choice.selectOption({ label: "Ground" });
  await expect.poll(() => kit.pixels(VIOLET)).toBe(0);
  await expect(page.getByText("Flown by")).toBeHidden();
  await choice.selectOption({ label: "From the air" });
  await expect.poll(() => kit.pixels(VIOLET)).toBeGreaterThan(WHOLE * 0.7);
});

test("a WMTS is asked by keys and values, no closer than it has pictures", async ({ kit }) => {
  const asking = "/wmts?SERVICE=WMTS&REQUEST=GetTile&LAYER=air&TILEMATRIXSET=WebMercatorQuad&FORMAT=image/png";
  await kit.make({ view: { ...HARBOUR, zoom: 16 }, pictures: [air(asking, { most: 13 })], shows: "From the air" });
  await expect.poll(() => kit.pixels(VIOLET)).toBeGreaterThan(WHOLE * 0.7);
  expect(new Set(tiles.asked.map((path) => path.replace(/\d+$/, "N").replace(/TileRow=\d+/, "TileRow=N")))).toEqual(
    new Set([`${asking}&TileMatrix=13&TileRow=N&TileCol=N`]),
  );
});

const wrong: [string, (response: ServerResponse) => void][] = [
  ["a page of HTML", (response) => void response.writeHead(200, { "content-type": "text/html" }).end("<p>Sign in.")],
  [
    "HTML that says it is a picture",
    (response) => void response.writeHead(200, { "content-type": "image/png" }).end("<script>alert(1)</script>"),
  ],
  ["an error", (response) => void response.writeHead(500).end()],
  ["a picture of 2,100 pixels", (response) => void response.writeHead(200, { "content-type": "image/png" }).end(BROAD)],
  [
    "a picture without an end",
    (response) => {
      response.writeHead(200, { "content-type": "image/png" });
      const more = setInterval(() => response.write(Buffer.alloc(500_000)), 5);
      response.on("close", () => clearInterval(more));
    },
  ],
];
for (const [what, answer] of wrong)
  test(
    `${what} in place of a picture: the map stands there, which is said, until the picture comes`,
    long(),
    async ({ kit, page }) => {
      tiles.answer = answer;
      await kit.make({ view: HARBOUR, pictures: [air()], shows: "From the air" });
      await expect(page.getByText(LOST)).toBeVisible({ timeout: 20_000 });
      await kit.painted();
      expect(await kit.pixels(VIOLET)).toBe(0);
      expect(await kit.pixels(LAND)).toBeGreaterThan(100);
      tiles.answer = good;
      await expect.poll(() => kit.pixels(VIOLET), { timeout: 30_000 }).toBeGreaterThan(WHOLE * 0.7);
      await expect(page.getByText(LOST)).toBeHidden();
    },
  );

test("a server that does not answer is waited for eight seconds", long(), async ({ kit, page }) => {
  tiles.answer = () => undefined;
  const options = { view: HARBOUR, pictures: [air()], shows: "From the air" };
  await page.evaluate((how) => (window as unknown as KitWindow).makeMap(how), options);
  await expect(page.getByText(LOST)).toBeVisible({ timeout: 30_000 });
  await kit.painted();
  expect(await kit.pixels(LAND)).toBeGreaterThan(100);
});

test("where there are no pictures the map is there, and nothing is said", async ({ kit, page }) => {
  tiles.answer = (response) => void response.writeHead(404).end();
  await kit.make({ view: HARBOUR, pictures: [air()], shows: "From the air" });
  await kit.painted();
  expect(await kit.pixels(LAND)).toBeGreaterThan(100);
  await expect(page.getByText(LOST)).toBeHidden();
});

test("an element without an attribution, or with an address that leads nowhere, shows the map and says why", async ({
  kit,
  page,
}) => {
  const said: string[] = [];
  page.on("console", (message) => message.type() === "error" && said.push(message.text()));
  await kit.make();
  const made = await page.evaluate((pictures) => {
    const { kit: held, client } = window as unknown as KitWindow;
    held.defineElements();
    const shown = (attributes: Record<string, string>) => {
      const element = Object.assign(new held.MapElement(), { client });
      for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
      document.body.append(element);
      return element.map?.pictures;
    };
    return [
      shown({ pictures }),
      shown({ pictures: "ftp://a.example/{z}", attribution: "Us" }),
      shown({ pictures, attribution: "Us", "pictures-name": "Air" }),
    ];
  }, `${tiles.origin}/{z}/{x}/{y}.png`);
  expect(made).toEqual([undefined, undefined, "Air"]);
  expect(said.filter((words) => words.startsWith("<bibliotope-map>"))).toEqual([
    "<bibliotope-map>: the address of the pictures needs an attribute `attribution` beside it.",
    "<bibliotope-map>: the address of the pictures is not an http or https URL.",
  ]);
});
