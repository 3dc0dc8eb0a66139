import { describe, expect, it } from "vitest";
import { LANGUAGES, NAMED_PARTS } from "./languages/index.ts";
import { partNames } from "./part-names.ts";

describe("names of the parts of an address", () => {
  it("are in small letters, and mean one part each", () => {
    const of = new Map<string, string>();
    for (const part of NAMED_PARTS)
      for (const name of partNames[part]) {
        expect(name.toLowerCase().trim(), name).toBe(name);
        expect(of.get(name) ?? part, `“${name}” is ${part}`).toBe(part);
        of.set(name, part);
      }
  });

  it("are there in every language of the world for street or house, town and postcode", () => {
    for (const { lang, partNames: names } of LANGUAGES.filter(({ lang }) => !/^(qr|art|x)-|^q[a-t][a-z]/.test(lang)))
      if (names)
        for (const part of ["town", "postcode", "line"] as const) expect(names[part], `${lang} ${part}`).toBeTruthy();
    expect(LANGUAGES.filter(({ partNames: names }) => names).length).toBeGreaterThan(25);
  });
});
