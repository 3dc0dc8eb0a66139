import { type FormDefinition, isOfTheMoment, type RehearsalStep, stepWords } from "@bibliotope/core/form";
import { type KeepRehearsalRequest, type Rehearsed, SITUATIONS } from "@bibliotope/wire";
import formPage from "../../../kit/src/playwright/form-page.ts?raw";
import { ofServicesAlone } from "./situations.ts";

/**
 * Rehearsals as a test file for Playwright that runs as it is: each goes through the steps on the form's own page and
 * looks at what then is in the fields.
 * @param page absolute URL of the form's page
 */
export function playwrightFile(
  definition: FormDefinition,
  rehearsals: readonly KeepRehearsalRequest[],
  page: string,
): string {
  return `${HEAD.replace("PAGE", literal(page)).replace("TITLE", oneLine(definition.title))}
${rehearsals.map((rehearsal) => testOf(definition, rehearsal)).join("\n")}
${DRIVER}`;
}

function testOf(definition: FormDefinition, { name, situation, steps, expected }: KeepRehearsalRequest): string {
  const moments = new Set(definition.fields.filter(isOfTheMoment).map(({ name: field }) => field));
  const lines = [
    ...situationLines(situation),
    "const form = await FormPage.open(page, FORM);",
    ...steps.flatMap((step) => [`// ${oneLine(stepWords(step, definition))}`, `await form.${callOf(step)};`]),
    "await form.settled();",
    ...Object.entries(expected)
      .filter(([name]) => !moments.has(name))
      .map(([field, value]) => `await expect(form.field(${literal(field)})).toHaveValue(${literal(value)});`),
  ];
  return `test(${literal(name)}, async ({ page }) => {\n${lines.map((line) => `  ${line}\n`).join("")}});\n`;
}

function situationLines(situation: Rehearsed): string[] {
  if (situation === "offline") return ["await FormPage.goOffline(page);"];
  const ofServices = ofServicesAlone(situation);
  const isPlayed = ofServices !== undefined || (SITUATIONS as readonly string[]).includes(situation);
  if (!isPlayed) return [];
  const played = ofServices ? `${literal(ofServices)}, true` : literal(situation);
  return ['test.skip(!TRY_KEY, "BIBLIOTOPE_TRY_KEY is not set");', `await FormPage.play(page, TRY_KEY!, ${played});`];
}

function callOf(step: RehearsalStep): string {
  switch (step.do) {
    case "type":
      return `type(${literal(step.field)}, ${literal(step.text)})`;
    case "leave":
      return `leave(${literal(step.field)})`;
    case "take":
      return `takeSuggestion(${literal(step.line)})`;
    case "select":
      return `select(${literal(step.field)}, ${literal(step.value)})`;
    case "press":
      return `press(${literal(step.field)})`;
    case "choose":
      return `chooseMatch(${literal(step.address)}, ${literal(step.line)})`;
    case "keep":
      return `keepTyped(${literal(step.address)})`;
    case "point":
      return `pointAt(${JSON.stringify({ ...step.at, address: step.address })})`;
  }
}

/** Text as a literal of the language: whatever is in it stays text. */
const literal = (text: string) =>
  JSON.stringify(text).replace(/[\u2028\u2029]/g, (sign) => `\\u${sign.charCodeAt(0).toString(16)}`);
/** Text for a comment. */
const oneLine = (text: string) => text.replace(/[\r\n\u2028\u2029]+/g, " ");

const HEAD = `import { expect, type Locator, type Page, type Request, test } from "@playwright/test";

// Rehearsals of the form TITLE. BIBLIOTOPE_FORM names another page that holds it; BIBLIOTOPE_TRY_KEY is a key with
// which the service plays situations.
const FORM = process.env.BIBLIOTOPE_FORM ?? PAGE;
const TRY_KEY = process.env.BIBLIOTOPE_TRY_KEY;
`;

/** The kit's driver of a page, without what imports and exports it. */
const DRIVER = formPage.replace(/^import .*\n+/m, "").replace(/^export /m, "");
