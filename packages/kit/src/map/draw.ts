import { type Label, type SheetStyle, type Size, tilesOf, type View } from "@bibliotope/core/sheet";
import type { Tiles } from "./tiles.ts";

/**
 * Draws the tiles of a view; where one is still missing, a larger or smaller one stands in, and blank paper where one
 * did not come.
 * @returns the labels on it, whether all is there, and whether something failed to come
 */
export function drawTiles(
  context: CanvasRenderingContext2D,
  tiles: Tiles,
  view: View,
  size: Size,
  fineness: number,
  style: SheetStyle,
): { labels: Label[]; complete: boolean; missing: boolean } {
  context.fillStyle = style.sea;
  context.fillRect(0, 0, size.width, size.height);
  const wanted = new Set<string>();
  const labels: Label[] = [];
  let complete = true;
  let missing = false;
  for (const { z, x, y, left, top, side } of tilesOf(view, size)) {
    wanted.add(`${z}/${x}/${y}`);
    const tile = tiles.get({ z, x, y }, fineness);
    // whole pixels, so that no light shows between two tiles
    const box = pixelBox(left, top, side);
    if (tile.bitmap) context.drawImage(tile.bitmap, ...box);
    else {
      if (tile.missing) {
        context.fillStyle = style.land;
        context.fillRect(...box);
      }
      drawStandIn(context, tiles, { z, x, y }, box);
    }
    missing ||= Boolean(tile.missing);
    labels.push(...tile.labels);
    complete &&= Boolean(tile.bitmap);
  }
  tiles.sweep(wanted);
  return { labels, complete, missing };
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
