import { type Correction, Segment } from "@bibliotope/core/index";
import { type MapFeature, TileCutter } from "@bibliotope/core/map";
import { refOf } from "@bibliotope/core/place";
import { describe, expect, it } from "vitest";
import { IDS, smallSegment } from "../../../core/testing/small-world.ts";
import { correctedEngine } from "../corrections/corrected.ts";
import { amend, amendsOf } from "./amends.ts";
import { streetFeatures } from "./derive-features.ts";

const segment = new Segment(smallSegment());
const { thing: street } = segment.find(IDS.harbourRow)!;
const [from, to] = segment.addressesOf(street);
const houses = Array.from({ length: to - from }, (_, i): [number, number] => {
  const { lat, lon } = segment.addressPosition(from + i);
  return [lon, lat];
});
const ROW = refOf("QR", IDS.harbourRow);
const INN = refOf("QR", IDS.inn);
const AT = { lat: -35.8333, lon: -21.8111 };

const amends = (...corrections: Correction[]) =>
  amendsOf(
    segment,
    correctedEngine(segment, corrections).layers.map((layer) => layer.segment),
    corrections,
  );
const names = segment.namesOf(street);
/** A map that was made of the addresses. */
const derived = (): MapFeature[] => streetFeatures({ id: ROW, kind: "street", names }, houses);
/** A map that was imported: lines, buildings, a sign. */
const imported = (): MapFeature[] => [
  {
    type: "Feature",
    id: ROW,
    geometry: { type: "LineString", coordinates: houses.slice(0, 2) },
    properties: { layer: "street", rank: 3, names },
  },
  {
    type: "Feature",
    id: ROW,
    geometry: { type: "Polygon", coordinates: [[...houses.slice(0, 3), houses[0]]] },
    properties: { layer: "building", rank: 1 },
  },
  {
    type: "Feature",
    id: INN,
    geometry: { type: "Point", coordinates: houses[1] },
    properties: { layer: "name", rank: 3, names: [{ lang: "en", name: "Inn" }] },
  },
];
function shown(features: MapFeature[], ...corrections: Correction[]) {
  const cutter = new TileCutter(features);
  amend(cutter, amends(...corrections));
  const { features: cut } = cutter.cut({ z: 0, x: 0, y: 0 });
  // all that would be shown at the deepest zoom
  const whole = cutter.cutPart({ z: 16, left: 0, top: 0, width: 2 ** 24, height: 2 ** 24 });
  expect(whole.length).toBeGreaterThanOrEqual(cut.length);
  return (layer: string) => whole.filter(({ properties }) => properties.layer === layer);
}
const pointsIn = ([feature]: MapFeature[]) => (feature.geometry as { coordinates: [number, number][] }).coordinates;
const isNear = (points: readonly [number, number][]) =>
  points.some(([lon, lat]) => Math.hypot(lon - AT.lon, lat - AT.lat) < 1e-4);

describe("amends of a map", () => {
  it("are none without corrections, and none for records that are not known", () => {
    expect(amends()).toEqual({ streets: [], places: [], gone: [] });
    expect(amends({ identity: 99_999, name: "Nowhere" })).toEqual({ streets: [], places: [], gone: [] });
    expect(shown(imported())("street")).toHaveLength(1);
  });

  it("name a street anew, on either kind of map", () => {
    const renamed = { identity: IDS.harbourRow, name: "Herring Row" };
    for (const map of [derived(), imported()]) {
      const of = shown(map, renamed);
      expect(of("street").map(({ properties }) => properties.names?.[0].name)).toEqual(["Herring Row"]);
    }
    expect(shown(imported(), renamed)("building")).toHaveLength(1);
  });

  it("move a house among those of its street, and the others stay", () => {
    const moved = shown(derived(), { identity: segment.sections.addressIdentity[from], at: AT });
    const points = pointsIn(moved("point"));
    expect(points).toHaveLength(houses.length);
    expect(isNear(points)).toBe(true);
    expect(moved("point")).toHaveLength(1);
  });

  it("put a point where a house was placed, when the map was imported", () => {
    const of = shown(imported(), { identity: 7000, street: IDS.harbourRow, house: { number: 99, suffix: "" }, at: AT });
    expect(pointsIn(of("point"))).toHaveLength(1);
    expect(isNear(pointsIn(of("point")))).toBe(true);
    expect(of("street")).toHaveLength(1);
    expect(shown(imported())("point")).toEqual([]);
  });

  it("add a house and take one out", () => {
    const added = { identity: 7000, street: IDS.harbourRow, house: { number: 99, suffix: "" }, at: AT };
    expect(pointsIn(shown(derived(), added)("point"))).toHaveLength(houses.length + 1);
    const out = { identity: segment.sections.addressIdentity[from], isRemoved: true };
    expect(pointsIn(shown(derived(), out)("point"))).toHaveLength(houses.length - 1);
    expect(pointsIn(shown(derived(), added, { identity: 7000, isRemoved: true })("point"))).toHaveLength(houses.length);
  });

  it("take a street out, but leave its buildings", () => {
    const gone = { identity: IDS.harbourRow, isRemoved: true };
    expect(amends(gone).gone).toEqual([ROW]);
    const of = shown(imported(), gone);
    expect([of("street"), of("building")].map(({ length }) => length)).toEqual([0, 1]);
    expect(shown(derived(), gone)("point")).toEqual([]);
  });

  it("name, move and take out a place that has a sign", () => {
    const [sign] = shown(imported(), { identity: IDS.inn, name: "The Lantern", at: AT })("name");
    expect(sign.properties.names?.[0].name).toBe("The Lantern");
    expect(sign.geometry).toMatchObject({ type: "Point" });
    expect(isNear([(sign.geometry as { coordinates: [number, number] }).coordinates])).toBe(true);
    expect(shown(imported(), { identity: IDS.inn, isRemoved: true })("name")).toEqual([]);
  });

  it("are taken back by the next ones", () => {
    const cutter = new TileCutter(derived());
    const part = { z: 16, left: 0, top: 0, width: 2 ** 24, height: 2 ** 24 };
    const before = cutter.cutPart(part);
    amend(cutter, amends({ identity: IDS.harbourRow, name: "Herring Row" }));
    expect(cutter.cutPart(part)).not.toEqual(before);
    amend(cutter, amends());
    expect(cutter.cutPart(part)).toEqual(before);
  });
});
