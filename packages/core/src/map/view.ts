import { type Position, project, TILE, unproject } from "../geo/index.ts";
import type { Frame } from "./clip.ts";
import type { MapPart } from "./pen.ts";

/** What a map shows: its middle and its zoom, which may lie between two integers. */
export interface View {
  at: Position;
  zoom: number;
}

/** Size of a map in CSS pixels. */
export interface Size {
  width: number;
  height: number;
}

export const LEAST_ZOOM = 2;
export const MOST_ZOOM = 19;

/** Side of the projected square in CSS pixels. */
export function worldSize(zoom: number): number {
  return TILE * 2 ** zoom;
}

/** CSS pixels of a position, from the map's north-west corner; of the copy of the world that is nearest to the middle. */
export function toScreen(view: View, size: Size, at: Position): { x: number; y: number } {
  return squareToScreen(view, size, project(at));
}

/** The same of a point of the projected square. */
export function squareToScreen(view: View, size: Size, point: { x: number; y: number }): { x: number; y: number } {
  const middle = project(view.at);
  const x = point.x - Math.round(point.x - middle.x);
  const origin = originOf(view, size);
  const world = worldSize(view.zoom);
  return { x: origin.x + x * world, y: origin.y + point.y * world };
}

/** CSS pixels of the north-west corner of the projected square; the world goes on to both sides of it. */
export function originOf(view: View, { width, height }: Size): { x: number; y: number } {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  return { x: width / 2 - middle.x * world, y: height / 2 - middle.y * world };
}

/** The position under a point of the screen. */
export function toPosition(view: View, { width, height }: Size, { x, y }: { x: number; y: number }): Position {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  return unproject({ x: onSquare(middle.x + (x - width / 2) / world), y: middle.y + (y - height / 2) / world });
}

/** From a copy of the world back onto the square: 0 to 1. */
const onSquare = (x: number) => x - Math.floor(x);

/** The part of the projected square that a view shows, with a margin in CSS pixels; it may go on beyond the square. */
export function frameOf(view: View, { width, height }: Size, margin = 0): Frame {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  const [across, down] = [(width / 2 + margin) / world, (height / 2 + margin) / world];
  return { left: middle.x - across, right: middle.x + across, top: middle.y - down, bottom: middle.y + down };
}

/** A square tile of a view, and where it is on the screen. */
export interface PlacedTile {
  z: number;
  x: number;
  y: number;
  /** CSS pixels of the north-west corner, and of the side. */
  left: number;
  top: number;
  side: number;
}

/** The tiles that cover a view, of the zoom that is nearest to the view's; those of other copies of the world too. */
export function tilesOf(view: View, size: Size): PlacedTile[] {
  const z = Math.min(MOST_ZOOM, Math.max(0, Math.round(view.zoom)));
  const count = 2 ** z;
  const side = worldSize(view.zoom) / count;
  const origin = originOf(view, size);
  const [first, last] = [Math.floor(-origin.x / side), Math.floor((size.width - origin.x) / side)];
  const top = Math.max(0, Math.floor(-origin.y / side));
  const bottom = Math.min(count - 1, Math.floor((size.height - origin.y) / side));
  const tiles: PlacedTile[] = [];
  for (let y = top; y <= bottom; y++) {
    for (let x = first; x <= last; x++)
      tiles.push({
        z,
        x: x - Math.floor(x / count) * count,
        y,
        left: origin.x + x * side,
        top: origin.y + y * side,
        side,
      });
  }
  return tiles;
}

/** The view moved by pixels: positive moves what is shown to the east and south. */
export function panned(view: View, dx: number, dy: number): View {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  return {
    ...view,
    at: unproject({ x: onSquare(middle.x + dx / world), y: Math.max(0, Math.min(1, middle.y + dy / world)) }),
  };
}

/** The view at another zoom, with the same position under a point of the screen. */
export function zoomed(view: View, size: Size, zoom: number, about: { x: number; y: number }): View {
  const wanted = Math.max(LEAST_ZOOM, Math.min(MOST_ZOOM, zoom));
  const fixed = toPosition(view, size, about);
  const moved = toScreen({ at: view.at, zoom: wanted }, size, fixed);
  return panned({ at: view.at, zoom: wanted }, moved.x - about.x, moved.y - about.y);
}

/** The view that shows the part between two corners on the screen as large as it goes. */
export function zoomedInto(view: View, size: Size, a: { x: number; y: number }, b: { x: number; y: number }): View {
  const closer = Math.min(
    size.width / Math.max(1, Math.abs(a.x - b.x)),
    size.height / Math.max(1, Math.abs(a.y - b.y)),
  );
  const at = toPosition(view, size, { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
  return { at, zoom: Math.max(LEAST_ZOOM, Math.min(MOST_ZOOM, view.zoom + Math.log2(closer))) };
}

/** A length that is good to read (1, 2 or 5 times a power of ten, in metres) and fits into some pixels. */
export function scaleLength(metresPerPixel: number, mostPixels: number): number {
  const most = metresPerPixel * mostPixels;
  const power = 10 ** Math.floor(Math.log10(most));
  return power * ([5, 2].find((times) => times * power <= most) ?? 1);
}

/** Part of each side that stays free around what is shown. */
const MARGIN = 0.16;

/** The closest view that shows some positions with room around them, no closer than `closest`. */
export function viewOf(positions: readonly Position[], size: Size, closest: number): View {
  const [first] = positions.map(project);
  // each on the side of the first that is nearer, over the 180th meridian too
  const points = positions.map(project).map(({ x, y }) => ({ x: x - Math.round(x - first.x), y }));
  const [west, east] = [Math.min(...points.map(({ x }) => x)), Math.max(...points.map(({ x }) => x))];
  const [north, south] = [Math.min(...points.map(({ y }) => y)), Math.max(...points.map(({ y }) => y))];
  const room = 1 - 2 * MARGIN;
  const most = Math.min(
    (Math.max(1, size.width) * room) / Math.max(east - west, Number.MIN_VALUE),
    (Math.max(1, size.height) * room) / Math.max(south - north, Number.MIN_VALUE),
  );
  const zoom = Math.max(LEAST_ZOOM, Math.min(closest, Math.log2(most / TILE)));
  return { at: unproject({ x: onSquare((west + east) / 2), y: (north + south) / 2 }), zoom };
}

/** A part of the map that a view shows, of one copy of the world, and where it is on the screen. */
export interface PlacedPart extends MapPart {
  /** CSS pixels of the west side on the screen, and of one of its own pixels. */
  x: number;
  scale: number;
}

/** What a view shows of the map of the nearest integer zoom, in one part for each copy of the world that it touches. */
export function partsOf(view: View, size: Size): PlacedPart[] {
  const z = Math.min(MOST_ZOOM, Math.max(0, Math.round(view.zoom)));
  const square = TILE * 2 ** z;
  const scale = worldSize(view.zoom) / square;
  const origin = originOf(view, size);
  const [west, east] = [-origin.x / scale, (size.width - origin.x) / scale];
  const parts: PlacedPart[] = [];
  for (let copy = Math.floor(west / square); copy * square < east; copy++) {
    const left = Math.max(west, copy * square);
    const width = Math.min(east, (copy + 1) * square) - left;
    const x = (left - west) * scale;
    parts.push({ z, left: left - copy * square, top: -origin.y / scale, width, height: size.height / scale, x, scale });
  }
  return parts;
}
