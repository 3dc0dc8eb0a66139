import type { Point } from "../ground/plane.ts";
import type { Random } from "../random.ts";

/** A house on a line: its entrance, its outline, and the side it is on. */
export interface Building {
  entrance: Point;
  outline: Point[];
  side: "left" | "right";
  /** Metres along the line. */
  along: number;
}

export interface Frontage {
  /** Metres between neighbours, least and most. */
  gap: [number, number];
  /** Metres from the middle of the street to the entrance. */
  setBack: number;
  sides: readonly ("left" | "right")[];
  /** Share of plots that carry a house. */
  built: number;
  /** True where no house may stand. */
  blocked?: (at: Point) => boolean;
}

/** Sets houses along a line, both sides on their own rhythm, none near the ends, where other streets cross. */
export function setHouses(
  line: readonly Point[],
  { gap, setBack, sides, built, blocked }: Frontage,
  random: Random,
): Building[] {
  const houses: Building[] = [];
  const total = lengthOf(line);
  const margin = Math.min(16, total / 5);
  for (const side of sides) {
    let along = margin + random.between(0, gap[0] * 0.5);
    while (along < total - margin) {
      const width = Math.min(gap[0] * 0.8, random.between(10, 17));
      if (random.chance(built)) {
        const house = houseAt(line, along, side, setBack, width, random.between(9, 14));
        if (!blocked?.(house.outline[2])) houses.push(house);
      }
      along += random.between(gap[0], gap[1]);
    }
  }
  return houses.sort((a, b) => a.along - b.along);
}

export function lengthOf(line: readonly Point[]): number {
  let sum = 0;
  for (let i = 1; i < line.length; i++)
    sum += Math.sqrt((line[i].x - line[i - 1].x) ** 2 + (line[i].y - line[i - 1].y) ** 2);
  return sum;
}

/** The point some metres along a line, and the direction there as a unit vector. */
export function pointAlong(line: readonly Point[], along: number): { at: Point; ahead: Point } {
  let left = along;
  for (let i = 1; i < line.length; i++) {
    const dx = line[i].x - line[i - 1].x;
    const dy = line[i].y - line[i - 1].y;
    const length = Math.sqrt(dx * dx + dy * dy) || 1e-9;
    if (left <= length || i === line.length - 1) {
      const t = Math.min(1, left / length);
      return {
        at: { x: line[i - 1].x + dx * t, y: line[i - 1].y + dy * t },
        ahead: { x: dx / length, y: dy / length },
      };
    }
    left -= length;
  }
  return { at: line[0], ahead: { x: 1, y: 0 } };
}

function houseAt(
  line: readonly Point[],
  along: number,
  side: "left" | "right",
  setBack: number,
  width: number,
  depth: number,
): Building {
  const { at, ahead } = pointAlong(line, along);
  const turn = side === "left" ? 1 : -1;
  const out = { x: -ahead.y * turn, y: ahead.x * turn };
  const corner = (a: number, o: number) => ({ x: at.x + ahead.x * a + out.x * o, y: at.y + ahead.y * a + out.y * o });
  return {
    along,
    side,
    entrance: corner(0, setBack),
    outline: [
      corner(-width / 2, setBack),
      corner(width / 2, setBack),
      corner(width / 2, setBack + depth),
      corner(-width / 2, setBack + depth),
    ],
  };
}
