/** A rectangle on the projected square. */
export interface Frame {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Points as x, y, x, y, … on the projected square. */
export type Line = readonly number[] | Float64Array;

/** The frame around some points. */
export function frameAround(line: Line): Frame {
  const frame = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (let i = 0; i < line.length; i += 2) {
    frame.left = Math.min(frame.left, line[i]);
    frame.right = Math.max(frame.right, line[i]);
    frame.top = Math.min(frame.top, line[i + 1]);
    frame.bottom = Math.max(frame.bottom, line[i + 1]);
  }
  return frame;
}

export function framesMeet(a: Frame, b: Frame): boolean {
  return a.left <= b.right && a.right >= b.left && a.top <= b.bottom && a.bottom >= b.top;
}

export function frameHolds(outer: Frame, inner: Frame): boolean {
  return (
    inner.left >= outer.left && inner.right <= outer.right && inner.top >= outer.top && inner.bottom <= outer.bottom
  );
}

/** The pieces of an open line inside a frame (Liang and Barsky, 1984). */
export function clipLine(line: Line, frame: Frame): number[][] {
  const pieces: number[][] = [];
  let piece: number[] = [];
  for (let i = 2; i < line.length; i += 2) {
    const cut = clipSegment(line[i - 2], line[i - 1], line[i], line[i + 1], frame);
    if (!cut) continue;
    const [x0, y0, x1, y1] = cut;
    if (piece.length && piece[piece.length - 2] === x0 && piece[piece.length - 1] === y0) piece.push(x1, y1);
    else {
      if (piece.length) pieces.push(piece);
      piece = [x0, y0, x1, y1];
    }
  }
  if (piece.length) pieces.push(piece);
  return pieces;
}

function clipSegment(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  { left, top, right, bottom }: Frame,
): [number, number, number, number] | undefined {
  let from = 0;
  let to = 1;
  const dx = x1 - x0;
  const dy = y1 - y0;
  for (const [p, q] of [
    [-dx, x0 - left],
    [dx, right - x0],
    [-dy, y0 - top],
    [dy, bottom - y0],
  ]) {
    if (p === 0) {
      if (q < 0) return undefined;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  if (from > to) return undefined;
  return [
    from === 0 ? x0 : x0 + from * dx,
    from === 0 ? y0 : y0 + from * dy,
    to === 1 ? x1 : x0 + to * dx,
    to === 1 ? y1 : y0 + to * dy,
  ];
}

/** A closed ring cut to a frame (Sutherland and Hodgman, 1974); empty when nothing is left. */
export function clipRing(ring: Line, frame: Frame): number[] {
  let points = Array.from(ring);
  for (const side of SIDES) {
    const kept: number[] = [];
    for (let i = 0; i < points.length; i += 2) {
      const previous = i === 0 ? points.length - 2 : i - 2;
      const [ax, ay, bx, by] = [points[previous], points[previous + 1], points[i], points[i + 1]];
      const a = side.inside(ax, ay, frame);
      const b = side.inside(bx, by, frame);
      if (a !== b) kept.push(...side.cross(ax, ay, bx, by, frame));
      if (b) kept.push(bx, by);
    }
    points = kept;
    if (points.length < 6) return [];
  }
  return points;
}

interface Side {
  inside(x: number, y: number, frame: Frame): boolean;
  cross(ax: number, ay: number, bx: number, by: number, frame: Frame): [number, number];
}

const atX = (x: number, ax: number, ay: number, bx: number, by: number): [number, number] => [
  x,
  ay + ((x - ax) * (by - ay)) / (bx - ax),
];
const atY = (y: number, ax: number, ay: number, bx: number, by: number): [number, number] => [
  ax + ((y - ay) * (bx - ax)) / (by - ay),
  y,
];

const SIDES: readonly Side[] = [
  { inside: (x, _y, f) => x >= f.left, cross: (ax, ay, bx, by, f) => atX(f.left, ax, ay, bx, by) },
  { inside: (x, _y, f) => x <= f.right, cross: (ax, ay, bx, by, f) => atX(f.right, ax, ay, bx, by) },
  { inside: (_x, y, f) => y >= f.top, cross: (ax, ay, bx, by, f) => atY(f.top, ax, ay, bx, by) },
  { inside: (_x, y, f) => y <= f.bottom, cross: (ax, ay, bx, by, f) => atY(f.bottom, ax, ay, bx, by) },
];
