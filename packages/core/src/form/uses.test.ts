import { describe, expect, it } from "vitest";
import { type Field, type FormDefinition, usesOf, usesOfAddress } from "./index.ts";

const field = (name: string, more: Partial<Field> = {}): Field => ({ name, label: name, kind: "text", ...more });
const form = (...fields: Field[]): FormDefinition => ({ title: "A form", fields });
const SEARCH = field("find", { kind: "search" });
const TOWN = field("town", { binding: "{town}" });

describe("the kinds of lookup that a form uses", () => {
  it("are those of a choice from a list, with what people may look up again", () => {
    expect(usesOf(form(SEARCH))).toEqual(["suggest", "forward", "records", "countries"]);
    expect(usesOf(form(SEARCH, TOWN))).toEqual(["suggest", "forward", "records", "countries"]);
  });

  it("are forward without a list, and nothing else", () => {
    expect(usesOf(form(TOWN))).toEqual(["forward", "countries"]);
    expect(usesOf(form(field("who")))).toEqual(["countries"]);
  });

  it.each([
    [field("map", { kind: "map" }), ["reverse", "tiles", "still"]],
    [field("here", { kind: "button", task: "locate" }), ["reverse"]],
    [field("picture", { kind: "still" }), ["still", "links"]],
    [field("height", { kind: "hidden", binding: "{height}" }), ["height"]],
    [field("ref", { kind: "hidden", binding: "{ref}" }), ["records"]],
    [field("swap", { kind: "button", task: "exchange" }), []],
  ])("grow with $name", (one, more) => {
    const [before, after] = [usesOf(form(TOWN)), usesOf(form(TOWN, one))];
    expect(new Set(after)).toEqual(new Set([...before, ...more]));
  });

  it("are those of its rules: suggestions of postcodes where the country comes first, services, the nearest of some places", () => {
    const country = field("country", { kind: "country" });
    const rules = { ...form(TOWN, country), addresses: [{ name: "", countryFirst: true, nearby: "reading room" }] };
    expect(usesOf(rules)).toEqual(expect.arrayContaining(["suggest", "forward"]));
    const services = [{ ask: "courier", when: { on: "chosen" as const }, with: {} }];
    expect(usesOf({ ...form(SEARCH), services })).toContain("services");
  });

  it("tell which of them an address cannot be found without", () => {
    const two = form(SEARCH, field("map", { kind: "map" }), field("other", { binding: "{town}", address: "to" }));
    expect(usesOfAddress(two, "")).toEqual({ words: ["suggest", "records"], map: ["reverse"] });
    expect(usesOfAddress(two, "to")).toEqual({ words: ["forward"], map: [] });
  });
});
