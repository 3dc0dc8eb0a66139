import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatPattern, knownPattern, namesIn, parsePattern } from "./index.ts";

const write = (source: string, values: Record<string, string | undefined>) =>
  formatPattern(knownPattern(source), (name) => values[name]);

describe("parsePattern", () => {
  it.each([
    ["{street", 1, "no closing }"],
    ["street}", 7, "opens nowhere"],
    ["[{unit}, {house}", 1, "no closing ]"],
    ["{house}]", 8, "closes no group"],
    ["{}", 2, "a name is missing"],
    ["{House}", 2, "is not a name"],
    ["{town or }", 2, "is not a name"],
    ["{town:shout}", 2, "is not a change"],
    ["ends with \\", 11, "must follow the backslash"],
  ])("says of %s that column %i is wrong", (source, column, message) => {
    const parsed = parsePattern(source);
    expect(parsed.ok).toBe(false);
    if (parsed.ok) return;
    expect(parsed.error.column).toBe(column);
    expect(parsed.error.message).toContain(message);
  });

  it("lists the names that it asks for, each once", () => {
    const parsed = parsePattern("[{unit}, ]{house} {street or place}, {country.code} {house}");
    expect(parsed.ok && namesIn(parsed.pattern)).toEqual(["unit", "house", "street", "place", "country.code"]);
  });

  it("never throws, whatever it is given", () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."{}[]\\:ab. or,"), maxLength: 30 }), (source) => {
        const parsed = parsePattern(source);
        if (parsed.ok) formatPattern(parsed.pattern, () => undefined);
        else expect(parsed.error.column).toBeGreaterThan(0);
      }),
    );
  });
});

describe("formatPattern", () => {
  it("writes values in their places", () => {
    expect(write("{street} {house}", { street: "Østergränd", house: "12 b" })).toBe("Østergränd 12 b");
  });

  it("lets a group vanish whole when a part in it is missing", () => {
    expect(write("{street} {house}[, {unit}]", { street: "Mill Lane", house: "3" })).toBe("Mill Lane 3");
    expect(write("{street} {house}[, {unit}]", { street: "Mill Lane", house: "3", unit: "Flat 2" })).toBe(
      "Mill Lane 3, Flat 2",
    );
  });

  it("keeps a group of groups apart", () => {
    expect(write("[{a}[-{b}]]", { a: "1" })).toBe("1");
    expect(write("[{a}[-{b}]]", { b: "2" })).toBe("");
  });

  it("falls back to the next name", () => {
    expect(write("{town or district}", { district: "Old Quay" })).toBe("Old Quay");
    expect(write("{town or district}", { town: "", district: "Old Quay" })).toBe("Old Quay");
  });

  it("changes case and trims", () => {
    expect(write("{town:upper}", { town: "Vårhamn" })).toBe("VÅRHAMN");
    expect(write("{town:lower}", { town: "Å" })).toBe("å");
    expect(write("{town:trim:upper}", { town: " x " })).toBe("X");
  });

  it("takes a character after a backslash as it is", () => {
    expect(write("\\{{house}\\} \\[x\\]", { house: "1" })).toBe("{1} [x]");
  });

  it("makes a line for each line, and no empty ones", () => {
    expect(write("{house} {street}\n{district}\n{town}", { house: "1", street: "Bell Row", town: "Tidewell" })).toBe(
      "1 Bell Row\nTidewell",
    );
  });

  it("writes a line once for each item of a list", () => {
    const values: Record<string, string | string[] | undefined> = {
      hours: ["Monday–Friday 09:00–17:00", "Saturday 10:00–14:00"],
      languages: ["en", "el"],
      name: "Quay Room",
      none: [],
    };
    const list = (source: string) => formatPattern(knownPattern(source), (name) => values[name]);
    expect(list("{name}\nOpen {hours}")).toBe("Quay Room\nOpen Monday–Friday 09:00–17:00\nOpen Saturday 10:00–14:00");
    expect(list("{languages:upper}")).toBe("EN\nEL");
    expect(list("{hours}[ ({unit})]")).toBe("Monday–Friday 09:00–17:00\nSaturday 10:00–14:00");
    expect(list("{name}\n{none}")).toBe("Quay Room");
  });

  it.each([
    ["{a}, {b}, {c}", { b: "B" }, "B"],
    ["{a} {b}", { b: "B" }, "B"],
    ["{a}, {b}", { a: "A" }, "A"],
    ["{a}  {b}", { a: "A", b: "B" }, "A B"],
    ["{a} , {b}", { a: "A", b: "B" }, "A, B"],
    ["{a}", {}, ""],
  ])("leaves nothing behind of a missing value: %s", (source, values, expected) => {
    expect(write(source, values)).toBe(expected);
  });

  it("never throws and never prints undefined, whatever the pattern and the values", () => {
    const unit = fc.constantFrom(..."{}[]\\:, \n", "a", "b", "c", "{a}", "{b or c}", "[, {c}]", "{a:upper}");
    const value = fc.option(fc.oneof(fc.string(), fc.array(fc.string(), { maxLength: 3 })), { nil: undefined });
    fc.assert(
      fc.property(
        fc.array(unit, { maxLength: 12 }).map((units) => units.join("")),
        fc.record({ a: value, b: value, c: value }),
        (source, values) => {
          const parsed = parsePattern(source);
          if (!parsed.ok) return;
          const text = formatPattern(parsed.pattern, (name) => values[name as "a"]);
          expect(text).not.toMatch(/ {2}|,\s*,|^[\s,]|[\s,]$/);
        },
      ),
    );
  });

  it("tidies each line, whatever spaces and commas a value has", () => {
    const tidied = (line: string) =>
      line
        .replace(/[ \t]+/g, " ")
        .replace(/ ,/g, ",")
        .replace(/,(\s*,)+/g, ",")
        .replace(/^[\s,]+|[\s,]+$/g, "");
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(..."aé  ,,\t\n\r\u00a0\u3000"), minLength: 1, maxLength: 12 }),
        (value) => {
          expect(write("{a}", { a: value })).toBe(value.split("\n").map(tidied).filter(Boolean).join("\n"));
        },
      ),
    );
  });

  it("never prints undefined, doubled spaces or orphaned commas", () => {
    const value = fc.option(fc.constantFrom("A", "Bee", "Å 1"), { nil: undefined });
    fc.assert(
      fc.property(
        fc.constantFrom("{a}, {b} {c}", "[{a}, ]{b}, {c}", "{a} {b}\n{c}, {d}", "[{a} [{b}], ]{c or d}"),
        fc.record({ a: value, b: value, c: value, d: value }),
        (source, values) => {
          const text = write(source, values);
          expect(text).not.toMatch(/undefined| {2}|^[\s,]|[\s,]$|,\s*,|\n\n/);
        },
      ),
    );
  });
});

describe("knownPattern", () => {
  it("says which of our own patterns is wrong, and where", () => {
    expect(() => knownPattern("{oops")).toThrow("pattern {oops, column 1");
  });
});
