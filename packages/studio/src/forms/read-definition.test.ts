import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readDefinition } from "./read-definition.ts";

const FORM = { title: "Members", fields: [{ name: "town", kind: "text", label: "Town" }] };

describe("a definition from text", () => {
  it("is taken when it is sound", async () => {
    expect(await readDefinition(JSON.stringify(FORM))).toEqual(FORM);
  });

  it("is refused in words that say where", async () => {
    expect(await readDefinition("{")).toMatch(/^This is not valid JSON: /);
    expect(await readDefinition("5")).toMatch(/^The form: /);
    expect(await readDefinition(JSON.stringify({ ...FORM, addresses: [{ name: 5 }] }))).toMatch(
      /^addresses\.0\.name: /,
    );
  });

  it("never throws, whatever is in the place of whatever", async () => {
    const places = ["title", "fields", "addresses", "fields.0", "fields.0.label", "fields.0.options", "addresses.0"];
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...places), fc.jsonValue(), async (place, value) => {
        const form: Record<string, unknown> = structuredClone({ ...FORM, addresses: [{ name: "home" }] });
        const steps = place.split(".");
        let at = form;
        for (const step of steps.slice(0, -1)) at = at[step] as typeof form;
        at[steps[steps.length - 1]] = value;
        const read = await readDefinition(JSON.stringify(form));
        expect(typeof read === "string" ? read : read.title).toMatch(/\S/);
      }),
    );
  });
});
