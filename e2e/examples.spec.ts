import { once } from "node:events";
import { writeFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { axeFindings } from "./support/axe.ts";
import { copyExample, installKit, runIn, serveFolder, startExample } from "./support/examples.ts";
import { complaints, suggestions } from "./support/heard.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";

let kit: string;
test.beforeAll(async () => {
  test.setTimeout(240_000);
  kit = await installKit();
});

const startPlainPage = () =>
  startExample(copyExample("plain-page", kit), "serve.mjs", {
    BIBLIOTOPE_URL: ready().url,
    BIBLIOTOPE_WEB_KEY: ready().keys.web,
  });

/** Presses a line, and before it is let go letters are answered by another list. */
async function pressWhileListsChange(page: Page, line: string, letters: string): Promise<void> {
  const option = suggestions(page).filter({ hasText: line }).first();
  await option.hover();
  await page.mouse.down();
  const answered = page.waitForResponse((response) => response.url().includes(encodeURIComponent(letters)));
  await page.keyboard.type(letters);
  await answered;
  await page.mouse.up();
}

test("a plain page without a build step: search, map and picture as elements, under a strict policy", async ({
  page,
}) => {
  const heard = complaints(page);
  const { url, stop } = await startPlainPage();
  try {
    await page.goto(url);
    await page.getByRole("combobox", { name: "Find your address" }).click();
    await page.keyboard.type("12 harb");
    await expect(suggestions(page).first()).toContainText("12 Harbour Row, Tidewell");
    await pressWhileListsChange(page, "12 Harbour Row, Tidewell", "our");
    await expect(page.getByLabel("Street")).toHaveValue("12 Harbour Row");
    await expect(page.getByLabel("Town")).toHaveValue("Tidewell");
    await expect(page.getByLabel("Country")).toHaveValue("QR");
    await expect(page.locator("bibliotope-map [data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
    await expect(page.locator("bibliotope-map [data-bibliotope=map]")).toContainText("12 Harbour Row");
    const picture = page.locator("bibliotope-still img");
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.complete && img.naturalWidth)).toBe(280);
    // what the form sends
    const sent = () => page.evaluate(() => [...new FormData(document.querySelector("form")!)]);
    const found = Object.fromEntries(await sent());
    expect(found.find).toContain("12 Harbour Row, Tidewell");
    expect(found["find-ref"]).toMatch(/^qr-/);
    expect(Number(found["find-lat"])).toBeLessThan(-30);
    // the text is changed: it is no longer what was chosen
    await page.getByRole("combobox", { name: "Find your address" }).press("End");
    await page.keyboard.type("x");
    expect(Object.fromEntries(await sent())["find-ref"]).toBe("");
    await expect(picture).toBeHidden();
    expect(await axeFindings(page)).toEqual([]);
    expect(heard).toEqual([]);
  } finally {
    stop();
  }
});

test("elements survive being moved, removed, put into a shadow root, reset and disabled", async ({ page }) => {
  const heard = complaints(page);
  const { url, stop } = await startPlainPage();
  try {
    await page.goto(url);
    const box = page.getByRole("combobox", { name: "Find your address" });
    await box.fill("Tidewell");
    await page.evaluate(() => {
      const [search, map] = ["search", "map"].map((name) => document.querySelector(`bibliotope-${name}`)!);
      document.querySelector("form")!.append(search);
      const host = document.body.appendChild(document.createElement("div"));
      host.attachShadow({ mode: "open" }).append(map);
    });
    await expect(box).toHaveValue("Tidewell");
    await box.press("End");
    await page.keyboard.type(" 1");
    await expect(suggestions(page).first()).toBeVisible();
    await expect(page.locator("[data-bibliotope=map]")).toHaveAttribute("data-complete", "true");
    await page.evaluate(() => document.querySelector<HTMLFormElement>("form")!.reset());
    await expect(box).toHaveValue("");
    expect(await page.evaluate(() => document.querySelector<HTMLFormElement>("form")!.checkValidity())).toBe(false);
    await page.evaluate(() => {
      const fieldset = document.createElement("fieldset");
      fieldset.disabled = true;
      const form = document.querySelector("form")!;
      fieldset.append(document.querySelector("bibliotope-search")!);
      form.append(fieldset);
    });
    await expect(box).toBeDisabled();
    expect(await page.evaluate(() => new FormData(document.querySelector("form")!).has("find"))).toBe(false);
    await page.evaluate(() => document.querySelector("bibliotope-search")!.remove());
    await expect(box).toHaveCount(0);
    expect(heard).toEqual([]);
  } finally {
    stop();
  }
});

for (const version of [18, 19])
  test(
    `React ${version} with Vite: by tokens, by definition, a list of one's own, strict mode`,
    long(),
    async ({ page }) => {
      const heard = complaints(page);
      const folder = copyExample("react-vite", kit);
      if (version === 19) await runIn(folder, "tsc", ["-p", "."]);
      else {
        const react = join(import.meta.dirname, "react-18/node_modules");
        writeFileSync(
          join(folder, "vite.config.js"),
          `export default { envPrefix: "BIBLIOTOPE_", resolve: { alias: [
          { find: /^(react|react-dom)(\\/.*)?$/, replacement: ${JSON.stringify(`${react}/$1$2`)} }] } };`,
        );
      }
      await runIn(folder, "vite", ["build"], { BIBLIOTOPE_URL: ready().url, BIBLIOTOPE_WEB_KEY: ready().keys.web });
      const { url, server } = await serveFolder(join(folder, "dist"));
      try {
        await page.goto(url);
        await page.getByRole("combobox", { name: "Find your address" }).click();
        await page.keyboard.type("12 harb");
        await expect(suggestions(page).first()).toContainText("12 Harbour Row, Tidewell");
        await page.keyboard.press("ArrowDown");
        await page.keyboard.press("Enter");
        await expect(page.getByRole("combobox", { name: "Find your address" })).toHaveValue(/12 Harbour Row, Tidewell/);
        await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
        await expect(page.getByLabel("Postcode")).toHaveValue(/^HT/);
        await expect(page.getByRole("status").filter({ hasText: "At -35." })).toBeVisible();
        await expect(page.getByText(/^\d+ m above the sea, in Sallow$/)).toBeVisible();
        await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 12 Harbour Row");
        await expect(page.getByRole("img", { name: /Map around 12 Harbour Row/ })).toBeVisible();

        await page.getByLabel("Street and number").fill("12 harbor row");
        await page.getByLabel("Street and number").blur();
        await page.getByLabel("Town of the member").click();
        await page.keyboard.type("tidewell");
        await page.keyboard.press("Tab");
        await expect(page.getByLabel("Code", { exact: true })).toHaveValue(/^HT/);

        await page.getByRole("combobox", { name: "Town by name" }).click();
        await page.keyboard.type("tidew");
        await pressWhileListsChange(page, "Tidewell", "el");
        await expect(page.getByText("Chosen: Tidewell")).toBeVisible();
        expect(await axeFindings(page)).toEqual([]);
        expect(heard).toEqual([]);
      } finally {
        server.close();
      }
    },
  );

for (const { framework, folder, box } of [
  { framework: "Vue", folder: "vue-vite", box: "Find your address" },
  { framework: "Svelte", folder: "svelte-vite", box: "Street" },
])
  test(
    `${framework} with Vite: a form filled by its tokens, a lookup without a box, markers on the map`,
    long(),
    async ({ page }) => {
      const heard = complaints(page);
      const copy = copyExample(folder, kit);
      await runIn(copy, "vite", ["build"], { BIBLIOTOPE_URL: ready().url, BIBLIOTOPE_WEB_KEY: ready().keys.web });
      const { url, server } = await serveFolder(join(copy, "dist"));
      try {
        await page.goto(url);
        await expect(page.getByRole("status").filter({ hasText: "No place yet" })).toBeVisible();
        await page.getByRole("combobox", { name: box }).click();
        await page.keyboard.type("12 harb");
        await pressWhileListsChange(page, "12 Harbour Row, Tidewell", "our");
        await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
        await expect(page.getByLabel("Postcode")).toHaveValue(/^HT/);
        await expect(page.getByRole("status").filter({ hasText: "Chosen: 12 Harbour Row, Tidewell" })).toBeVisible();
        await expect(page.getByText(/^\d+ m above the sea$/)).toBeVisible();
        await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 12 Harbour Row");
        expect(await axeFindings(page)).toEqual([]);
        expect(heard).toEqual([]);
      } finally {
        server.close();
      }
    },
  );

/** A stand-in with one address, of the kit as it is installed. */
async function standIn() {
  const { StandIn } = (await import(join(kit, "modules/testing.js"))) as typeof import("@bibliotope/kit/testing");
  const parts = { house: "3", street: "Mill Lane", town: "Nowhere", postcode: "NW1 2", country: "QR" };
  const at = { lat: -35.2, lon: -21.6 };
  return new StandIn({ records: [{ ref: "qr-000001", line: "3 Mill Lane, Nowhere", at, parts }] });
}

test.describe("with no service at all, against a stand-in", () => {
  const service = "https://stand-in.example";
  const search = (page: Page) => page.getByRole("combobox", { name: "Find your address" });

  async function chooseMillLane(page: Page): Promise<void> {
    await search(page).click();
    await page.keyboard.type("3 mil");
    await expect(suggestions(page).first()).toContainText("3 Mill Lane, Nowhere");
    await page.keyboard.press("ArrowDown");
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Nowhere");
  }

  test("an application of React and Vite", long(), async ({ page }) => {
    const folder = copyExample("react-vite", kit);
    await runIn(folder, "vite", ["build"], { BIBLIOTOPE_URL: service, BIBLIOTOPE_WEB_KEY: "bt_web_test" });
    const stands = await standIn();
    await stands.route(page);
    const { url, server } = await serveFolder(join(folder, "dist"));
    try {
      await page.goto(url);
      await chooseMillLane(page);
      await expect(page.getByLabel("Postcode")).toHaveValue("NW1 2");
      expect(stands.requests.filter(({ call }) => call === "suggest").at(-1)?.words.q).toBe("3 mil");
      stands.plays("down");
      await search(page).fill("4 mil");
      await expect(page.getByText("The address search does not work at the moment.").first()).toBeVisible();
    } finally {
      server.close();
    }
  });

  test("a plain page, whose script comes from a file", async ({ page }) => {
    const stands = await standIn();
    await stands.route(page);
    const script = join(import.meta.dirname, "../packages/kit/dist-web/bibliotope.js");
    await page.route(`${service}/kit/v1/bibliotope.js`, (route) =>
      route.fulfill({ path: script, headers: { "access-control-allow-origin": "*" } }),
    );
    const { url, stop } = await startExample(copyExample("plain-page", kit), "serve.mjs", {
      BIBLIOTOPE_URL: service,
      BIBLIOTOPE_WEB_KEY: "bt_web_test",
    });
    try {
      await page.goto(url);
      await chooseMillLane(page);
      await expect(page.locator("bibliotope-map [data-bibliotope=map]")).toContainText("3 Mill Lane");
      await expect(page.locator("bibliotope-still img")).toBeVisible();
      // it may be asked for a moment later
      await expect
        .poll(() => stands.requests.some(({ call, words }) => call === "still" && words.of === "qr-000001"))
        .toBe(true);
    } finally {
      stop();
    }
  });

  test("a back end of Express", async ({ request }) => {
    const stands = await standIn();
    const server = createServer(stands.listener).listen(0, "127.0.0.1");
    await once(server, "listening");
    const folder = copyExample("express-records", kit);
    const { url, stop } = await startExample(folder, "server.mjs", {
      BIBLIOTOPE_URL: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
      BIBLIOTOPE_SERVER_KEY: "bt_srv_test",
      RECORDS: join(folder, "records.jsonl"),
    });
    const store = (street: string) =>
      request.post(`${url}/members`, { data: { name: "Ada", street, town: "Nowhere" } });
    try {
      const stored = await store("3 Mill Lane");
      expect([stored.status(), await stored.json()]).toEqual([
        201,
        { name: "Ada", line: "3 Mill Lane, Nowhere", lat: -35.2, lon: -21.6 },
      ]);
      expect((await store("4 Mill Lane")).status()).toBe(422);
      stands.plays("down");
      // written otherwise: the client keeps what it was answered
      expect((await store("3 mill lane")).status()).toBe(503);
      stands.plays("offline");
      expect((await store("3 mill  lane")).status()).toBe(503);
      expect(stands.requests.at(-1)?.call).toBe("forward");
    } finally {
      stop();
      server.close();
    }
  });
});

test(
  "an Express back end stores a record with its place, and tells the form why when there is none",
  long(),
  async ({ page }) => {
    const folder = copyExample("express-records", kit);
    const { url, stop } = await startExample(folder, "server.mjs", {
      BIBLIOTOPE_URL: ready().url,
      BIBLIOTOPE_SERVER_KEY: ready().keys.srv,
      RECORDS: join(folder, "records.jsonl"),
    });
    try {
      await page.goto(url);
      const store = async (street: string, town: string) => {
        await page.getByLabel("Name").fill("Ada");
        await page.getByLabel("Street and number").fill(street);
        await page.getByLabel("Town").fill(town);
        await page.getByRole("button", { name: "Store" }).click();
      };
      await store("12 harbor row", "tidewell");
      await expect(page.getByText(/^Stored: Ada, 12 Harbour Row, Tidewell.* \(-35\.\d+, -21\.\d+\)\.$/)).toBeVisible();
      await store("77 qqqqzzzz", "tidewell");
      await expect(page.getByText("Not stored.")).toBeVisible();
      const wrong = await page
        .getByLabel("Street and number")
        .evaluate((input: HTMLInputElement) => input.validationMessage);
      expect(wrong).toMatch(/No such address is known|only known|addresses match/);
      await page.getByLabel("Street and number").fill("14 harbour row");
      expect(
        await page.getByLabel("Street and number").evaluate((input: HTMLInputElement) => input.validationMessage),
      ).toBe("");
      const records = await (await page.request.get(`${url}/members`)).json();
      expect(records).toHaveLength(1);
      expect(records[0]).toMatchObject({ name: "Ada", ref: expect.stringMatching(/^qr-/) });
    } finally {
      stop();
    }
  },
);

test("an Express back end stores nothing while the service is away, and says that it may be tried again", async ({
  request,
}) => {
  const folder = copyExample("express-records", kit);
  const { url, stop } = await startExample(folder, "server.mjs", {
    BIBLIOTOPE_URL: "http://127.0.0.1:9",
    BIBLIOTOPE_SERVER_KEY: ready().keys.srv,
    RECORDS: join(folder, "records.jsonl"),
  });
  try {
    const response = await request.post(`${url}/members`, { data: { name: "Ada", street: "12 Harbour Row" } });
    expect(response.status()).toBe(503);
    expect(response.headers()["content-type"]).toContain("application/problem+json");
    expect(await response.json()).toMatchObject({ detail: expect.stringContaining("nothing was stored") });
    expect(await (await request.get(`${url}/members`)).json()).toEqual([]);
  } finally {
    stop();
  }
});

/** A piece of a form's Take away, as it is copied. */
async function pieceOf(page: Page, ref: string, name: string): Promise<string> {
  await page.goto(`${ready().url}/forms/${ref}/take-away`);
  await page.getByRole("group", { name: "What to take away" }).getByRole("button", { name, exact: true }).click();
  return (await page.getByRole("region", { name: "Code" }).locator("code").textContent())!;
}

test("a form taken away as a React component runs as pasted", long(), async ({ page }) => {
  const heard = complaints(page);
  const code = await pieceOf(page, "become-a-reader", "React");
  const folder = copyExample("react-vite", kit);
  writeFileSync(join(folder, "src/TakenAway.tsx"), code);
  writeFileSync(
    join(folder, "src/main.tsx"),
    `import { createRoot } from "react-dom/client";
import { BecomeAReader } from "./TakenAway";
createRoot(document.querySelector("#root")!).render(
  <BecomeAReader send={(values) => document.body.append(JSON.stringify(values))} />);`,
  );
  writeFileSync(join(folder, ".env"), `VITE_BIBLIOTOPE_WEB_KEY=${ready().keys.web}\n`);
  await runIn(folder, "tsc", ["-p", "."]);
  await runIn(folder, "vite", ["build"]);
  const { url, server } = await serveFolder(join(folder, "dist"));
  try {
    await page.goto(url);
    await page.getByLabel("Find your address").click();
    await page.keyboard.type("12 harb");
    await suggestions(page).filter({ hasText: "12 Harbour Row, Tidewell" }).first().click();
    await expect(page.getByLabel("Town", { exact: true })).toHaveValue("Tidewell");
    await expect(page.locator("[data-bibliotope=map]")).toContainText("There is a marker at 12 Harbour Row.");
    await page.getByLabel("Your name").fill("Ada");
    await page.getByRole("button", { name: "Send" }).click();
    await expect(page.getByText('"reader":"Ada"')).toBeVisible();
    expect(heard).toEqual([]);
  } finally {
    server.close();
  }
});

test("what a form's server does runs as pasted: a place before the record, a problem without one", async ({
  page,
  request,
}) => {
  const code = await pieceOf(page, "offer-a-house", "Server");
  const folder = copyExample("express-records", kit);
  writeFileSync(join(folder, "taken-away.mjs"), code);
  writeFileSync(
    join(folder, "own.mjs"),
    `import express from "express";
import { ${/function (store\w+)/.exec(code)![1]} as storeIt } from "./taken-away.mjs";
const app = express().use(express.json());
app.post("/", (request, response) => storeIt(request, response, async () => undefined));
app.listen(0, "127.0.0.1", function () { console.log(\`http://localhost:\${this.address().port}\`); });`,
  );
  const { url, stop } = await startExample(folder, "own.mjs", { BIBLIOTOPE_SERVER_KEY: ready().keys.srv });
  try {
    const values = { street: "harbor row", house: "12", town: "tidewell" };
    const stored = await request.post(url, { data: values });
    expect(await stored.json()).toMatchObject({ values, places: { place: { ref: expect.stringMatching(/^qr-/) } } });
    const refused = await request.post(url, { data: { ...values, street: "qqqzzzq" } });
    expect(refused.status()).toBe(422);
    expect(await refused.json()).toMatchObject({ issues: [{ parameter: expect.any(String) }] });
  } finally {
    stop();
  }
});
