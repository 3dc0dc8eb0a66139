import type { Line } from "./clip.ts";

/**
 * Leaves out points that lie closer than a tolerance to the line without them (Douglas and Peucker, 1973). The ends
 * stay. Without recursion, so that a coast of any length fits.
 */
export function simplify(line: Line, tolerance: number): Line {
  const count = line.length / 2;
  if (count <= 2) return line;
  const keep = new Uint8Array(count);
  keep[0] = keep[count - 1] = 1;
  const stack: [number, number][] = [[0, count - 1]];
  const least = tolerance * tolerance;
  for (let range = stack.pop(); range; range = stack.pop()) {
    const [first, last] = range;
    let farthest = -1;
    let most = least;
    for (let i = first + 1; i < last; i++) {
      const away = squareToSegment(line, i, first, last);
      if (away > most) {
        most = away;
        farthest = i;
      }
    }
    if (farthest < 0) continue;
    keep[farthest] = 1;
    stack.push([first, farthest], [farthest, last]);
  }
  const kept: number[] = [];
  for (let i = 0; i < count; i++) if (keep[i]) kept.push(line[2 * i], line[2 * i + 1]);
  return Float64Array.from(kept);
}

/** Square of the distance of a point to the segment between two others. */
function squareToSegment(line: Line, point: number, from: number, to: number): number {
  const [x, y] = [line[2 * point], line[2 * point + 1]];
  const [ax, ay] = [line[2 * from], line[2 * from + 1]];
  const dx = line[2 * to] - ax;
  const dy = line[2 * to + 1] - ay;
  const length = dx * dx + dy * dy;
  const t = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length));
  return (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2;
}
