import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import type { FormDefinition, ServiceRule } from "@bibliotope/core/form";
import { expect, type Page, test } from "@playwright/test";
import { pageOf } from "../packages/studio/src/take-away/page.ts";
import { ready } from "./support/house.ts";
import { long } from "./support/long.ts";

/** Forms taken away onto a page of another origin, with services that the test itself answers for. */
let server: Server;
let origin = "";
let html = "";

test.beforeAll(async () => {
  server = createServer((_, response) => response.setHeader("content-type", "text/html").end(html));
  server.listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
test.afterAll(() => {
  server.close();
  server.closeAllConnections();
});

interface Asked {
  service: string;
  inputs: Record<string, string>;
}
type Answer = { status?: number; outcome?: string; values?: object; standing?: string; wait?: Promise<void> };

/** Opens a form with rules of its own, and answers for its services. @returns what they were asked, in order */
async function open(page: Page, services: ServiceRule[], answer: (asked: Asked) => Answer): Promise<Asked[]> {
  const definition: FormDefinition = {
    title: "Rules",
    fields: [
      { name: "find", kind: "search", label: "Find your address" },
      { name: "street", kind: "text", label: "Street", binding: "{street}" },
      { name: "house", kind: "text", label: "House", binding: "{house}" },
      { name: "town", kind: "text", label: "Town", binding: "{town}" },
      { name: "confirmed", kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
      { name: "books", kind: "text", label: "Books" },
      { name: "day", kind: "text", label: "Day" },
      { name: "go", kind: "button", label: "Ask", task: "ask" },
      { name: "cost", kind: "shown", label: "Cost", binding: "{first.cost}" },
      { name: "list", kind: "text", label: "List", binding: "{first.list}" },
      { name: "more", kind: "shown", label: "More", binding: "{second.more}" },
      { name: "plot", kind: "hidden", label: "Plot", binding: "[{register.number}, {register.standing}]" },
    ],
    services,
  };
  html = pageOf(definition, ready().url).replace('key" content=""', `key" content="${ready().keys.web}"`);
  const asked: Asked[] = [];
  await page.route("**/v1/services/*", async (route) => {
    const request = route.request();
    const service = new URL(request.url()).pathname.split("/").at(-1)!;
    const one = { service, inputs: JSON.parse(request.postData() ?? "{}") };
    asked.push(one);
    const { status = 200, wait, outcome = "answered", values = {}, standing } = answer(one);
    await wait;
    await route
      .fulfill({
        status,
        contentType: status === 200 ? "application/json" : "application/problem+json",
        headers: { "access-control-allow-origin": "*" },
        body: JSON.stringify(
          status === 200
            ? { service, outcome, values, took: 1, kept: false, ...(standing ? { standing } : {}) }
            : { type: "about:blank", title: "Too many", status, detail: "" },
        ),
      })
      .catch(() => undefined);
  });
  await page.goto(origin);
  await expect(page.locator("[data-bibliotope=form]")).toBeVisible();
  return asked;
}

const field = (page: Page, name: string) => page.locator(`[data-bibliotope=form] [name="${name}"]`);
const said = (page: Page, service = "first") => page.locator(`.bt-service[data-service="${service}"]`);
async function choose(page: Page, text = "12 harb", line = "12 Harbour Row, Tidewell"): Promise<void> {
  await page.getByRole("combobox", { name: "Find your address" }).fill(text);
  await page.getByRole("option").filter({ hasText: line }).first().click();
  await expect(field(page, "town")).toHaveValue("Tidewell");
}
const rule = (part: Partial<ServiceRule> = {}): ServiceRule => ({
  ...{ ask: "first", called: "the first one", when: { on: "chosen" }, with: { town: "{town}" } },
  ...part,
});

test("an address that is chosen: values, a list in a line, and all of it gone with the address", async ({ page }) => {
  const asked = await open(page, [rule()], () => ({ values: { cost: "4.50", list: ["a", "b"] } }));
  await choose(page);
  await expect(field(page, "cost")).toHaveText("4.50");
  await expect(field(page, "list")).toHaveValue("a, b");
  expect(asked).toEqual([{ service: "first", inputs: { town: "Tidewell" } }]);
  await field(page, "street").fill("Elsewhere Lane");
  await expect(field(page, "list")).toHaveValue("");
  await expect(field(page, "cost")).toBeHidden();
});

test("a field that is left, a button, fields that are complete: each asks when it should, and not again for the same", async ({
  page,
}) => {
  const asked = await open(
    page,
    [
      rule({ when: { on: "leaving", field: "books" }, with: { books: "{field.books}" } }),
      rule({ ask: "second", when: { on: "complete", fields: ["books", "day"] }, with: { day: "{field.day}" } }),
      rule({ ask: "third", when: { on: "button", field: "go" }, with: { books: "{field.books}" } }),
    ],
    ({ service }) => ({ values: service === "second" ? { more: "yes" } : { cost: "1" } }),
  );
  const leave = async (name: string, text: string) => {
    await field(page, name).fill(text);
    await field(page, name).blur();
  };
  await page.getByRole("button", { name: "Ask", exact: true }).click();
  await leave("books", "3");
  await expect(field(page, "cost")).toHaveText("1");
  await leave("day", "Monday");
  await expect(field(page, "more")).toHaveText("yes");
  await leave("books", "3");
  await page.getByRole("button", { name: "Ask", exact: true }).click();
  await page.getByRole("button", { name: "Ask", exact: true }).click();
  await expect.poll(() => asked.filter(({ service }) => service === "third").length).toBe(2);
  expect(asked.map(({ service, inputs }) => [service, inputs])).toEqual([
    ["first", { books: "3" }],
    ["second", { day: "Monday" }],
    ["third", { books: "3" }],
    ["third", { books: "3" }],
  ]);
  // no longer complete: what came of it goes
  await leave("day", "");
  await expect(field(page, "more")).toBeHidden();
  // and comes again with the same words
  await leave("day", "Monday");
  await expect(field(page, "more")).toHaveText("yes");
});

test("another service that has answered, with its value; and none after one that has nothing", async ({ page }) => {
  let outcome = "answered";
  const asked = await open(
    page,
    [rule(), rule({ ask: "second", when: { on: "answered", service: "first" }, with: { cost: "{first.cost}" } })],
    ({ service }) => (service === "first" ? { outcome, values: { cost: "7" } } : { values: { more: "seven" } }),
  );
  await choose(page);
  await expect(field(page, "more")).toHaveText("seven");
  expect(asked.at(-1)).toEqual({ service: "second", inputs: { cost: "7" } });
  outcome = "none";
  await choose(page, "14 harbour row tidewell", "14 Harbour Row, Tidewell");
  await expect(said(page)).toContainText("The first one has nothing for this. You can continue without it.");
  expect(asked.filter(({ service }) => service === "second")).toHaveLength(1);
});

test("something newer cancels what is under way: a late answer to the address before fills nothing", async ({
  page,
}) => {
  const gate = new AbortController();
  const late = new Promise<void>((resolve) => gate.signal.addEventListener("abort", () => resolve()));
  let count = 0;
  await open(page, [rule({ with: { house: "{house}" } })], ({ inputs }) => {
    count++;
    return { values: { cost: inputs.house }, ...(inputs.house === "12" ? { wait: late } : {}) };
  });
  await choose(page);
  await expect(said(page)).toContainText("Checking with the first one …");
  await choose(page, "14 harbour row tidewell", "14 Harbour Row, Tidewell");
  await expect(field(page, "cost")).toHaveText("14");
  gate.abort();
  await expect.poll(() => count).toBe(2);
  await page.waitForTimeout(300);
  await expect(field(page, "cost")).toHaveText("14");
});

for (const [answer, words] of [
  [{ outcome: "slow" }, "The first one did not respond in time. You can continue without it."],
  [{ outcome: "down" }, "The first one is not responding at the moment. You can continue without it."],
  [{ outcome: "refused" }, "The first one is not responding at the moment. You can continue without it."],
  [{ outcome: "malformed" }, "The first one is not responding at the moment. You can continue without it."],
  [{ status: 429 }, "The first one has too many requests right now. You can continue without it."],
  [{ status: 500 }, "The first one is not responding at the moment. You can continue without it."],
] as const)
  test(
    `an end that is ${JSON.stringify(answer)} has words, and the form goes on`,
    long(words.includes("is not responding")),
    async ({ page }) => {
      await open(page, [rule()], () => answer);
      await choose(page);
      await expect(said(page)).toHaveText(words);
      await expect(field(page, "confirmed")).toHaveValue("yes");
      await field(page, "books").fill("3");
      await expect(field(page, "list")).toHaveValue("");
    },
  );

test.describe("a register", () => {
  const register = (way: ServiceRule["register"]) =>
    rule({ ask: "register", called: "the register", with: { street: "{street}" }, register: way });
  const otherwise = {
    standing: "otherwise",
    values: { standing: "otherwise", street: "Harbour Rows", number: "4-118" },
  };

  test("whose own form is taken", async ({ page }) => {
    await open(page, [register("take")], () => otherwise);
    await choose(page);
    await expect(field(page, "street")).toHaveValue("Harbour Rows");
    await expect(field(page, "plot")).toHaveValue("4-118, otherwise");
    await expect(field(page, "confirmed")).toHaveValue("yes");
    await expect(said(page, "register")).toHaveText("Spelled as in the register.");
  });

  test("whose own form is only told", async ({ page }) => {
    await open(page, [register("note")], () => otherwise);
    await choose(page);
    await expect(said(page, "register")).toContainText("In the register it is 12 Harbour Rows, Tidewell");
    await expect(field(page, "street")).toHaveValue("Harbour Row");
  });

  test("that does not know the address, and one that does not speak for it", async ({ page }) => {
    let answer: Answer = { standing: "unknown", values: { standing: "unknown" } };
    await open(page, [register("ask")], () => answer);
    await choose(page);
    await expect(said(page, "register")).toHaveText(
      "The register does not know this address. You can continue with it.",
    );
    await expect(field(page, "confirmed")).toHaveValue("yes");
    answer = { outcome: "outside" };
    await choose(page, "14 harbour row tidewell", "14 Harbour Row, Tidewell");
    await expect(field(page, "house")).toHaveValue("14");
    await expect(said(page, "register").locator("p")).toHaveText("");
    await expect(field(page, "plot")).toHaveValue("");
  });

  test("is the first of several that covers the address; what a later one said goes with it", async ({ page }) => {
    const second = rule({ ask: "second", called: "the second", with: { street: "{street}" }, register: "take" });
    let isCovered = false;
    const asked = await open(page, [register("take"), second], ({ service }) => {
      if (service === "second") return { standing: "known", values: { standing: "known", more: "S-7" } };
      return isCovered ? otherwise : { outcome: "outside" };
    });
    await choose(page);
    await expect(said(page, "second")).toHaveText("The second knows this address.");
    await expect(field(page, "more")).toHaveText("S-7");
    expect(asked.map(({ service }) => service)).toEqual(["register", "second"]);
    isCovered = true;
    await choose(page, "14 harbour row tidewell", "14 Harbour Row, Tidewell");
    await expect(field(page, "plot")).toHaveValue("4-118, otherwise");
    await expect(field(page, "more")).toHaveText("");
    await expect(said(page, "second").locator("p")).toHaveText("");
    expect(asked.map(({ service }) => service)).toEqual(["register", "second", "register"]);
  });
});
