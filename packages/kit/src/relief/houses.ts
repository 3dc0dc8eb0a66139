import { project } from "@bibliotope/core/geo";
import type { MapFeature, TileName } from "@bibliotope/core/map";
import { BufferAttribute, BufferGeometry, ShapeUtils, Vector2 } from "three";
import { type Ground, toScene } from "./terrain.ts";

/** A house: its outline in metres of the scene, the ground it is on and its roof, in metres above the sea. */
export interface Building {
  outline: { x: number; z: number }[];
  foot: number;
  roof: number;
}

/** Metres of a storey, and square metres of ground from which a house has one more. */
const STOREY = 3.1;
const PER_STOREY = 110;
const MOST_STOREYS = 5;

/**
 * The houses of a tile that stand in it, not only reach into it. The data holds no heights: a house is as high as its
 * footprint lets expect.
 */
export function housesOf(ground: Ground, features: readonly MapFeature[], { z, x, y }: TileName): Building[] {
  const count = 2 ** z;
  return features
    .filter(({ properties }) => properties.layer === "building")
    .flatMap(({ geometry }) =>
      geometry.type === "Polygon"
        ? [geometry.coordinates]
        : geometry.type === "MultiPolygon"
          ? geometry.coordinates
          : [],
    )
    .flatMap(([ring]): Building[] => {
      const points = ring.slice(0, -1).map(([lon, lat]) => project({ lat, lon }));
      const middle = {
        x: points.reduce((sum, point) => sum + point.x, 0) / points.length,
        y: points.reduce((sum, point) => sum + point.y, 0) / points.length,
      };
      if (Math.floor(middle.x * count) !== x || Math.floor(middle.y * count) !== y) return [];
      const outline = points.map((point) => toScene(ground, point));
      const foot = Math.min(...points.map((point) => ground.heights.at(point)));
      const storeys = Math.min(MOST_STOREYS, 1 + Math.floor(Math.abs(areaOf(outline)) / PER_STOREY));
      return [{ outline, foot, roof: ground.heights.at(middle) + storeys * STOREY + 1 }];
    });
}

/** The walls and flat roofs of some houses as one mesh. */
export function raise(houses: readonly Building[]): BufferGeometry {
  const places: number[] = [];
  for (const { outline, foot, roof } of houses) {
    const ring = areaOf(outline) > 0 ? outline : outline.toReversed();
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      places.push(a.x, foot, a.z, a.x, roof, a.z, b.x, foot, b.z);
      places.push(b.x, foot, b.z, a.x, roof, a.z, b.x, roof, b.z);
    });
    const corners = ring.map(({ x, z }) => new Vector2(x, z));
    for (const [a, b, c] of ShapeUtils.triangulateShape(corners, []))
      for (const corner of [c, b, a]) places.push(ring[corner].x, roof, ring[corner].z);
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(Float32Array.from(places), 3));
  geometry.computeVertexNormals();
  return geometry;
}

/** The highest roof within some metres of a spot, or the ground there, in metres above the sea. */
export function highestAround(
  houses: readonly Building[],
  spot: { x: number; z: number },
  metres: number,
  ground: number,
): number {
  return houses
    .filter(({ outline }) => outline.some(({ x, z }) => Math.hypot(x - spot.x, z - spot.z) <= metres))
    .reduce((highest, { roof }) => Math.max(highest, roof), ground);
}

/** Square metres, positive when it runs from east to south. */
function areaOf(ring: readonly { x: number; z: number }[]): number {
  let sum = 0;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    sum += a.x * b.z - b.x * a.z;
  });
  return sum / 2;
}
