import { execFile } from "node:child_process";
import { writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { promisify } from "node:util";
import { SAMPLE_FORMS } from "@bibliotope/islands";
import { expect, type Page, test } from "@playwright/test";
import { FormPage } from "../packages/kit/src/playwright/index.ts";
import { curlOf } from "../packages/studio/src/take-away/calls.ts";
import { nameOf, reactOf, serverOf } from "../packages/studio/src/take-away/code.ts";
import { pageOf } from "../packages/studio/src/take-away/page.ts";
import { copyExample, installKit, runIn, serveFolder, startExample } from "./support/examples.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";

/** The code of all sample forms is run: what its page sends goes to its server and into its calls. */

type Values = Record<string, string>;

/** What is done to a form before it is sent. */
const CASES: Record<string, (page: Page, ref: string) => Promise<void>> = {
  "as it opens": async () => undefined,
  chosen: choose,
  "every field changed after the choice": async (page, ref) => {
    await choose(page, ref);
    await changeAll(page);
  },
};
const LETTERS: typeof CASES = {
  "letters elsewhere, not said where": async (page, ref) => {
    await choose(page, ref);
    await letters(page, "elsewhere");
  },
  "letters elsewhere, chosen": async (page, ref) => {
    await choose(page, ref);
    await letters(page, "elsewhere");
    await take(page, "Find where letters go", "14 harbour row tidewell", "14 Harbour Row, Tidewell");
    await expect(page.locator("[name=letters-confirmed]")).toHaveValue("yes");
  },
  "letters elsewhere, and here after all": async (page, ref) => {
    await choose(page, ref);
    await letters(page, "elsewhere");
    await take(page, "Find where letters go", "14 harbour row tidewell", "14 Harbour Row, Tidewell");
    await expect(page.locator("[name=letters-confirmed]")).toHaveValue("yes");
    await letters(page, "here");
  },
};

/**
 * What comes of each: the answer of the form's own server with the places that it stores, and the outcomes of the calls
 * for a shell, address by address.
 */
const EXPECTED: Record<string, Record<string, string>> = {
  "become-a-reader": {
    "as it opens": "422 The address is missing | none; refused",
    chosen: "201 place 12 Harbour Row, Tidewell, Sallow, HT0 10 | matched 12 Harbour Row; refused",
    "every field changed after the choice": "201 place as typed | none; refused",
    "letters elsewhere, not said where": "422 The address is missing | matched 12 Harbour Row; refused",
    "letters elsewhere, chosen":
      "201 place 12 Harbour Row, Tidewell, Sallow, HT0 10; letters 14 Harbour Row, Tidewell, Sallow, HT0 10 | matched 12 Harbour Row; matched 14 Harbour Row",
    "letters elsewhere, and here after all":
      "201 place 12 Harbour Row, Tidewell, Sallow, HT0 10 | matched 12 Harbour Row; matched 14 Harbour Row",
  },
  "suggest-a-stop": {
    "as it opens": "422 The position is missing | refused",
    // the position itself is stored; a call says what lies there
    chosen: "201 place -35.19,-21.63 | matched Tidewell",
    "every field changed after the choice": "422 The position is missing | none",
  },
  "lend-to-a-branch": {
    "as it opens": "422 The address is missing | refused; refused",
    chosen:
      "201 from Mill Reading Room, 12B Mill Quay, Tidewell, Sallow, HT0 10; to Thrift Reading Room, 2 Thrift Green, Tidewell, Sallow, HT0 25 | matched Mill Reading Room; matched Thrift Reading Room",
    "every field changed after the choice": "422 The address is not known | none; none",
  },
  "reading-rooms": {
    "as it opens": "422 The address is missing | refused",
    chosen: "201 place Mill Reading Room, 12B Mill Quay, Tidewell, Sallow, HT0 10 | matched Mill Reading Room",
    "every field changed after the choice": "422 The address is not known | none",
  },
  "offer-a-house": {
    "as it opens": "422 The address is missing | refused",
    chosen: "201 place 12 Harbour Row, Tidewell, Sallow, HT0 10 | matched 12 Harbour Row",
    // it was looked up, and is not known: stored as typed, without a position
    "every field changed after the choice": "201 place as typed | none",
  },
  "books-abroad": {
    "as it opens": "422 The address is missing | refused",
    chosen: "201 place 12 Harbour Row, Tidewell, Sallow, HT0 10 | matched 12 Harbour Row",
    "every field changed after the choice": "201 place as typed | none",
  },
};

const run = promisify(execFile);
let own: { url: string; stop: () => void };
/** The forms' pages, and where all kinds of code are run the forms as React components. */
const fronts: { name: string; url: string; server: Server }[] = [];

test.beforeAll(async () => {
  test.setTimeout(240_000);
  const kit = await installKit();
  const folder = copyExample("express-records", kit);
  const imports = SAMPLE_FORMS.map(({ ref, definition }, i) => {
    writeFileSync(join(folder, `${ref}.mjs`), serverOf(definition, ready().url));
    return `import * as form${i} from "./${ref}.mjs";
app.post("/${ref}", (request, response) => Object.values(form${i})[0](request, response, async () => undefined));`;
  });
  writeFileSync(
    join(folder, "all.mjs"),
    `import express from "express";
const app = express().use(express.json());
${imports.join("\n")}
app.listen(0, "127.0.0.1", function () { console.log(\`http://localhost:\${this.address().port}\`); });`,
  );
  own = await startExample(folder, "all.mjs", { BIBLIOTOPE_SERVER_KEY: ready().keys.srv });
  fronts.push({ name: "page", ...(await servePages()) });
  // it takes a while to build
  if (process.env.BIBLIOTOPE_LONG) fronts.push({ name: "React component", ...(await serveComponents(kit)) });
});
test.afterAll(() => {
  own.stop();
  for (const { server } of fronts) server.close();
});

/** Serves the pages of all forms, as a developer's own server does. */
async function servePages(): Promise<{ url: string; server: Server }> {
  const server = createServer((request, response) => {
    const form = SAMPLE_FORMS.find(({ ref }) => request.url === `/${ref}`);
    if (!form) return void response.writeHead(204).end();
    const html = pageOf(form.definition, ready().url);
    response.setHeader("content-type", "text/html");
    response.end(html.replace('key" content=""', `key" content="${ready().keys.web}"`));
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { server, url: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

/** Serves the forms as React components, each at its ref behind `#`. */
async function serveComponents(kit: string): Promise<{ url: string; server: Server }> {
  const folder = copyExample("react-vite", kit);
  const imports = SAMPLE_FORMS.map(({ ref, definition }) => {
    writeFileSync(join(folder, `src/${ref}.tsx`), reactOf(definition, ready().url));
    return `import { ${nameOf(definition)} } from "./${ref}";`;
  });
  writeFileSync(
    join(folder, "src/main.tsx"),
    `import { createRoot } from "react-dom/client";
${imports.join("\n")}
const forms = { ${SAMPLE_FORMS.map(({ ref, definition }) => `"${ref}": ${nameOf(definition)}`).join(", ")} };
const Form = forms[location.hash.slice(1) as keyof typeof forms];
createRoot(document.querySelector("#root")!).render(<Form send={(values) => console.log(values)} />);`,
  );
  writeFileSync(join(folder, ".env"), `VITE_BIBLIOTOPE_WEB_KEY=${ready().keys.web}\n`);
  await runIn(folder, "tsc", ["-p", "."]);
  await runIn(folder, "vite", ["build"]);
  const { url, server } = await serveFolder(join(folder, "dist"));
  return { url: `${url}/#`, server };
}

async function take(page: Page, label: string, text: string, line: string): Promise<void> {
  await page.getByRole("combobox", { name: label, exact: true }).click();
  await page.keyboard.type(text);
  const list = page.getByRole("listbox", { name: "Suggestions" });
  await list.getByRole("option").filter({ hasText: line }).first().click();
}

async function letters(page: Page, where: string): Promise<void> {
  await page.getByLabel("Letters go", { exact: true }).focus();
  await page.keyboard.type(where === "here" ? "to" : "else");
}

/** Fills a form with a place, in its own way. */
async function choose(page: Page, ref: string): Promise<void> {
  const form = page.locator("[data-bibliotope=form]");
  const write = async (name: string, text: string) => {
    await form.locator(`[name="${name}"]`).click();
    await page.keyboard.type(text);
    await page.keyboard.press("Tab");
  };
  if (ref === "become-a-reader") {
    await take(page, "Find your address", "12 harb", "12 Harbour Row, Tidewell");
    await expect(page.locator("[name=confirmed]")).toHaveValue("yes");
  } else if (ref === "suggest-a-stop") {
    await new FormPage(page).pointAt({ lat: -35.19, lon: -21.63 });
    await expect(page.getByLabel("Position")).toHaveValue("-35.19,-21.63");
  } else if (ref === "lend-to-a-branch") {
    await take(page, "From", "mill reading room tidewell", "Mill Reading Room, Tidewell");
    await take(page, "To", "thrift reading room tidewell", "Thrift Reading Room, Tidewell");
    await expect(page.locator("[name=to-ref]")).toHaveValue(/^qr-/);
  } else if (ref === "reading-rooms") {
    await take(page, "Find a reading room", "mill reading room tidewell", "Mill Reading Room, Tidewell");
    await expect(page.locator("[name=ref]")).toHaveValue(/^qr-/);
  } else if (ref === "offer-a-house") {
    for (const [name, text] of Object.entries({ street: "harbour row", house: "12", town: "tidewell" }))
      await write(name, text);
    await expect(page.locator("[name=confirmed]")).toHaveValue("yes");
  } else {
    await page.getByLabel("Country").focus();
    await page.keyboard.type("Lorr");
    await page.keyboard.press("Tab");
    for (const [name, text] of Object.entries({ town: "tidewell", street: "harbour row", house: "12" }))
      await write(name, text);
    await page.getByRole("button", { name: "Look up" }).click();
    await expect(page.locator("[name=confirmed]")).toHaveValue("yes");
  }
}

/** Writes something else into every field that can be written into, one after the other. */
async function changeAll(page: Page): Promise<void> {
  for (const field of await page.locator("[data-bibliotope=form] input:visible").all()) {
    await field.selectText();
    await page.keyboard.type("99 Elsewhere");
    await page.keyboard.press("Tab");
  }
  await page.waitForLoadState("networkidle");
}

/** What the form sends as it stands, whatever is still missing in it. */
async function sent(page: Page): Promise<Values> {
  const logged = page.waitForEvent("console");
  await page.locator("[data-bibliotope=form]").evaluate((form: HTMLFormElement) => {
    form.noValidate = true;
    form.requestSubmit();
  });
  return (await (await logged).args()[0].jsonValue()) as Values;
}

async function storedBy(ref: string, values: Values): Promise<string> {
  const response = await fetch(`${own.url}/${ref}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(values),
  });
  const body = await response.json();
  if (!response.ok) return `${response.status} ${body.title}`;
  expect(body.values).toEqual(JSON.parse(JSON.stringify(values)));
  const places = Object.entries<Record<string, unknown>>(body.places).map(
    ([name, { typed, ref: id, line, lat, lon }]) => `${name} ${typed ? "as typed" : id ? line : `${lat},${lon}`}`,
  );
  return `${response.status} ${places.join("; ")}`;
}

async function calledBy(text: string, values: Values): Promise<string> {
  const env: Record<string, string> = { BIBLIOTOPE_SERVER_KEY: ready().keys.srv, PATH: process.env.PATH ?? "" };
  for (const [name, value] of Object.entries(values))
    if (value) env[name.replace(/[^A-Za-z0-9]+/g, "_").toUpperCase()] = value;
  const outcomes: string[] = [];
  for (const call of text.split("# Every call")[0].matchAll(/^curl --get[\s\S]*?(?:\n\n|$(?![\s\S]))/gm)) {
    const { stdout } = await run("bash", ["-c", call[0].replace("curl --get", "curl --silent --get")], { env });
    const { outcome = "refused", features = [] } = JSON.parse(stdout);
    outcomes.push([outcome, features[0]?.properties.line.split(",")[0]].filter(Boolean).join(" "));
  }
  return outcomes.join("; ");
}

for (const { ref, definition } of SAMPLE_FORMS)
  test(
    `${ref}: what its code sends is what its server and its calls make of it`,
    long(ref !== "suggest-a-stop"),
    async ({ page }) => {
      test.setTimeout(240_000);
      const cases = ref === "become-a-reader" ? { ...CASES, ...LETTERS } : CASES;
      for (const { name: front, url } of fronts) {
        const table: Record<string, string> = {};
        for (const [name, act] of Object.entries(cases)) {
          await page.goto("about:blank");
          await page.goto(url.endsWith("#") ? `${url}${ref}` : `${url}/${ref}`);
          await expect(page.locator("[data-bibliotope=form]")).toBeVisible();
          await act(page, ref);
          const values = await sent(page);
          table[name] = `${await storedBy(ref, values)} | ${await calledBy(curlOf(definition, ready().url), values)}`;
        }
        expect(table, front).toEqual(EXPECTED[ref]);
      }
    },
  );
