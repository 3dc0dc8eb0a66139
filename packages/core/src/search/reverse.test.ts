import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { IDS, smallWorld } from "../../testing/small-world.ts";
import type { Position } from "../geo/index.ts";
import { geodesic } from "../geodesic/index.ts";
import { Segment, SegmentBuilder } from "../index/index.ts";
import { refOf } from "../place/index.ts";
import { Engine } from "./index.ts";

const engine = smallWorld();

describe("reverse", () => {
  it("gives the nearest address, then the areas around, from exact to broad", () => {
    const { outcome, candidates } = engine.reverse({ at: { lat: -35.82941, lon: -21.83 } });
    expect(outcome).toBe("matched");
    expect(candidates.map(({ kind }) => kind)).toEqual(["address", "district", "town", "county", "region", "country"]);
    expect(candidates[0]).toMatchObject({ line: "12 Harbour Row, Tidewell, Sallow, HT4 29" });
    expect(candidates[0].distance).toBeCloseTo(1.1, 1);
    expect(candidates[0].bearing).toBeCloseTo(0, 0);
    expect(candidates.slice(1).every(({ distance }) => distance === 0)).toBe(true);
  });

  it("names areas with what lies around them", () => {
    const { candidates } = engine.reverse({ at: { lat: -35.83, lon: -21.83 } });
    expect(candidates.map(({ line }) => line).slice(1)).toEqual([
      "Old Quay, Tidewell, Lorramere",
      "Tidewell, Sallow, Lorramere",
      "Sallow, The Reaches, Lorramere",
      "The Reaches, Lorramere",
      "Lorramere",
    ]);
    expect(candidates[2].box).toEqual([-21.85, -35.85, -21.75, -35.75]);
  });

  it("has no bearing on the very spot", () => {
    const [address] = engine.reverse({ at: { lat: -35.83, lon: -21.83 } }).candidates;
    expect(address.distance).toBe(0);
    expect(address).not.toHaveProperty("bearing");
  });

  it("leaves the address out when none lies within the radius", () => {
    const far = { lat: -35.81, lon: -21.81 };
    expect(engine.reverse({ at: far }).candidates[0].kind).toBe("town");
    expect(engine.reverse({ at: far, radius: 5000 }).candidates[0].kind).toBe("address");
  });

  it("says so when nothing is known there, and notices swapped coordinates", () => {
    expect(engine.reverse({ at: { lat: 50, lon: 10 } })).toMatchObject({ outcome: "none", candidates: [] });
    const { advice } = engine.reverse({ at: { lat: -21.83, lon: -35.83 } });
    expect(advice[0]).toContain("were latitude and longitude swapped");
    expect(advice[0]).toContain("-35.83,-21.83");
  });

  it("narrows like every lookup", () => {
    const at = { lat: -35.83, lon: -21.83 };
    expect(engine.reverse({ at, kinds: ["town"] }).candidates.map(({ kind }) => kind)).toEqual(["town"]);
    expect(engine.reverse({ at, limit: 2 }).candidates).toHaveLength(2);
    expect(engine.reverse({ at, countries: ["QY"] }).candidates).toEqual([]);
  });

  it("gives the nearest place, as near as an address, where places are requested", () => {
    const at = { lat: -35.83, lon: -21.83 };
    expect(engine.reverse({ at, radius: 5000 }).candidates.map(({ kind }) => kind)).not.toContain("place");
    const both = engine.reverse({ at, radius: 5000, kinds: ["address", "place"] }).candidates;
    expect(both.map(({ kind }) => kind)).toEqual(["address", "place"]);
    expect(both[0].distance).toBeLessThanOrEqual(both[1].distance);
    const [place] = engine.reverse({ at: both[1].at, kinds: ["place"] }).candidates;
    expect(place).toMatchObject({ kind: "place", ref: both[1].ref, distance: 0, facts: expect.anything() });
    expect(place.line).toBe("Tidewell Branch Library, 1 Harbour Row, Tidewell, Sallow, HT4 29");
    expect(place.lines.slice(0, 2)).toEqual(["Tidewell Branch Library", "1 Harbour Row"]);
    expect(engine.reverse({ at: both[1].at, kinds: ["place"], countries: ["QY"] }).candidates).toEqual([]);
  });

  it("answers in the language that was requested", () => {
    const at = { lat: -36.6, lon: -22.6 };
    expect(engine.reverse({ at }).candidates[0].line).toBe("Μεσαία, Πελανία ΘΑ-123, Άνω Λίμνα, Τετράγωνο 7, 1");
    expect(engine.reverse({ at, langs: ["qth-Latn"] }).candidates[0].line).toContain("Pelania");
    expect(engine.reverse({ at }).candidates.at(-1)!.line).toBe("Θαλμύρα");
  });
});

describe("record", () => {
  it("gives what a ref stands for", () => {
    expect(engine.record(refOf("QR", IDS.tidewell))).toMatchObject({
      kind: "town",
      line: "Tidewell, Sallow, Lorramere",
    });
    expect(engine.record(refOf("QR", IDS.firstAddress))).toMatchObject({
      kind: "address",
      line: "1 Harbour Row, Tidewell, Sallow, HT4 29",
    });
    expect(engine.record(refOf("QR", IDS.ht429))).toMatchObject({
      kind: "postcode",
      line: "HT4 29, Tidewell, Lorramere",
    });
    expect(engine.record("qr-zzzzzz")).toBeUndefined();
  });

  it("agrees with the line that was suggested, for every suggestion", () => {
    for (const q of ["12 harb", "tide", "ht4", "pelan", "library", "mill"]) {
      for (const { ref, kind, at } of engine.suggest({ q }).suggestions)
        expect(engine.record(ref)).toMatchObject({ ref, kind, at });
    }
  });
});

describe("reverse over any addresses", () => {
  /** A country cut at the 180th meridian, as GeoJSON wants it, with one street of addresses anywhere. */
  function engineOf(spots: readonly Position[], [south, north]: readonly [number, number]): Engine {
    const builder = new SegmentBuilder();
    const side = (west: number, east: number): [number, number][] => [
      [west, south],
      [east, south],
      [east, north],
      [west, north],
    ];
    const names = [{ lang: "en", name: "Meridia" }];
    const common = { names, at: { lat: south, lon: 180 }, importance: 1 };
    builder.addArea({
      ...common,
      identity: 1,
      kind: "country",
      parent: null,
      code: "QR",
      rings: [side(179, 180), side(-180, -179)],
    });
    builder.addStreet({ ...common, identity: 2, kind: "street", area: 1 });
    spots.forEach((at, i) => {
      builder.addAddress({ identity: 10 + i, street: 2, number: i + 1, suffix: "", postcode: null, at });
      const name = [{ lang: "en", name: `Place ${i + 1}` }];
      builder.addPlace({ identity: 1000 + i, names: name, at, importance: 0, area: 1, address: null, facts: {} });
    });
    return new Engine(new Segment(builder.finish({ name: "meridia", sources: [] })));
  }

  const around = (south: number, north: number) =>
    fc.record({
      lat: fc.double({ min: south, max: north, noNaN: true }),
      lon: fc.double({ min: -0.4, max: 0.4, noNaN: true }).map((off) => (off < 0 ? 180 + off : off - 180)),
    });
  const rounded = ({ lat, lon }: Position) => ({ lat: Math.round(lat * 1e7) / 1e7, lon: Math.round(lon * 1e7) / 1e7 });

  it.each([
    ["at the equator", -0.3, 0.3],
    ["in the middle latitudes", -37.2, -36.8],
    ["near the pole", 89.5, 89.99],
  ])("finds the nearest by true distance across the 180th meridian, %s", (_, south, north) => {
    const spots = fc.array(around(south, north), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(spots, around(south, north), fc.integer({ min: 50, max: 60_000 }), (drawn, at, radius) => {
        const all = drawn.map(rounded);
        const metres = all.map((spot) => geodesic(at, spot).metres);
        const least = Math.min(...metres);
        const made = engineOf(all, [south - 1, north]);
        const address = made.reverse({ at, radius }).candidates.find(({ kind }) => kind === "address");
        const [place] = made.reverse({ at, radius, kinds: ["place"] }).candidates;
        for (const found of [address, place]) {
          if (least > radius) expect(found).toBeUndefined();
          else expect(found!.distance).toBeCloseTo(least, 0);
        }
        if (address) expect(metres[Number(address.parts.house!.name) - 1] - least).toBeLessThan(1e-6);
        if (place) expect(metres[Number(place.parts.place!.name.slice(6)) - 1] - least).toBeLessThan(1e-6);
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 200 : 100 },
    );
  });

  it("knows which side of the 180th meridian an area lies on, and its box", () => {
    const made = engineOf([], [-37, -36]);
    for (const lon of [179.5, -179.5, 180, -180])
      expect(made.reverse({ at: { lat: -36.5, lon } }).candidates[0]).toMatchObject({
        line: "Meridia",
        box: [179, -37, -179, -36],
      });
    for (const lon of [178.9, -178.9, 0]) expect(made.reverse({ at: { lat: -36.5, lon } }).outcome).toBe("none");
  });
});
