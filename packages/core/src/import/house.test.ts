import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatHouseNumber, parseHouseNumber } from "../place/index.ts";
import { readHouse } from "./house.ts";

/** As tables have it: what they hold, and its number, or its flat behind a bar, or what else the house is called. */
const HELD: readonly (readonly [held: string, number: string, unit?: string])[] = [
  ...["12–14", "12 to 14", "12 bis 14", "12 au 14", "12 & 14", "12,14", "12 y 14", "12 - 14"].map(
    (held) => [held, "12-14"] as const,
  ),
  ...["12a-c", "12A-12C", "12 a – c"].map((held) => [held, "12a-c"] as const),
  ...["12.", "No. 12", "n.º 12", "Nr 12", "0012", "12.0", "№ 12"].map((held) => [held, "12"] as const),
  ...["S/N", "s/n", "sin número", "SN", "0", "", "б/н", "snc"].map((held) => [held, "–"] as const),
  ["12½", "121/2"],
  ["12.A", "12a"],
  ["12 (Hinterhaus)", "12", "Hinterhaus"],
  ["12 Haus 2", "12", "Haus 2"],
  ["12, 2. OG", "12", "2. OG"],
  ["12 apt 4", "12", "apt 4"],
  ["12 #4", "12", "#4"],
  ["12к2", "12", "к2"],
  ["12 корп. 2", "12", "корп. 2"],
  ["7/2/14", "7", "2/14"],
];

describe("a house's number in a table", () => {
  it("is read with what is around it", () => {
    const seen = HELD.map(([held]) => {
      const { house, unit, name } = readHouse(held);
      return [held, house ? `${house.number}${house.suffix}` : (name ?? "–"), unit];
    });
    expect(seen).toEqual(HELD.map(([held, number, unit]) => [held, number, unit]));
  });

  it("is none where a house has a name", () => {
    for (const name of ["km 12", "Lote 4", "Rose Cottage", "B4", "12th", "1234567"])
      expect(readHouse(name)).toEqual({ name });
  });

  it("is what it is, however a country writes it", () => {
    const number = fc.record({
      number: fc.integer({ min: 1, max: 9999 }),
      suffix: fc.constantFrom("", "a", "-14", "/3", "bis", "a-c", "1/2"),
    });
    fc.assert(
      fc.property(number, fc.constantFrom("before" as const, "after" as const), (one, stands) => {
        const written = formatHouseNumber(one, stands);
        expect(parseHouseNumber(written)).toEqual(one);
        expect(readHouse(written).house).toEqual(one);
      }),
    );
  });
});
