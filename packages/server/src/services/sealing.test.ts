import { randomBytes } from "node:crypto";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Sealing } from "./sealing.ts";

const bytes = fc.uint8Array({ maxLength: 60 });

describe("sealing", () => {
  it("opens what it sealed under the same name, and nothing that was changed or is another's", () => {
    const [one, other] = [new Sealing(randomBytes(32)), new Sealing(randomBytes(32))];
    const bit = fc.tuple(fc.nat(), fc.nat(7));
    fc.assert(
      fc.property(
        fc.string(),
        fc.string(),
        fc.string({ unit: "grapheme" }),
        bit,
        (name, otherName, text, [at, which]) => {
          const sealed = one.seal(name, text);
          expect(one.open(name, sealed)).toBe(text);
          expect(other.open(name, sealed)).toBeUndefined();
          if (otherName !== name) expect(one.open(otherName, sealed)).toBeUndefined();
          const changed = Buffer.from(sealed);
          changed[at % changed.length] ^= 1 << which;
          expect(one.open(name, changed)).toBeUndefined();
          expect(one.open(name, sealed.subarray(0, at % sealed.length))).toBeUndefined();
          // the same text is never sealed alike
          expect(one.seal(name, text).equals(sealed)).toBe(false);
        },
      ),
    );
  });

  it("knows what it signed for a purpose, and nothing else", () => {
    const [one, other] = [new Sealing(randomBytes(32)), new Sealing(randomBytes(32))];
    fc.assert(
      fc.property(fc.string(), fc.string(), bytes, bytes, (purpose, another, body, otherBody) => {
        const signature = one.sign(purpose, body);
        expect(one.isSigned(purpose, body, signature)).toBe(true);
        expect(other.isSigned(purpose, body, signature)).toBe(false);
        if (another !== purpose) expect(one.isSigned(another, body, signature)).toBe(false);
        if (Buffer.compare(body, otherBody)) expect(one.isSigned(purpose, otherBody, signature)).toBe(false);
        expect(one.isSigned(purpose, body, otherBody)).toBe(false);
        expect(one.isSigned(purpose, body, signature.subarray(1))).toBe(false);
      }),
    );
  });
});
