import { metresPerPixel, type Position } from "@bibliotope/core/geo";
import {
  drawAim,
  drawLabels,
  drawMarker,
  fontOf,
  type Label,
  type MarkerSign,
  placeLabels,
  type SheetStyle,
  spacedText,
} from "@bibliotope/core/sheet";
import type { Tiles } from "./tiles.ts";
import { MOST_ZOOM, type Size, scaleLength, squareToScreen, toScreen, type View, worldSize } from "./view.ts";

/** From this zoom on, nobody needs to be told which country it is. */
const LAST_COUNTRY_ZOOM = 9.5;

/** Where a marker stands, and how it looks. */
export interface MapMarker extends Omit<MarkerSign, "x" | "y"> {
  at: Position;
}

/** Draws the tiles of a view; where one is still missing, a larger or smaller one stands in. @returns the labels on it, and whether all is there */
export function drawTiles(
  context: CanvasRenderingContext2D,
  tiles: Tiles,
  view: View,
  size: Size,
  fineness: number,
  style: SheetStyle,
): { labels: Label[]; complete: boolean } {
  const z = Math.min(MOST_ZOOM, Math.max(0, Math.round(view.zoom)));
  const side = worldSize(view.zoom) / 2 ** z;
  const origin = squareToScreen(view, size, { x: 0, y: 0 });
  const last = 2 ** z - 1;
  const columns = [
    Math.max(0, Math.floor(-origin.x / side)),
    Math.min(last, Math.floor((size.width - origin.x) / side)),
  ];
  const rows = [Math.max(0, Math.floor(-origin.y / side)), Math.min(last, Math.floor((size.height - origin.y) / side))];
  context.fillStyle = style.sea;
  context.fillRect(0, 0, size.width, size.height);
  const wanted = new Set<string>();
  const labels: Label[] = [];
  let complete = true;
  for (let y = rows[0]; y <= rows[1]; y++) {
    for (let x = columns[0]; x <= columns[1]; x++) {
      wanted.add(`${z}/${x}/${y}`);
      const tile = tiles.get({ z, x, y }, fineness);
      // whole pixels, so that no light shows between two tiles
      const box = pixelBox(origin.x + x * side, origin.y + y * side, side);
      if (tile.bitmap) context.drawImage(tile.bitmap, ...box);
      else drawStandIn(context, tiles, { z, x, y }, box);
      labels.push(...tile.labels);
      complete &&= Boolean(tile.bitmap);
    }
  }
  tiles.sweep(wanted);
  return { labels, complete };
}

type PixelBox = [x: number, y: number, width: number, height: number];

function pixelBox(x: number, y: number, side: number): PixelBox {
  const snap = (value: number) => Math.round(value * devicePixelRatio) / devicePixelRatio;
  return [snap(x), snap(y), snap(x + side) - snap(x), snap(y + side) - snap(y)];
}

function drawStandIn(
  context: CanvasRenderingContext2D,
  tiles: Tiles,
  { z, x, y }: { z: number; x: number; y: number },
  [left, top, width, height]: PixelBox,
): void {
  for (let up = 1; up <= 4 && z - up >= 0; up++) {
    const parent = tiles.peek({ z: z - up, x: x >> up, y: y >> up });
    if (!parent?.bitmap) continue;
    const part = parent.bitmap.width / 2 ** up;
    context.drawImage(
      parent.bitmap,
      (x - ((x >> up) << up)) * part,
      (y - ((y >> up) << up)) * part,
      part,
      part,
      left,
      top,
      width,
      height,
    );
    return;
  }
  for (const [dx, dy] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ]) {
    const child = tiles.peek({ z: z + 1, x: 2 * x + dx, y: 2 * y + dy });
    if (child?.bitmap)
      context.drawImage(child.bitmap, left + (dx * width) / 2, top + (dy * height) / 2, width / 2, height / 2);
  }
}

/** Draws what lies over the tiles: names, markers, the scale. */
export function drawOver(
  context: CanvasRenderingContext2D,
  view: View,
  size: Size,
  style: SheetStyle,
  labels: readonly Label[],
  markers: readonly MapMarker[],
  aim: Position | undefined,
): void {
  const shown = labels.filter(({ what, rank }) => {
    if (what === "country") return view.zoom < LAST_COUNTRY_ZOOM;
    return what !== "street" || rank <= (view.zoom >= 15.5 ? Infinity : view.zoom >= 14.5 ? 7 : 0);
  });
  const placed = placeLabels(
    shown,
    (point) => squareToScreen(view, size, point),
    worldSize(view.zoom),
    (label) => widthOf(context, label),
  );
  drawLabels(context, placed, style);
  drawScale(context, view, size, style);
  if (aim) drawAim(context, toScreen(view, size, aim), style);
  for (const marker of [...markers].sort((a, b) => Number(a.marked ?? false) - Number(b.marked ?? false))) {
    drawMarker(context, { ...marker, ...toScreen(view, size, marker.at) }, style);
  }
}

/** Widths of labels met lately; measuring is dear, and every frame asks for the same ones. */
const widths = new Map<string, number>();
const MOST_WIDTHS = 4000;

function widthOf(context: CanvasRenderingContext2D, label: Label): number {
  const font = fontOf(label);
  const key = `${font} ${label.text}`;
  let width = widths.get(key);
  if (width === undefined) {
    if (widths.size >= MOST_WIDTHS) widths.clear();
    context.font = font;
    width = context.measureText(spacedText(label)).width;
    widths.set(key, width);
  }
  return width;
}

/** Fonts have come: what was measured in another one no longer holds. */
export function forgetWidths(): void {
  widths.clear();
}

function drawScale(context: CanvasRenderingContext2D, view: View, { width, height }: Size, style: SheetStyle): void {
  const perPixel = metresPerPixel(view.zoom, view.at.lat);
  const metres = scaleLength(perPixel, 130);
  const length = metres / perPixel;
  const right = width - 16;
  const y = height - 24;
  context.fillStyle = style.paper;
  context.fillRect(right - length - 1, y - 1, length + 2, 6);
  context.fillStyle = style.ink;
  context.fillRect(right - length, y, length, 4);
  context.fillStyle = style.paper;
  context.fillRect(right - length / 2, y + 1, length / 2 - 1, 2);
  context.font = '11px "JetBrains Mono Variable", "JetBrains Mono", monospace';
  context.textBaseline = "bottom";
  context.lineWidth = 3;
  context.strokeStyle = style.halo;
  for (const [text, x, align] of [
    ["0", right - length, "left"],
    [metres >= 1000 ? `${metres / 1000} km` : `${metres} m`, right, "right"],
  ] as const) {
    context.textAlign = align;
    context.strokeText(text, x, y - 2);
    context.fillStyle = style.ink;
    context.fillText(text, x, y - 2);
  }
}
