import type { FormDefinition, RehearsalStep } from "@bibliotope/core/form";
import type { KeepRehearsalRequest } from "@bibliotope/wire";
import ts from "typescript";
import { describe, expect, it } from "vitest";
import { playwrightFile } from "./playwright-file.ts";

const FORM: FormDefinition = {
  title: "A form\n// of two lines",
  fields: [
    { name: "find", kind: "search", label: "Find it" },
    { name: "town", kind: "text", label: "Town" },
  ],
};
const PAGE = "http://localhost:4870/f/a-form";

function fileOf(steps: RehearsalStep[], more: Partial<KeepRehearsalRequest> = {}): string {
  const rehearsal = { name: "One", situation: "normal", steps, expected: { town: "Tidewell" }, ...more };
  return playwrightFile(FORM, [rehearsal as KeepRehearsalRequest], PAGE);
}

/** What is wrong with the file's syntax. */
const wrongIn = (text: string) =>
  ts.transpileModule(text, { reportDiagnostics: true }).diagnostics?.map(({ messageText }) => messageText);

describe("rehearsals as a Playwright test", () => {
  it("go through their steps, and look at the fields", () => {
    const file = fileOf([
      { do: "type", field: "find", text: "12 harb" },
      { do: "take", field: "find", line: "12 Harbour Row, Tidewell" },
      { do: "leave", field: "find" },
      { do: "select", field: "town", value: "x" },
      { do: "press", field: "find" },
      { do: "choose", address: "home", line: "7 A Street" },
      { do: "keep", address: "" },
      { do: "point", at: { lat: -35.2, lon: -21.6 } },
    ]);
    expect(wrongIn(file)).toEqual([]);
    for (const line of [
      'const FORM = process.env.BIBLIOTOPE_FORM ?? "http://localhost:4870/f/a-form";',
      'test("One", async ({ page }) => {',
      '  // Type “12 harb” into Find it\n  await form.type("find", "12 harb");',
      '  await form.takeSuggestion("12 Harbour Row, Tidewell");',
      '  await form.leave("find");',
      '  await form.select("town", "x");',
      '  await form.press("find");',
      '  await form.chooseMatch("home", "7 A Street");',
      '  await form.keepTyped("");',
      '  await form.pointAt({"lat":-35.2,"lon":-21.6});',
      '  await expect(form.field("town")).toHaveValue("Tidewell");',
    ])
      expect(file).toContain(line);
  });

  it("play their situation", () => {
    const steps: RehearsalStep[] = [{ do: "press", field: "find" }];
    expect(fileOf(steps, { situation: "slow" })).toContain('await FormPage.play(page, TRY_KEY!, "slow");');
    expect(fileOf(steps, { situation: "offline" })).toContain("await FormPage.goOffline(page);");
    expect(fileOf(steps, { situation: "service-down" })).toContain(
      'await FormPage.play(page, TRY_KEY!, "down", true);',
    );
    expect(fileOf(steps)).not.toContain("await FormPage.play(page,");
  });

  it("take whatever text a person typed as text", () => {
    // biome-ignore lint/suspicious/noTemplateCurlyInString: it is what must stay text
    const nasty = '"); process.exit(1); ("\u2028`${1}`\\';
    const file = fileOf([{ do: "type", field: "find", text: nasty }], { name: nasty, expected: { town: nasty } });
    expect(wrongIn(file)).toEqual([]);
    const literals: string[] = [];
    const visit = (node: ts.Node) => {
      if (ts.isStringLiteral(node)) literals.push(node.text);
      ts.forEachChild(node, visit);
    };
    visit(ts.createSourceFile("a.ts", file, ts.ScriptTarget.Latest));
    expect(literals.filter((text) => text === nasty)).toHaveLength(3);
    expect(file.split("\n").filter((line) => line.includes("of two lines"))).toEqual([
      expect.stringMatching(/^\/\/ .*A form \/\/ of two lines/),
    ]);
  });
});
