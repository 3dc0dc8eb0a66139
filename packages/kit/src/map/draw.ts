import { type Label, originOf, type Palette, type Size, tilesOf, type View } from "@bibliotope/core/map";
import { contextOf } from "./context.ts";
import { make } from "./make.ts";
import type { Tile, Tiles } from "./tiles.ts";

/** How a view is drawn. */
export interface Drawing {
  view: View;
  size: Size;
  /** Device pixels to a CSS pixel. */
  ratio: number;
  /** The same of what tiles are painted with. */
  fineness: number;
  palette: Palette;
  /** True to save time at the cost of looks, while something moves. */
  isHasty: boolean;
}

/** What was drawn. */
export interface Drawn {
  labels: Label[];
  /** Whether all tiles are there, and whether one failed to come. */
  complete: boolean;
  missing: boolean;
  /** Whether the map stands in for a picture somewhere. */
  lost: boolean;
}

/** What a tile is drawn with: its picture, blank paper, or what is in. */
type Picture = ImageBitmap | "missing" | undefined;

const isSame = (a: ReadonlyMap<string, Picture>, b: ReadonlyMap<string, Picture>) =>
  a.size === b.size && [...b].every(([key, picture]) => a.has(key) && a.get(key) === picture);

/** A box in device pixels. */
type Box = [x: number, y: number, width: number, height: number];

/**
 * The tiles of a view as one picture. While the map is only moved, what is on it already is moved along, and only
 * what comes into sight is drawn: scaling all tiles for every frame takes longer than a frame has. It moves from one
 * canvas to another, of which the page shows one: a third to copy to would take as long again.
 */
export class TileLayer {
  /** What the page shows: two canvases, one hidden. */
  readonly element = make("div", "bt-tiles");
  #shown = layer();
  #spare = layer();
  /** What the picture shows, but for the place. */
  #last: Omit<Drawing, "view"> & { zoom: number } = {
    zoom: Number.NaN,
    size: { width: 0, height: 0 },
    ratio: 0,
    fineness: 0,
    palette: {} as Palette,
    isHasty: false,
  };
  /** Device pixels of the square's corner: at integer steps from where it was when the picture was last drawn completely. */
  #origin = { x: 0, y: 0 };
  /** What each tile was drawn with. */
  #drawn = new Map<string, Picture>();
  #labels: Label[] = [];

  constructor() {
    this.element.append(this.#shown.canvas, this.#spare.canvas);
    this.#spare.canvas.hidden = true;
  }

  draw(tiles: Tiles, drawing: Drawing): Drawn {
    const { view, size, ratio, fineness, palette } = drawing;
    const corner = originOf(view, size);
    const origin = { x: corner.x * ratio, y: corner.y * ratio };
    const shift = this.#shiftTo(origin, drawing);
    if (shift) this.#move(shift, palette);
    else this.#begin(origin, drawing);
    const strips = shift ? stripsOf(shift, this.#shown.canvas) : [];
    const drawn: Drawn = { labels: [], complete: true, missing: false, lost: false };
    const wanted = new Set<string>();
    const now = new Map<string, Picture>();
    const seen: Tile[] = [];
    for (const { z, x, y, left, top, side } of tilesOf(view, size)) {
      wanted.add(`${z}/${x}/${y}`);
      const tile = tiles.get({ z, x, y }, fineness);
      const box = boxOf(
        left * ratio + this.#origin.x - origin.x,
        top * ratio + this.#origin.y - origin.y,
        side * ratio,
      );
      // a tile of another copy of the world is elsewhere
      const key = `${Math.round((left - corner.x) / side)}/${y}`;
      const picture = tile.bitmap ?? (tile.missing ? "missing" : undefined);
      const isNew = !shift || !this.#drawn.has(key) || this.#drawn.get(key) !== picture;
      if (isNew) this.#drawTile(tiles, tile, box, palette);
      else for (const strip of strips) if (meet(strip, box)) this.#drawWithin(strip, tiles, tile, box, palette);
      now.set(key, picture);
      seen.push(tile);
      drawn.complete &&= Boolean(tile.bitmap);
      drawn.missing ||= Boolean(tile.missing);
      drawn.lost ||= Boolean(tile.lost);
    }
    // the same list for the same tiles: whoever orders names need not do it again
    if (!isSame(this.#drawn, now)) this.#labels = seen.flatMap(({ labels }) => labels);
    drawn.labels = this.#labels;
    this.#drawn = now;
    tiles.sweep(wanted);
    return drawn;
  }

  /** Integer device pixels by which the picture is to be moved; undefined when it has to be drawn anew. */
  #shiftTo(origin: { x: number; y: number }, { view, size, ratio, fineness, palette, isHasty }: Drawing) {
    const last = this.#last;
    if (
      last.zoom !== view.zoom ||
      last.size !== size ||
      last.ratio !== ratio ||
      last.fineness !== fineness ||
      last.palette !== palette ||
      (last.isHasty && !isHasty)
    )
      return undefined;
    const [x, y] = [Math.round(origin.x - this.#origin.x), Math.round(origin.y - this.#origin.y)];
    const { width, height } = this.#shown.canvas;
    return Math.abs(x) < width && Math.abs(y) < height ? { x, y } : undefined;
  }

  #begin(origin: { x: number; y: number }, { view, size, ratio, fineness, palette, isHasty }: Drawing): void {
    this.#last = { zoom: view.zoom, size, ratio, fineness, palette, isHasty };
    this.#origin = origin;
    for (const { canvas } of [this.#shown, this.#spare]) {
      const [width, height] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
      if (canvas.width !== width) canvas.width = width;
      if (canvas.height !== height) canvas.height = height;
    }
    this.#shown.imageSmoothingEnabled = !isHasty;
    this.#spare.imageSmoothingEnabled = !isHasty;
    this.#shown.fillStyle = palette.sea;
    this.#shown.fillRect(0, 0, this.#shown.canvas.width, this.#shown.canvas.height);
  }

  #move({ x, y }: { x: number; y: number }, palette: Palette): void {
    if (x === 0 && y === 0) return;
    [this.#shown, this.#spare] = [this.#spare, this.#shown];
    this.#shown.canvas.hidden = false;
    this.#spare.canvas.hidden = true;
    this.#shown.fillStyle = palette.sea;
    for (const strip of stripsOf({ x, y }, this.#shown.canvas)) this.#shown.fillRect(...strip);
    this.#shown.drawImage(this.#spare.canvas, x, y);
    this.#origin = { x: this.#origin.x + x, y: this.#origin.y + y };
  }

  #drawWithin(strip: Box, tiles: Tiles, tile: Tile, box: Box, palette: Palette): void {
    this.#shown.save();
    this.#shown.beginPath();
    this.#shown.rect(...strip);
    this.#shown.clip();
    this.#drawTile(tiles, tile, box, palette);
    this.#shown.restore();
  }

  /** Draws a tile; where it has not come, a larger or smaller one is in, and blank paper where it will not. */
  #drawTile(tiles: Tiles, { z, x, y, bitmap, missing }: Tile, box: Box, palette: Palette): void {
    if (bitmap) {
      this.#shown.drawImage(bitmap, ...box);
      return;
    }
    if (missing) {
      this.#shown.fillStyle = palette.land;
      this.#shown.fillRect(...box);
    }
    const [left, top, width, height] = box;
    for (let up = 1; up <= 4 && z - up >= 0; up++) {
      const parent = tiles.peek({ z: z - up, x: x >> up, y: y >> up });
      if (!parent?.bitmap) continue;
      const part = parent.bitmap.width / 2 ** up;
      const [column, row] = [x - ((x >> up) << up), y - ((y >> up) << up)];
      this.#shown.drawImage(parent.bitmap, column * part, row * part, part, part, left, top, width, height);
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
        this.#shown.drawImage(child.bitmap, left + (dx * width) / 2, top + (dy * height) / 2, width / 2, height / 2);
    }
  }
}

function layer(): CanvasRenderingContext2D {
  return contextOf(make("canvas"), { alpha: false });
}

/** Whole pixels, so that no light shows between two tiles. */
function boxOf(left: number, top: number, side: number): Box {
  const [x, y] = [Math.round(left), Math.round(top)];
  return [x, y, Math.round(left + side) - x, Math.round(top + side) - y];
}

/** What comes into sight when a picture is moved. */
function stripsOf({ x, y }: { x: number; y: number }, { width, height }: { width: number; height: number }): Box[] {
  const strips: Box[] = [];
  if (x !== 0) strips.push([x > 0 ? 0 : width + x, 0, Math.abs(x), height]);
  if (y !== 0) strips.push([0, y > 0 ? 0 : height + y, width, Math.abs(y)]);
  return strips;
}

const meet = (a: Box, b: Box) => a[0] < b[0] + b[2] && a[0] + a[2] > b[0] && a[1] < b[1] + b[3] && a[1] + a[3] > b[1];
