import type { Box, Position } from "../geo/position.ts";

/** Part of the box around all that the boxes must cover for it to be shown completely. */
const MOSTLY = 0.25;
/** Degrees of longitude from which the whole world is shown just as well. */
const WIDEST = 200;

/**
 * What a map shows of some countries before anything is known: all of them, or the largest alone where most of what lies
 * between them is something else, such as sea.
 *
 * @param boxes of the countries' data, in degrees; west is greater than east across the 180th meridian
 * @returns positions to be shown, the middle first; none without boxes, or when they lie around the whole world
 */
export function startingPositions(boxes: readonly Box[]): Position[] {
  // each on the side of the first that is nearer, over the 180th meridian too
  const spread = boxes.map(([west, south, east, north]): Box => [west, south, east < west ? east + 360 : east, north]);
  const placed = spread.map(([west, south, east, north]): Box => {
    const turns = Math.round((west + east - spread[0][0] - spread[0][2]) / 720) * 360;
    return [west - turns, south, east - turns, north];
  });
  if (!placed.length) return [];
  const all: Box = [
    Math.min(...placed.map(([west]) => west)),
    Math.min(...placed.map(([, south]) => south)),
    Math.max(...placed.map(([, , east]) => east)),
    Math.max(...placed.map(([, , , north]) => north)),
  ];
  const covered = placed.reduce((sum, box) => sum + extent(box), 0);
  const largest = placed.reduce((one, other) => (extent(other) > extent(one) ? other : one));
  const [west, south, east, north] = placed.length === 1 || covered >= MOSTLY * extent(all) ? all : largest;
  if (east - west > WIDEST) return [];
  return [
    { lat: (south + north) / 2, lon: turned((west + east) / 2) },
    { lat: south, lon: turned(west) },
    { lat: north, lon: turned(east) },
  ];
}

/** Degrees by degrees, of longitude as long as those of latitude. */
const extent = ([west, south, east, north]: Box) =>
  (east - west) * Math.cos(((south + north) * Math.PI) / 360) * (north - south);

const turned = (lon: number) => lon - 360 * Math.round(lon / 360);
