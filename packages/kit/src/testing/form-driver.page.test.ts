import type { FormDefinition } from "@bibliotope/core/form";
import fc from "fast-check";
import { afterEach, describe, expect, it } from "vitest";
import { type RenderedForm, renderForm } from "../form/index.ts";
import { CannotDrive, FormDriver } from "./form-driver.ts";
import { StandIn } from "./index.ts";

const DEFINITION: FormDefinition = {
  title: "A form",
  fields: [
    { name: "find", kind: "search", label: "Find your address" },
    { name: "street", kind: "text", label: "Street", binding: "{street} {house}" },
    { name: "town", kind: "text", label: "Town", binding: "{town}" },
    { name: "note", kind: "text", label: "Note" },
    {
      name: "size",
      kind: "choice",
      label: "Size",
      options: [
        { value: "small", label: "Small" },
        { value: "large", label: "Large" },
      ],
    },
    { name: "where", kind: "hidden", label: "", binding: "{lat},{lon}" },
    { name: "place", kind: "map", label: "On the map" },
  ],
};
const house = (number: string, lat: number) => ({
  ref: `qr-${number}`,
  line: `${number} Mill Lane, Nowhere`,
  at: { lat, lon: -21.6 },
  parts: { house: number, street: "Mill Lane", town: "Nowhere" },
});
const records = [house("3", -35.2), house("14", -35.2001), house("15", -35.2002)];
const LINES = records.map(({ line }) => line);

let rendered: RenderedForm | undefined;
/** A form on the page, and its driver. */
function driven() {
  const standIn = new StandIn({ records });
  const driver = new FormDriver({ letter: 0, patience: 3000 });
  rendered = renderForm(document.body, DEFINITION, {
    client: standIn.client(),
    countries: [],
    isByPerson: driver.isByPerson,
    trace: driver.trace,
  });
  driver.attach(rendered.form);
  const values = () => rendered!.binding.values();
  return { driver, stands: standIn, values, form: rendered.form };
}
afterEach(() => {
  rendered?.destroy();
  document.body.replaceChildren();
});

describe("the driver of a form", () => {
  it("types, takes a suggestion, selects and leaves as a person does", async () => {
    const { driver, values } = driven();
    await driver.type("find", "14 mill");
    await driver.takeSuggestion("find", "14 Mill Lane, Nowhere");
    expect(values()).toMatchObject({ street: "Mill Lane 14", town: "Nowhere", where: "-35.2001,-21.6" });
    await driver.type("note", "Two steps");
    await driver.type("note", "Two stairs");
    await driver.leave("note");
    await driver.select("size", "large");
    expect(values()).toMatchObject({ note: "Two stairs", size: "large" });
  });

  it("points at the map, which fills the form from the nearest address", async () => {
    const { driver, values } = driven();
    await driver.pointAt({ lat: -35.20019, lon: -21.6 });
    expect(values()).toMatchObject({ street: "Mill Lane 15", town: "Nowhere" });
  });

  it("says what cannot be done, in words", async () => {
    const { driver } = driven();
    await expect(driver.type("nothing", "x")).rejects.toThrow("the form has no field nothing");
    await expect(driver.select("size", "huge")).rejects.toThrow(CannotDrive);
    await driver.type("find", "mill");
    await expect(driver.takeSuggestion("find", "1 Elsewhere")).rejects.toThrow("did not appear in the list");
    await expect(new FormDriver().press("x")).rejects.toThrow("attach a form first");
  });

  it("ends with its signal, with the signal's reason", async () => {
    const { form } = driven();
    const stop = new AbortController();
    const driver = new FormDriver({ signal: stop.signal });
    driver.attach(form);
    const typing = driver.type("note", "a long text");
    stop.abort(new Error("enough"));
    await expect(typing).rejects.toThrow("enough");
  });
});

type Step = { do: "take"; line: string } | { do: "type"; field: "street" | "town" | "note"; text: string };
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ do: fc.constant("take" as const), line: fc.constantFrom(...LINES) }),
  fc.record({
    do: fc.constant("type" as const),
    field: fc.constantFrom("street" as const, "town" as const, "note" as const),
    text: fc.constantFrom("", "Elsewhere", "Mill Lane 3", "<b>x</b>", "北京 12"),
  }),
);

describe("a bound form, whatever is done to it", () => {
  it("has in each field what was last written there, and says surveyed of nothing that a person has changed", {
    timeout: 80_000,
  }, async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 5 }), async (steps) => {
        const { driver, values } = driven();
        const expected: Record<string, string> = { street: "", town: "", note: "" };
        for (const one of steps) {
          if (one.do === "take") {
            await driver.type("find", one.line.slice(0, 6));
            await driver.takeSuggestion("find", one.line);
            const { house: number, street, town } = records.find(({ line }) => line === one.line)!.parts;
            Object.assign(expected, { street: `${street} ${number}`, town });
          } else {
            await driver.type(one.field, one.text);
            await driver.leave(one.field);
            expected[one.field] = one.text;
          }
          expect(values()).toMatchObject(expected);
        }
        const { where } = values();
        const stands = records.filter(({ parts: { house: number, street, town } }) => {
          return expected.street === `${street} ${number}` && expected.town === town;
        });
        // a position is there only while the fields still say the place that it is of
        if (where) expect(stands.map(({ at }) => `${at.lat},${at.lon}`)).toContain(where);
        rendered?.destroy();
        document.body.replaceChildren();
      }),
      { numRuns: 6 },
    );
  });
});
