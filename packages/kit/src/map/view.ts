import { type Position, project, TILE, unproject } from "@bibliotope/core/geo";

/** What a map shows: its middle and its zoom, which may lie between two whole ones. */
export interface View {
  at: Position;
  zoom: number;
}

/** Size of a map in CSS pixels. */
export interface Size {
  width: number;
  height: number;
}

export const LEAST_ZOOM = 6;
export const MOST_ZOOM = 19;

/** Side of the whole projected square in CSS pixels. */
export function worldSize(zoom: number): number {
  return TILE * 2 ** zoom;
}

/** CSS pixels of a position, from the map's north-west corner. */
export function toScreen(view: View, size: Size, at: Position): { x: number; y: number } {
  return squareToScreen(view, size, project(at));
}

export function squareToScreen(
  view: View,
  { width, height }: Size,
  point: { x: number; y: number },
): { x: number; y: number } {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  return { x: (point.x - middle.x) * world + width / 2, y: (point.y - middle.y) * world + height / 2 };
}

/** The position under a point of the screen. */
export function toPosition(view: View, { width, height }: Size, { x, y }: { x: number; y: number }): Position {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  return unproject({ x: middle.x + (x - width / 2) / world, y: middle.y + (y - height / 2) / world });
}

/** The view moved by pixels: positive moves what is shown to the east and south. */
export function panned(view: View, dx: number, dy: number): View {
  const middle = project(view.at);
  const world = worldSize(view.zoom);
  return { ...view, at: unproject({ x: middle.x + dx / world, y: Math.max(0, Math.min(1, middle.y + dy / world)) }) };
}

/** The view at another zoom, with the same position under a point of the screen. */
export function zoomed(view: View, size: Size, zoom: number, about: { x: number; y: number }): View {
  const wanted = Math.max(LEAST_ZOOM, Math.min(MOST_ZOOM, zoom));
  const held = toPosition(view, size, about);
  const moved = toScreen({ at: view.at, zoom: wanted }, size, held);
  return panned({ at: view.at, zoom: wanted }, moved.x - about.x, moved.y - about.y);
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
  const points = positions.map(project);
  const [west, east] = [Math.min(...points.map(({ x }) => x)), Math.max(...points.map(({ x }) => x))];
  const [north, south] = [Math.min(...points.map(({ y }) => y)), Math.max(...points.map(({ y }) => y))];
  const room = 1 - 2 * MARGIN;
  const most = Math.min(
    (Math.max(1, size.width) * room) / Math.max(east - west, Number.MIN_VALUE),
    (Math.max(1, size.height) * room) / Math.max(south - north, Number.MIN_VALUE),
  );
  const zoom = Math.max(LEAST_ZOOM, Math.min(closest, Math.log2(most / TILE)));
  return { at: unproject({ x: (west + east) / 2, y: (north + south) / 2 }), zoom };
}
