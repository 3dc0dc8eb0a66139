import { type FormDefinition, isOfTheMoment, type RehearsalStep, stepWords } from "@bibliotope/core/form";
import { type KeepRehearsalRequest, type Rehearsed, SITUATIONS } from "@bibliotope/wire";
import { ofServicesAlone } from "./situations.ts";

/**
 * Rehearsals as a test file for Playwright that runs as it is: each goes through the steps on the form's own page and
 * looks at what then is in the fields.
 * @param page whole URL of the form's page
 */
export function playwrightFile(
  definition: FormDefinition,
  rehearsals: readonly KeepRehearsalRequest[],
  page: string,
): string {
  return `${HEAD.replace("PAGE", literal(page)).replace("TITLE", oneLine(definition.title))}
${rehearsals.map((rehearsal) => testOf(definition, rehearsal)).join("\n")}${HELPERS}`;
}

function testOf(definition: FormDefinition, { name, situation, steps, expected }: KeepRehearsalRequest): string {
  const moments = new Set(definition.fields.filter(isOfTheMoment).map(({ name: field }) => field));
  const lines = [
    ...situationLines(situation),
    "const form = await open(page);",
    ...steps.flatMap((step) => [`// ${oneLine(stepWords(step, definition))}`, `await form.${callOf(step)};`]),
    "await form.settled();",
    ...Object.entries(expected)
      .filter(([name]) => !moments.has(name))
      .map(([field, value]) => `await expect(form.field(${literal(field)})).toHaveValue(${literal(value)});`),
  ];
  return `test(${literal(name)}, async ({ page }) => {\n${lines.map((line) => `  ${line}\n`).join("")}});\n`;
}

function situationLines(situation: Rehearsed): string[] {
  if (situation === "offline") return ["await page.route(LOOKUPS, (route) => route.abort());"];
  const ofServices = ofServicesAlone(situation);
  if (ofServices) return [`await play(page, ${literal(ofServices)}, SERVICES);`];
  return (SITUATIONS as readonly string[]).includes(situation) ? [`await play(page, ${literal(situation)});`] : [];
}

function callOf(step: RehearsalStep): string {
  switch (step.do) {
    case "type":
      return `type(${literal(step.field)}, ${literal(step.text)})`;
    case "leave":
      return `leave(${literal(step.field)})`;
    case "take":
      return `take(${literal(step.line)})`;
    case "select":
      return `select(${literal(step.field)}, ${literal(step.value)})`;
    case "press":
      return `press(${literal(step.field)})`;
    case "choose":
      return `choose(${literal(step.address)}, ${literal(step.line)})`;
    case "keep":
      return `keep(${literal(step.address)})`;
    case "point":
      return `point(${JSON.stringify({ ...step.at, address: step.address })})`;
  }
}

/** Text as a literal of the language: whatever is in it stays text. */
const literal = (text: string) =>
  JSON.stringify(text).replace(/[\u2028\u2029]/g, (sign) => `\\u${sign.charCodeAt(0).toString(16)}`);
/** Text for a comment. */
const oneLine = (text: string) => text.replace(/[\r\n\u2028\u2029]+/g, " ");

const HEAD = `import { expect, type Page, type Request, test } from "@playwright/test";

// Rehearsals of the form TITLE. BIBLIOTOPE_FORM names another page that holds it; BIBLIOTOPE_TRY_KEY is a key with
// which the service plays situations.
const FORM = process.env.BIBLIOTOPE_FORM ?? PAGE;
const TRY_KEY = process.env.BIBLIOTOPE_TRY_KEY;
const LOOKUPS = /\\/v1\\/(suggest|forward|reverse|records|postcodes|distance|height|services)\\b/;
const SERVICES = /\\/v1\\/services\\b/;
`;

const HELPERS = `
/** Asks every lookup with the try key, in a situation that it plays. */
async function play(page: Page, situation: string, calls = LOOKUPS): Promise<void> {
  test.skip(!TRY_KEY, "BIBLIOTOPE_TRY_KEY is not set");
  await page.route(calls, (route) => {
    const url = new URL(route.request().url());
    url.searchParams.set("access_token", TRY_KEY!);
    url.searchParams.set("situation", situation);
    return route.continue({ url: url.href });
  });
}

/** Opens the form, and knows how a person uses it. */
async function open(page: Page) {
  const underWay = new Set<Request>();
  let last = Date.now();
  const ended = (request: Request) => {
    if (underWay.delete(request)) last = Date.now();
  };
  page.on("request", (request) => LOOKUPS.test(request.url()) && underWay.add(request));
  page.on("requestfinished", ended);
  page.on("requestfailed", ended);
  /** Waits until no request is under way. */
  const settled = async () => {
    last = Date.now();
    while (underWay.size || Date.now() - last < 300) await page.waitForTimeout(40);
  };
  const field = (name: string) => page.locator(\`[name="\${name}"]\`);
  const placeOf = (address: string) => page.locator(\`.bt-outcome[data-address="\${address}"]\`);
  await page.goto(FORM);
  await expect(page.locator("form.bt-form")).toBeVisible();
  return {
    settled,
    field,
    async type(name: string, text: string) {
      const control = field(name);
      const before = await control.inputValue();
      await control.focus();
      if (text && text.startsWith(before)) await control.press("End");
      else await control.press("ControlOrMeta+A");
      if (text) await control.pressSequentially(text.startsWith(before) ? text.slice(before.length) : text, { delay: 35 });
      else await control.press("Delete");
    },
    async leave(name: string) {
      await settled();
      await field(name).press("Tab");
      await settled();
    },
    /** By the keyboard: what a script chooses does not count as a person's choice. */
    async select(name: string, value: string) {
      const option = field(name).locator(\`option[value="\${value}"]\`);
      await field(name).focus();
      await page.keyboard.type((await option.textContent()) ?? "");
      await expect(field(name)).toHaveValue(value);
      await settled();
    },
    async take(line: string) {
      const list = page.getByRole("listbox", { name: "Suggestions" });
      await list.getByRole("option").filter({ has: page.getByText(line, { exact: true }) }).first().click();
      await settled();
    },
    async choose(address: string, line: string) {
      const choices = placeOf(address).locator(".bt-choice");
      await choices.filter({ has: page.getByText(line, { exact: true }) }).first().click();
      await settled();
    },
    async keep(address: string) {
      await placeOf(address).locator(".bt-typed").click();
      await settled();
    },
    async press(name: string) {
      await field(name).click();
      await settled();
    },
    /** A press on the map, wherever on the screen the position lies. */
    async point(at: { lat: number; lon: number; address?: string }) {
      await page.locator(".bt-map-view").evaluate((element, detail) => element.dispatchEvent(new CustomEvent("bibliotope:point", { detail })), at);
      await settled();
    },
  };
}
`;
