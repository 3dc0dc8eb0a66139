import { mkdtempSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Link, linkOf, tokenOf } from "./link.ts";
import { LinkKeys } from "./link-keys.ts";

const fileOf = () => join(mkdtempSync(join(tmpdir(), "bibliotope-links-")), "links.key");
const LINK: Link = {
  key: 7,
  ends: 1_900_000_000,
  shows: "page",
  of: "qr-hgwrp5",
  size: { width: 600, height: 400 },
  density: 1,
};

describe("links", () => {
  const keys = new LinkKeys(fileOf());

  it("are read as they were made, whatever they show", () => {
    const text = fc.string({ unit: "grapheme", minLength: 1, maxLength: 60 });
    const link: fc.Arbitrary<Link> = fc.record(
      {
        key: fc.nat(1e6),
        ends: fc.nat(4e9),
        shows: fc.constantFrom("page" as const, "still" as const),
        size: fc.record({ width: fc.integer({ min: 64, max: 1280 }), height: fc.integer({ min: 64, max: 1280 }) }),
        density: fc.constantFrom(1 as const, 2 as const),
        of: fc.constantFrom("qr-hgwrp5", "qv-1"),
        label: text,
        lang: fc.constantFrom("en", "qth-Grek"),
        zoom: fc.integer({ min: 2, max: 19 }),
        night: fc.constant(true),
      },
      { requiredKeys: ["key", "ends", "shows", "size", "density", "of"] },
    );
    fc.assert(
      fc.property(link, (one) => {
        expect(linkOf(keys, tokenOf(keys, one))).toEqual(one);
      }),
    );
    const { of: _, ...spot } = LINK;
    const at = { ...spot, at: { lat: -35.2, lon: -21.6 } };
    expect(linkOf(keys, tokenOf(keys, at))).toEqual(at);
  });

  it("are none any more when one letter of them is another, is missing, or is added", () => {
    const token = tokenOf(keys, LINK);
    const letters = "ABab09-_.";
    for (let i = 0; i < token.length; i++) {
      for (const letter of letters)
        if (letter !== token[i])
          expect(linkOf(keys, token.slice(0, i) + letter + token.slice(i + 1)), String(i)).toBe(undefined);
      expect(linkOf(keys, token.slice(0, i) + token.slice(i + 1))).toBe(undefined);
    }
    for (const more of ["A", "=", ".", "%20"]) expect(linkOf(keys, token + more)).toBe(undefined);
    for (const none of ["", ".", "..", "a.b.c", "x".repeat(100_000)]) expect(linkOf(keys, none)).toBe(undefined);
  });

  it("are of one installation, and go on when another key signs, unless the old ones are to end", () => {
    const file = fileOf();
    const [one, other] = [new LinkKeys(file), new LinkKeys(file)];
    expect(statSync(file).mode & 0o777).toBe(0o600);
    const token = tokenOf(one, LINK);
    expect(linkOf(other, token)).toEqual(LINK);
    expect(linkOf(keys, token)).toBe(undefined);
    other.renew(false);
    expect([linkOf(one, token), linkOf(other, token)]).toEqual([LINK, LINK]);
    const later = tokenOf(one, LINK);
    expect(later.split(".")[0]).not.toBe(token.split(".")[0]);
    one.renew(true);
    expect([linkOf(other, token), linkOf(other, later)]).toEqual([undefined, undefined]);
    expect(other.standing.count).toBe(1);
  });

  it("are not signed with what is no key", () => {
    const file = fileOf();
    writeFileSync(file, '[{"id":"a","key":"short","madeAt":""}]');
    expect(() => new LinkKeys(file)).toThrow("holds no keys");
  });
});
