import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatPattern, knownPattern, namesIn } from "../../pattern/index.ts";
import { autofillValues, envelopeLines, formatLine, partLookup } from "../format.ts";
import { PARTS, type Parts } from "../kinds.ts";
import { postcodeAsWritten } from "../profile.ts";
import { allProfiles, profileOf } from "./index.ts";

const profiles = allProfiles();
const named = profiles.map((profile) => [profile.code, profile] as const);

describe("the profiles", () => {
  it("are of sixty real countries and more, each once", () => {
    const codes = profiles.map(({ code }) => code);
    expect(new Set(codes).size).toBe(codes.length);
    expect(codes.filter((code) => !/^Q[M-Z]$/.test(code)).length).toBeGreaterThanOrEqual(60);
  });

  it("give a country without one something sensible", () => {
    const plain = profileOf("XA");
    expect(plain.code).toBe("XA");
    const parts: Parts = { house: { name: "7" }, street: { name: "Long Road" }, town: { name: "Somewhere" } };
    expect(formatLine(parts, plain)).toBe("7 Long Road, Somewhere");
  });

  it.each(named)("%s has examples of its own postcode's shape", (_, { postcode }) => {
    if (!postcode) return;
    for (const example of postcode.examples) expect(example).toMatch(new RegExp(postcode.shape, "iu"));
    expect(postcode.examples.length).toBeGreaterThan(0);
  });

  it.each(named)("%s names only parts, in every pattern, and says where its number stands", (_, profile) => {
    for (const pattern of [profile.lines, profile.line, profile.suggestion, profile.within, profile.addressLine]) {
      const names = namesIn(knownPattern(pattern)).map((name) => name.split(".")[0]);
      for (const name of names) expect(PARTS).toContain(name);
    }
    const whole = namesIn(knownPattern(profile.line));
    expect(whole).toContain(profile.number.part);
    const [number, street] = [
      whole.indexOf(profile.number.part),
      whole.findIndex((name) => /^(street|block)$/.test(name)),
    ];
    expect(number < street).toBe(profile.number.stands === "before");
    for (const level of profile.levels) expect(PARTS).toContain(level);
  });

  const SHAPE = /undefined|null|-$| {2}|^[\s,]|[,\s]$|, ,|,,|\(\)|\[|\]|\{|\}/m;

  it.each(named)("%s leaves no orphan behind, whatever part is missing", (_, profile) => {
    const some = fc.record(
      Object.fromEntries(
        PARTS.map((part) => [part, fc.constantFrom({ name: `A${part}` }, { name: "7", code: "X1", abbr: "Ab" })]),
      ),
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(some, (parts) => {
        const lookup = partLookup(parts as Parts);
        for (const pattern of [profile.line, profile.suggestion, profile.within, profile.addressLine])
          expect(formatPattern(knownPattern(pattern), lookup)).not.toMatch(SHAPE);
        for (const line of envelopeLines(parts as Parts, profile)) expect(line).not.toMatch(SHAPE);
        for (const value of Object.values(autofillValues(parts as Parts, profile))) expect(value).not.toMatch(SHAPE);
      }),
      { numRuns: 60 },
    );
  });
});

describe("a postcode", () => {
  it.each([
    ["NL", "1012ab", "1012 AB"],
    ["GB", "sw1a1aa", "SW1A 1AA"],
    ["GB", "m11ae", "M1 1AE"],
    ["BR", "01310100", "01310-100"],
    ["JP", "1000001", "100-0001"],
    ["PL", "00 001", "00-001"],
    ["SE", "11122", "111 22"],
    ["US", "100010001", "10001-0001"],
    ["DE", "D-10115", "10115"],
    // a spreadsheet took its zeros away
    ["DE", "1067", "01067"],
    ["US", "501", "00501"],
    ["DE", "somewhere", undefined],
    ["GB", "ZZZZ 9", undefined],
  ])("of %s, written %s, is %s", (country, text, written) => {
    expect(postcodeAsWritten(profileOf(country), text)).toBe(written);
  });

  it("is the same however often it is written, and with or without what parts it", () => {
    for (const profile of allProfiles())
      for (const example of profile.postcode?.examples ?? []) {
        const written = postcodeAsWritten(profile, example)!;
        expect(postcodeAsWritten(profile, written)).toBe(written);
        expect(postcodeAsWritten(profile, written.replace(/[\s-]/g, "").toLowerCase())).toBe(written);
      }
  });
});
