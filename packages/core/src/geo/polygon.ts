import { boxAroundRings, type Position, type Ring } from "./position.ts";

/** True when the position lies inside the rings, by the even-odd rule, so that holes count as outside. */
export function ringsContain(rings: readonly Ring[], { lat, lon }: Position): boolean {
  let inside = false;
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [xi, yi] = ring[i];
      const [xj, yj] = ring[j];
      if (yi > lat !== yj > lat && lon < ((xj - xi) * (lat - yi)) / (yj - yi) + xi) inside = !inside;
    }
  }
  return inside;
}

/** Twice the signed area of a ring in square degrees; positive when it runs counter-clockwise. */
export function signedArea(ring: Ring): number {
  let sum = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    sum += ring[j][0] * ring[i][1] - ring[i][0] * ring[j][1];
  }
  return sum;
}

/**
 * A point inside an area: the centroid of its outer ring where that is inside, else the middle of the widest stretch of the area at
 * that latitude. Of a ring without an area the middle of its box.
 * @param rings the outer one and its holes, in degrees
 */
export function pointWithin(rings: readonly Ring[]): Position {
  const [outer] = rings;
  const centre = centroid(outer);
  if (ringsContain(rings, centre)) return centre;
  const crossed = crossingsAt(rings, centre.lat);
  let widest = { width: 0, lon: centre.lon };
  for (let i = 1; i < crossed.length; i += 2) {
    const width = crossed[i] - crossed[i - 1];
    if (width > widest.width) widest = { width, lon: crossed[i - 1] + width / 2 };
  }
  return { lat: centre.lat, lon: widest.lon };
}

/** Measured from the first corner: far from 0° the products would lose what tells a house from the next. */
function centroid(ring: Ring): Position {
  const [[lon, lat]] = ring;
  let [area, x, y] = [0, 0, 0];
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [ax, ay, bx, by] = [ring[j][0] - lon, ring[j][1] - lat, ring[i][0] - lon, ring[i][1] - lat];
    const cross = ax * by - bx * ay;
    area += cross;
    x += (ax + bx) * cross;
    y += (ay + by) * cross;
  }
  if (area !== 0) return { lat: lat + y / (3 * area), lon: lon + x / (3 * area) };
  const [west, south, east, north] = boxAroundRings([ring]);
  return { lat: (south + north) / 2, lon: (west + east) / 2 };
}

/** Longitudes at which edges cross a latitude, from west to east. */
function crossingsAt(rings: readonly Ring[], lat: number): number[] {
  const crossed: number[] = [];
  for (const ring of rings)
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [[xi, yi], [xj, yj]] = [ring[i], ring[j]];
      if (yi > lat !== yj > lat) crossed.push(((xj - xi) * (lat - yi)) / (yj - yi) + xi);
    }
  return crossed.sort((a, b) => a - b);
}
