import { describe, expect, it } from "vitest";
import { Segment, SegmentBuilder } from "../index/index.ts";
import { parseHouseNumber } from "../place/index.ts";
import { findBetween, findNumber, numbersStarting } from "./numbers.ts";

const HOUSES: [number, string][] = [
  [1, ""],
  [2, ""],
  [3, "-5"],
  [8, ""],
  [8, "b"],
  [12, "-15"],
  [20, "a"],
  [22, "/3"],
];

function streetOf(houses: readonly (readonly [number, string])[]): Segment {
  const builder = new SegmentBuilder();
  const names = [{ lang: "en", name: "Long Lane" }];
  const at = { lat: 0, lon: 0 };
  builder.addArea({ identity: 1, kind: "country", parent: null, code: "QR", names, at, importance: 1, rings: [] });
  builder.addStreet({ identity: 2, kind: "street", area: 1, names, at, importance: 0 });
  houses.forEach(([number, suffix], i) => {
    builder.addAddress({
      identity: 10 + i,
      street: 2,
      number,
      suffix,
      postcode: null,
      at: { lat: number / 1000, lon: 0 },
    });
  });
  return new Segment(builder.finish({ name: "x", sources: [] }));
}

const segment = streetOf(HOUSES);
const written = (address: number) => {
  const { number, suffix } = segment.numberOf(address)!;
  return `${number}${suffix}`;
};

describe("findNumber", () => {
  it.each([
    ["1", "1", "same"],
    ["8b", "8b", "same"],
    ["8", "8", "same"],
    ["8c", "8", "nearby"],
    ["3", "3-5", "same"],
    ["3-5", "3-5", "same"],
    ["5", "3-5", "same"],
    ["13", "12-15", "same"],
    ["14", "12-15", "same"],
    ["20", "20a", "nearby"],
    ["22/3", "22/3", "same"],
    ["22/4", "22/3", "nearby"],
  ])("finds for %s the house %s (%s)", (typed, found, how) => {
    const match = findNumber(segment, segment.firstStreet, parseHouseNumber(typed)!);
    expect(match && { house: written(match.address), how: match.how }).toEqual({ house: found, how });
  });

  it.each(["4", "6", "16", "99", "65000"])("finds nothing for %s", (typed) => {
    expect(findNumber(segment, segment.firstStreet, parseHouseNumber(typed)!)).toBeUndefined();
  });
});

describe("findBetween", () => {
  it("takes the neighbours of the number's own side, and how far between them it lies", () => {
    const found = findBetween(segment, segment.firstStreet, 6)!;
    expect([written(found.lower), written(found.upper), found.share]).toEqual(["2", "8", 4 / 6]);
  });

  it("finds nothing beyond the last house, before the first, or in too wide a gap", () => {
    expect(findBetween(segment, segment.firstStreet, 24)).toBeUndefined();
    expect(findBetween(segment, segment.firstStreet, 7)).toBeUndefined();
    const wide = streetOf([
      [2, ""],
      [200, ""],
    ]);
    expect(findBetween(wide, wide.firstStreet, 100)).toBeUndefined();
  });
});

describe("numbersStarting", () => {
  it("lists the numbers that begin with some digits, in order", () => {
    const street = segment.firstStreet;
    expect(numbersStarting(segment, street, "2", 9).map(written)).toEqual(["2", "20a", "22/3"]);
    expect(numbersStarting(segment, street, "", 3).map(written)).toEqual(["1", "2", "3-5"]);
  });
});
