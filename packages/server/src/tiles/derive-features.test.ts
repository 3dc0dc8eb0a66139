import { type Ring, ringsContain } from "@bibliotope/core/geo";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { landOutline } from "../world/outlines.ts";
import { deriveFeatures, type Gazetteer } from "./derive-features.ts";

const name = (text: string) => [{ lang: "en", name: text }];
const street = (identity: number, more = {}): Gazetteer["streets"][number] => ({
  identity,
  country: "QR",
  kind: "street",
  names: [{ ...name("Mill Lane")[0], written: "MILL LANE" }],
  ...more,
});
/** Houses in two rows on the street that runs east, in the order of no map. */
const rows = (of: number, count: number, from = 0) =>
  Array.from({ length: count }, (_, i) => {
    const place = (i * 7) % count;
    return { street: of, at: { lat: -35 + (place % 2 ? 0.0002 : 0), lon: -21 + from + place * 0.0002 } };
  });
const made = (gazetteer: Partial<Gazetteer>) =>
  deriveFeatures({ areas: [], streets: [], addresses: [], places: [], ...gazetteer });
const layer = (features: ReturnType<typeof made>, which: string) =>
  features.filter(({ properties }) => properties.layer === which);

const ringsOfPolygon = ({ geometry }: ReturnType<typeof made>[number]) => geometry.coordinates as Ring[];

describe("deriveFeatures", () => {
  it("draws a street through its houses, along its long side, between the two rows", () => {
    const [line] = layer(made({ streets: [street(1)], addresses: rows(1, 20) }), "street");
    expect(line.properties.names).toEqual(name("Mill Lane"));
    expect(line.id).toMatch(/^qr-/);
    const { coordinates } = line.geometry as { coordinates: [number, number][][] };
    expect(coordinates.length).toBe(1);
    const lons = coordinates[0].map(([lon]) => lon);
    const isRising = lons.every((lon, i) => i === 0 || lon >= lons[i - 1]);
    const isFalling = lons.every((lon, i) => i === 0 || lon <= lons[i - 1]);
    expect(isRising || isFalling).toBe(true);
    for (const [, lat] of coordinates[0].slice(1, -1)) expect(lat).toBeCloseTo(-34.9999, 6);
  });

  it("breaks a street where there are no houses for long", () => {
    const addresses = [...rows(1, 12), ...rows(1, 12, 0.05)];
    const [line] = layer(made({ streets: [street(1)], addresses }), "street");
    expect((line.geometry as { coordinates: unknown[] }).coordinates.length).toBe(2);
  });

  it("has a point for every address, a lone one and those of a block too", () => {
    const features = made({
      streets: [street(1), street(2, { kind: "block" }), street(3)],
      addresses: [{ street: 1, at: { lat: 1, lon: 2 } }, ...rows(2, 6)],
    });
    expect(layer(features, "street")).toEqual([]);
    expect(layer(features, "point").map(({ geometry }) => geometry.coordinates.length)).toEqual([1, 6]);
  });

  it("names towns, the important ones large; draws no outline that was made around what is known", () => {
    const area = (kind: "town" | "region", identity: number): Gazetteer["areas"][number] => ({
      identity,
      country: "QR",
      kind,
      names: name(`${kind} ${identity}`),
      at: { lat: 0, lon: 0 },
      importance: identity / 100,
    });
    const towns = Array.from({ length: 40 }, (_, i) => area("town", i + 2));
    const features = made({ areas: [area("region", 1), ...towns] });
    expect(layer(features, "boundary")).toEqual([]);
    const named = layer(features, "name").map(({ properties: { rank, names } }) => [names?.[0].name, rank]);
    expect(named.length).toBe(40);
    expect(Object.fromEntries(named)).toMatchObject({
      "town 41": 1,
      "town 40": 1,
      "town 39": 2,
      "town 30": 3,
      "town 2": 4,
    });
  });

  it("tints a town where its houses stand close, and nothing around a lone farm", () => {
    const town = rows(1, 60);
    const farm = { street: 2, at: { lat: -35.2, lon: -21 } };
    const extents = layer(made({ streets: [street(1)], addresses: [...town, farm] }), "town").map(ringsOfPolygon);
    expect(extents.length).toBeGreaterThan(0);
    const isTinted = (at: { lat: number; lon: number }) => extents.some((rings) => ringsContain(rings, at));
    expect(town.filter(({ at }) => isTinted(at)).length).toBeGreaterThan(town.length * 0.9);
    expect(isTinted(farm.at)).toBe(false);
  });

  it("lays land under whatever the world's outlines have in the sea, or by it, and under nothing else", () => {
    const inland = { lat: 48.2, lon: 10.4 };
    const spot = fc.oneof(
      fc.record({
        lat: fc.double({ min: -60, max: 70, noNaN: true }),
        lon: fc.double({ min: -179, max: 179, noNaN: true }),
      }),
      // in an ocean, by a coast
      fc.constantFrom({ lat: -35, lon: -21 }, { lat: 54.18, lon: 7.89 }),
    );
    fc.assert(
      fc.property(spot, (at) => {
        const land = layer(made({ streets: [street(1)], addresses: [{ street: 1, at }] }), "land").map(ringsOfPolygon);
        const stands = landOutline().contains(at) || land.some((rings) => ringsContain(rings, at));
        expect(stands).toBe(true);
      }),
    );
    expect(layer(made({ addresses: [{ street: 1, at: inland }] }), "land")).toEqual([]);
  });

  it("makes nothing of houses that all stand on one spot", () => {
    const at = { lat: -35, lon: -21 };
    const features = made({
      streets: [street(1)],
      addresses: [
        { street: 1, at },
        { street: 1, at },
      ],
    });
    expect(layer(features, "street")).toEqual([]);
  });
});
