import { describe, expect, it } from "vitest";
import { deriveFeatures, type Gazetteer } from "./derive-features.ts";

const name = (text: string) => [{ lang: "en", name: text }];
const street = (identity: number, more = {}): Gazetteer["streets"][number] => ({
  identity,
  country: "QR",
  kind: "street",
  names: name("Mill Lane"),
  ...more,
});
/** Houses in two rows along a street that runs east, in the order of no map. */
const rows = (of: number, count: number, from = 0) =>
  Array.from({ length: count }, (_, i) => {
    const place = (i * 7) % count;
    return { street: of, at: { lat: -35 + (place % 2 ? 0.0002 : 0), lon: -21 + from + place * 0.0002 } };
  });
const made = (gazetteer: Partial<Gazetteer>) => deriveFeatures({ areas: [], streets: [], addresses: [], ...gazetteer });
const layer = (features: ReturnType<typeof made>, which: string) =>
  features.filter(({ properties }) => properties.layer === which);

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

  it("outlines areas, and names towns", () => {
    const area = (kind: "town" | "region", identity: number): Gazetteer["areas"][number] => ({
      identity,
      country: "QR",
      kind,
      names: name(kind),
      at: { lat: 0, lon: 0 },
      rings: [
        [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 0],
        ],
      ],
    });
    const features = made({ areas: [area("region", 1), area("town", 2)] });
    expect(layer(features, "boundary").map(({ properties }) => properties.rank)).toEqual([1, 2]);
    expect(layer(features, "name").map(({ properties }) => properties.names?.[0].name)).toEqual(["town"]);
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
