import { createHash } from "node:crypto";
import { boxContains, type Ring, ringsContain } from "@bibliotope/core/geo";
import { geodesic } from "@bibliotope/core/geodesic";
import { COVERS } from "@bibliotope/core/map";
import { profileOf } from "@bibliotope/core/place";
import { describe, expect, it } from "vitest";
import { islands, islandsEngine } from "../testing/islands.ts";
import { generateIslands, type World } from "./index.ts";

const world = islands;
const byKey = <T extends { key: string }>(list: readonly T[]) => new Map(list.map((item) => [item.key, item]));
const areas = byKey(world.areas);
const streets = byKey(world.streets);
const of = (code: string) => world.addresses.filter(({ country }) => country === code);

/** A digest of everything in a world. */
function digest(it: World): string {
  const hash = createHash("sha256");
  for (const list of Object.values({ ...it, grids: [] })) for (const item of list) hash.update(JSON.stringify(item));
  for (const { metres, ...grid } of it.grids) {
    hash.update(JSON.stringify(grid));
    hash.update(metres);
  }
  return hash.digest("hex").slice(0, 32);
}

describe("the islands", () => {
  it("are the same for the same seed, byte for byte", () => {
    // a change of the generator is a new world: raise WORLD_VERSION and note the new digest here
    expect(digest(world)).toBe("d8dc55a3edc8078f66fa79991f1bdc5e");
    if (process.env.BIBLIOTOPE_LONG) expect(digest(generateIslands())).toBe(digest(world));
  });

  it("are another world for another seed", { tags: ["long"] }, () => {
    expect(digest(generateIslands(2))).not.toBe(digest(world));
  });

  it("hold what the demo needs", () => {
    expect(world.addresses.length).toBeGreaterThan(50_000);
    expect(world.streets.length).toBeGreaterThan(3500);
    expect(world.areas.filter(({ kind }) => kind === "town").length).toBeGreaterThanOrEqual(60);
    expect(world.places.length).toBeGreaterThan(2000);
    for (const code of ["QR", "QV", "QY"]) expect(of(code).length).toBeGreaterThan(8000);
  });

  it("have keys of which none comes twice", () => {
    const keys = [world.areas, world.postcodes, world.streets, world.addresses, world.places].flatMap((list) =>
      list.map(({ key }) => key),
    );
    expect(new Set(keys).size).toBe(keys.length);
  });

  it("have nothing that points to nothing", () => {
    const postcodes = byKey(world.postcodes);
    const addresses = byKey(world.addresses);
    for (const area of world.areas) if (area.parent !== null) expect(areas.has(area.parent)).toBe(true);
    for (const street of world.streets) expect(areas.has(street.area)).toBe(true);
    for (const address of world.addresses) {
      expect(streets.has(address.street)).toBe(true);
      if (address.postcode !== null) expect(postcodes.has(address.postcode)).toBe(true);
    }
    for (const place of world.places) if (place.address !== null) expect(addresses.has(place.address)).toBe(true);
  });

  it("have ground to be drawn: covers, single fields, steps of ten metres, tops, lakes and railways on every island", () => {
    const island = (lat: number, lon: number) =>
      ["QR", "QV", "QY"].findIndex((code) => {
        const [west, south, east, north] = areas
          .get(code)!
          .rings.flat()
          .reduce(
            ([w, s, e, n], [x, y]) => [Math.min(w, x), Math.min(s, y), Math.max(e, x), Math.max(n, y)],
            [180, 90, -180, -90],
          );
        return lon >= west && lon <= east && lat >= south && lat <= north;
      });
    const of = (layer: string, what?: string) =>
      world.features.filter((feature) => feature.layer === layer && (!what || feature.properties.what === what));
    for (const cover of COVERS) expect(of("cover", cover).length, cover).toBeGreaterThan(0);
    const heights = new Set(of("contour").map(({ properties }) => properties.height as number));
    expect([...heights].every((height) => height % 10 === 0)).toBe(true);
    expect(heights.size).toBeGreaterThan(60);
    expect(of("name", "peak").length).toBeGreaterThan(10);
    expect(of("water").length).toBeGreaterThan(0);
    const railways = of("railway").map(({ geometry }) => (geometry.coordinates as [number, number][])[0]);
    expect(new Set(railways.map(([lon, lat]) => island(lat, lon))).size).toBeGreaterThan(1);
  });

  it("have no house in a lake", () => {
    const lakes = world.features.filter(({ layer }) => layer === "water");
    for (const { geometry } of lakes) {
      const rings = geometry.coordinates as Ring[];
      expect(world.addresses.filter(({ at }) => ringsContain(rings, at))).toEqual([]);
    }
  });

  it("lie in the empty South Atlantic", () => {
    const elsewhere = world.addresses.filter(({ at }) => !boxContains([-26, -38, -18, -33], at));
    expect(elsewhere).toEqual([]);
  });
});

describe("areas", () => {
  it("lie in the area that is around them", () => {
    const wrong = world.areas.filter(
      ({ parent, at, kind }) => kind === "town" && parent !== null && !ringsContain(areas.get(parent)!.rings, at),
    );
    expect(wrong.map(({ key }) => key)).toEqual([]);
  });

  it("hold nearly all of their own addresses", () => {
    const sample = world.addresses.filter((_, i) => i % 50 === 0);
    const known = sample.filter(({ street, at }) => {
      let area = areas.get(streets.get(street)!.area)!;
      if (area.kind === "district") area = areas.get(area.parent!)!;
      return ringsContain(area.rings, at);
    });
    expect(known.length / sample.length).toBeGreaterThan(0.97);
  });

  it("have closed rings", () => {
    for (const { rings } of world.areas) for (const ring of rings) expect(ring[0]).toEqual(ring.at(-1));
  });
});

describe("streets and numbers", () => {
  it("stand close to each other: neighbours in number are neighbours on the ground", () => {
    const numbers = new Map<string, typeof world.addresses>();
    for (const address of world.addresses)
      numbers.set(address.street, [...(numbers.get(address.street) ?? []), address]);
    const gaps: number[] = [];
    for (const list of [...numbers.values()].filter((_, i) => i % 20 === 0)) {
      const numbered = list.flatMap(({ number, unit, at }) => (number === null || unit ? [] : [{ number, at }]));
      const odd = numbered.filter(({ number }) => number % 2 === 1).sort((a, b) => a.number - b.number);
      for (let i = 1; i < odd.length; i++)
        if (odd[i].number - odd[i - 1].number <= 2) gaps.push(geodesic(odd[i - 1].at, odd[i].at).metres);
    }
    gaps.sort((a, b) => a - b);
    expect(gaps[Math.floor(gaps.length / 2)]).toBeLessThan(80);
  });

  it("are more than numbers in Lorramere: two houses in one, flats, names", () => {
    const houses = of("QR");
    const share = (is: (address: World["addresses"][number]) => unknown) => houses.filter(is).length / houses.length;
    expect(share(({ suffix }) => /^-\d+$/.test(suffix))).toBeGreaterThan(0.01);
    expect(share(({ unit }) => unit)).toBeGreaterThan(0.05);
    expect(share(({ name }) => name)).toBeGreaterThan(0.01);
    const nameless = houses.filter(({ number, name }) => number === null && !name);
    expect(nameless).toEqual([]);
    for (const { suffix, number } of houses)
      if (suffix.startsWith("-")) expect(Number(suffix.slice(1))).toBe(number! + 2);
    expect([...of("QV"), ...of("QY")].some(({ unit, name }) => unit || name)).toBe(false);
  });

  it("have a range only where the number in it is no house of its own", () => {
    const known = new Set(of("QR").map(({ street, number, suffix }) => `${street} ${number}${suffix}`));
    const twice = of("QR").filter(
      ({ street, suffix }) => known.has(`${street} ${suffix.slice(1)}`) && suffix.startsWith("-"),
    );
    expect(twice).toEqual([]);
  });

  it("recur in many towns, as they do in life", () => {
    const towns = new Map<string, number>();
    for (const { names, country } of world.streets)
      if (country === "QR") towns.set(names[0].name, (towns.get(names[0].name) ?? 0) + 1);
    expect(Math.max(...towns.values())).toBeGreaterThan(8);
  });

  it("have numbers that skip, and numbers with a letter or a fraction", () => {
    expect(of("QR").some(({ suffix }) => suffix === "b")).toBe(true);
    expect(of("QV").some(({ suffix }) => suffix.startsWith("/"))).toBe(true);
  });

  it("are blocks and buildings in Thalmyra, named in Greek letters with Latin beside", () => {
    const blocks = world.streets.filter(({ country }) => country === "QY");
    expect(blocks.every(({ kind }) => kind === "block")).toBe(true);
    expect(blocks[0].names.map(({ lang }) => lang)).toEqual(["qth-Grek", "qth-Latn"]);
    expect(blocks[0].names[0].name).toMatch(/^\p{Script=Greek}+ \d+$/u);
  });
});

describe("postcodes", () => {
  it.each(["QR", "QV", "QY"])("of %s have the shape that the profile says", (code) => {
    const shape = new RegExp(profileOf(code).postcode!.shape, "u");
    for (const { code: postcode } of world.postcodes.filter(({ country }) => country === code))
      expect(postcode).toMatch(shape);
  });

  it("are there in the south of Thalmyra, and not in its north", () => {
    const with_ = of("QY").filter(({ postcode }) => postcode !== null);
    const without = of("QY").filter(({ postcode }) => postcode === null);
    const mean = (list: typeof with_) => list.reduce((sum, { at }) => sum + at.lat, 0) / list.length;
    expect(with_.length).toBeGreaterThan(100);
    expect(without.length).toBeGreaterThan(100);
    expect(mean(without)).toBeGreaterThan(mean(with_));
  });
});

describe("places", () => {
  it("have made-up web addresses and phone numbers only", () => {
    for (const { facts } of world.places) {
      if (facts.url) expect(new URL(facts.url).hostname).toMatch(/\.example$/);
      if (facts.phone) expect(facts.phone).toMatch(/^\+990 /);
    }
  });

  it("lack some facts, as they do in life", () => {
    expect(world.places.some(({ facts }) => facts.phone === undefined)).toBe(true);
    expect(world.places.some(({ facts }) => facts.openingHours !== undefined)).toBe(true);
  });
});

describe("the map's features", () => {
  it("show every layer", () => {
    const layers = new Set(world.features.map(({ layer }) => layer));
    for (const layer of ["land", "river", "contour", "boundary", "street", "building", "park", "ferry", "name"])
      expect(layers).toContain(layer);
  });

  it("draw borders on land only, not along the coast", () => {
    const land = world.features
      .filter(({ layer }) => layer === "land")
      .flatMap(({ geometry }) => (geometry.type === "Polygon" ? [geometry.coordinates] : []));
    const points = world.features
      .filter(({ layer }) => layer === "boundary")
      .flatMap(({ geometry }) => (geometry.type === "LineString" ? geometry.coordinates : []));
    const dry = points.filter(([lon, lat]) => land.some((rings) => ringsContain(rings, { lat, lon })));
    expect(dry.length / points.length).toBeGreaterThan(0.97);
  });
});

describe("looking the islands up", () => {
  const engine = islandsEngine;

  it("finds the first words that anybody types", () => {
    const { suggestions } = engine.suggest({ q: "12 harb" });
    expect(suggestions[0]).toMatchObject({
      kind: "address",
      line: "12 Harbour Row, Tidewell",
      within: "Sallow, Lorramere",
    });
  });

  it("finds nearly every address by its own line", () => {
    const sample = world.addresses.filter((_, i) => i % 300 === 0);
    const keyOf = (at: { lat: number; lon: number }) => `${at.lat} ${at.lon}`;
    const found = sample.filter((address) => {
      const record = engine.reverse({ at: address.at }).candidates[0];
      const { candidates } = engine.forward({ q: record.line });
      return candidates.some(({ at }) => keyOf(at) === keyOf(address.at));
    });
    expect(found.length / sample.length).toBeGreaterThan(0.97);
  });

  it("takes no street for another one of its kind, of which little more than the kind was written", () => {
    // Vårhamn has an Østergränd
    expect(engine.forward({ q: "Storgränd 3, Vårhamn" }).outcome).toBe("differs");
    expect(engine.forward({ q: "Østrgränd 3, Vårhamn" }).candidates[0].line).toContain("Østergränd 3");
  });

  it("finds the address that stands at a position", () => {
    for (const { at } of world.addresses.filter((_, i) => i % 1000 === 0)) {
      expect(engine.reverse({ at }).candidates[0]).toMatchObject({ kind: "address", distance: 0 });
    }
  });
});
