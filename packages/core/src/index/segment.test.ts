import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { IDS, smallSegment } from "../../testing/small-world.ts";
import { refOf } from "../place/index.ts";
import { SegmentBuilder } from "./builder.ts";
import { SegmentError } from "./container.ts";
import { NONE } from "./layout.ts";
import { Segment } from "./segment.ts";

const buffer = smallSegment();
const segment = new Segment(buffer);
const thing = (identity: number, country = "QR") => segment.resolve(refOf(country, identity))!.thing;

describe("a segment", () => {
  it("counts what went in", () => {
    expect(segment.meta.counts).toEqual({
      things: 23,
      areas: 11,
      postcodes: 3,
      streets: 6,
      places: 2,
      houses: 1,
      addresses: 18,
    });
    expect(segment.meta.sources[0].licence).toBe("CC0-1.0");
  });

  it("keeps names, the local one first, with their short forms", () => {
    expect(segment.namesOf(thing(IDS.block7, "QY"))).toEqual([
      { lang: "qth-Grek", name: "Τετράγωνο 7", abbr: "Τετρ. 7" },
      { lang: "qth-Latn", name: "Tetragono 7", abbr: "Tetr. 7" },
    ]);
  });

  it("knows what lies in what by comparing numbers", () => {
    expect(segment.isInside(thing(IDS.harbourRow), thing(IDS.tidewell))).toBe(true);
    expect(segment.isInside(thing(IDS.harbourRow), thing(IDS.sallow))).toBe(true);
    expect(segment.isInside(thing(IDS.harbourRow), thing(IDS.lorramere))).toBe(true);
    expect(segment.isInside(thing(IDS.harbourStreet), thing(IDS.sallow))).toBe(false);
    expect(segment.isInside(thing(IDS.tidewell), thing(IDS.harbourRow))).toBe(false);
  });

  it("keeps the addresses of a street together, sorted by number and what follows it", () => {
    const street = thing(IDS.harbourRow);
    const [from, to] = segment.addressesOf(street);
    const numbers = Array.from({ length: to - from }, (_, i) => {
      const { number, suffix } = segment.numberOf(from + i)!;
      return `${number}${suffix}`;
    });
    expect(numbers).toEqual(["1", "2", "10", "12", "12b", "14"]);
    for (let address = from; address < to; address++) expect(segment.streetOf(address)).toBe(street);
    expect(segment.seekNumber(street, 11)).toBe(from + 3);
    expect(segment.seekNumber(street, 99)).toBe(to);
  });

  it("finds the areas around a position, broad to narrow, holes left out", () => {
    const names = (lat: number, lon: number) =>
      segment.areasAt({ lat, lon }).map((area) => segment.namesOf(area)[0].name);
    expect(names(-35.83, -21.83)).toEqual(["Lorramere", "The Reaches", "Sallow", "Tidewell", "Old Quay"]);
    expect(names(-35.88, -21.88)).toEqual(["Lorramere", "The Reaches"]);
    expect(names(10, 10)).toEqual([]);
  });

  it("gives each street the postcode that most of its addresses carry, and each address its own", () => {
    const code = (postcode: number) => segment.namesOf(postcode)[0].name;
    const lane = thing(IDS.millLane);
    expect(code(segment.postcodeOf(thing(IDS.harbourRow)))).toBe("HT4 29");
    expect(code(segment.postcodeOf(lane))).toBe("HT4 29");
    const [from, to] = segment.addressesOf(lane);
    expect(code(segment.postcodeOf(lane, from))).toBe("HT4 29");
    expect(code(segment.postcodeOf(lane, to - 1))).toBe("HT9 29");
    const { postcodeStreet, streetOfPostcode } = segment.sections;
    expect([...streetOfPostcode.subarray(postcodeStreet[0], postcodeStreet[1])]).toContain(lane);
  });

  it("keeps the units of a building behind it, and the names of houses", () => {
    const lane = thing(IDS.millLane);
    const [from] = segment.addressesOf(lane);
    expect(segment.unitsOf(lane, from)).toEqual([from + 1, from + 4]);
    expect([1, 2, 3].map((i) => segment.detailOf(from + i).unit)).toEqual(["Flat 2", "Flat 3", "Flat 10"]);
    expect(segment.detailOf(from)).toEqual({});
    const house = segment.sections.houseAddress[0];
    expect(segment.detailOf(house).name).toBe("Rose Cottage");
    expect(segment.numberOf(house)).toBeUndefined();
    expect(segment.namesOf(segment.firstHouse)[0].name).toBe("Rose Cottage");
  });

  it("knows the streets and places inside an area as ranges", () => {
    for (const identity of [IDS.tidewell, IDS.marram, IDS.lorramere]) {
      const area = thing(identity);
      for (const [first, end, [from, to]] of [
        [segment.firstStreet, segment.firstPlace, segment.streetsInside(area)],
        [segment.firstPlace, segment.firstHouse, segment.placesInside(area)],
      ] as const) {
        for (let t = first; t < end; t++) expect(segment.isInside(t, area)).toBe(t >= from && t < to);
      }
    }
  });

  it("gives back every word of its dictionary", () => {
    const terms = Array.from({ length: segment.sections.termLength.length }, (_, i) => segment.term(i));
    expect(terms).toEqual([...terms].sort());
    expect(terms).toEqual(expect.arrayContaining(["harbour", "ht429", "tetragono", "cottage"]));
  });

  it("keeps suffixes that are too many for a byte", () => {
    const builder = new SegmentBuilder();
    const at = { lat: 0, lon: 0 };
    const names = [{ lang: "en", name: "Long Road" }];
    builder.addArea({ identity: 1, kind: "country", parent: null, code: "QR", names, at, importance: 1, rings: [] });
    builder.addStreet({ identity: 2, kind: "street", area: 1, names, at, importance: 0 });
    const suffixes = Array.from({ length: 400 }, (_, i) => `-${1000 + i}`);
    suffixes.forEach((suffix, i) => {
      builder.addAddress({ identity: 10 + i, street: 2, number: 7, suffix, postcode: null, at });
    });
    const built = new Segment(builder.finish({ name: "x", sources: [] }));
    expect(suffixes.map((_, i) => built.numberOf(i)!.suffix)).toEqual(suffixes);
  });

  it("resolves every ref that it gives, and no other", () => {
    for (let i = 0; i < segment.firstHouse; i++) expect(segment.resolve(segment.thingRef(i))).toEqual({ thing: i });
    for (let i = 0; i < segment.meta.counts.addresses; i++) {
      expect(segment.resolve(segment.addressRef(i))).toEqual({ thing: segment.streetOf(i), address: i });
    }
    expect(segment.resolve(refOf("QV", IDS.tidewell))).toBeUndefined();
    expect(segment.resolve(refOf("QR", 999_999))).toBeUndefined();
    expect(segment.resolve("no ref")).toBeUndefined();
  });

  it("keeps a place with its facts and the address it is at", () => {
    const library = thing(IDS.library);
    const [facts, address] = [segment.factsOf(library), segment.addressOfPlace(library)];
    expect(facts).toEqual({ phone: "+990 1 200 3000", stepFree: true });
    expect(segment.addressRef(address)).toBe(refOf("QR", IDS.firstAddress));
    expect(segment.addressOfPlace(thing(IDS.inn))).toBe(NONE);
  });

  it("is the same whatever order the records came in", () => {
    expect(new Uint8Array(smallSegment())).toEqual(new Uint8Array(buffer));
  });
});

describe("opening a segment", () => {
  it("works from memory that threads share", () => {
    const shared = new SharedArrayBuffer(buffer.byteLength);
    new Uint8Array(shared).set(new Uint8Array(buffer));
    expect(new Segment(shared).meta).toEqual(segment.meta);
  });

  it("refuses what is no segment", () => {
    expect(() => new Segment(new ArrayBuffer(8))).toThrow(SegmentError);
    expect(() => new Segment(new ArrayBuffer(4096))).toThrow("does not begin with");
  });

  it("refuses another format, and says which", () => {
    const copy = buffer.slice(0);
    new Uint32Array(copy)[1] = 99;
    expect(() => new Segment(copy)).toThrow("format 99");
  });

  it("refuses a file that was cut short", () => {
    expect(() => new Segment(buffer.slice(0, buffer.byteLength - 8))).toThrow("bytes long");
  });

  it("notices a single changed bit, wherever it is", () => {
    fc.assert(
      fc.property(fc.integer({ min: 32, max: buffer.byteLength - 1 }), fc.integer({ min: 0, max: 7 }), (byte, bit) => {
        const copy = buffer.slice(0);
        new Uint8Array(copy)[byte] ^= 1 << bit;
        expect(() => new Segment(copy)).toThrow("checksum differs");
      }),
    );
  });
});

describe("building a segment", () => {
  it("refuses an address whose street was never added", () => {
    const builder = new SegmentBuilder();
    builder.addAddress({ identity: 1, street: 7, number: 1, suffix: "", postcode: null, at: { lat: 0, lon: 0 } });
    expect(() => builder.finish({ name: "x", sources: [] })).toThrow("street 7, which was never added");
  });

  it("makes an empty segment of nothing", () => {
    const empty = new Segment(new SegmentBuilder().finish({ name: "empty", sources: [] }));
    expect(empty.meta.counts.things).toBe(0);
    expect(empty.areasAt({ lat: 0, lon: 0 })).toEqual([]);
    expect(empty.nearestAddresses({ lat: 0, lon: 0 }, 1000, 3)).toEqual([]);
    expect(empty.resolve(refOf("QR", 1))).toBeUndefined();
  });
});
