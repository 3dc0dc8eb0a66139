import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import {
  DAY,
  drawOver,
  hasLabel,
  isPainted,
  type Label,
  labelsOf,
  type MapFeature,
  type MapStyle,
  NIGHT,
  type Over,
  type Painter,
  paintPart,
  partOf,
  partsOf,
  type Size,
  TileCutter,
  type TileName,
  tilesOf,
  type View,
} from "@bibliotope/core/map";
import { createCanvas, GlobalFonts } from "@napi-rs/canvas";
import { LRUCache } from "lru-cache";
import { encodePng } from "./png.ts";

/** A picture of the map. */
export interface Still {
  view: View;
  /** CSS pixels. */
  size: Size;
  /** Pixels of the picture to a CSS pixel. */
  density: number;
  night: boolean;
  style: MapStyle;
  /** BCP 47, for names; the local ones when empty. */
  langs: readonly string[];
  over: Over;
}

/**
 * Fonts of the map, as files hold them: one for each alphabet. The painter asks for the families in this order, so
 * that glyphs which the first lacks come from the next.
 */
const FONTS = [
  ["@fontsource-variable/literata", "literata-latin-wght-italic", "Literata Variable"],
  ["@fontsource-variable/literata", "literata-latin-wght-normal", "Literata Variable"],
  ["@fontsource-variable/literata", "literata-greek-wght-italic", "Literata"],
  ["@fontsource-variable/literata", "literata-greek-wght-normal", "Literata"],
  ["@fontsource-variable/literata", "literata-latin-ext-wght-italic", "Georgia"],
  ["@fontsource-variable/literata", "literata-latin-ext-wght-normal", "Georgia"],
  ["@fontsource-variable/jetbrains-mono", "jetbrains-mono-latin-wght-normal", "JetBrains Mono Variable"],
] as const;

const require = createRequire(import.meta.url);
for (const [from, file, family] of FONTS)
  GlobalFonts.registerFromPath(
    join(dirname(require.resolve(`${from}/package.json`)), "files", `${file}.woff2`),
    family,
  );

/** Scripts of the fonts. */
const SCRIPTS = new Set(["Latn", "Grek"]);

/** Whether the fonts have the glyphs of a language. */
function isLettered(lang: string): boolean {
  try {
    return SCRIPTS.has(new Intl.Locale(lang).maximize().script ?? "");
  } catch {
    return false;
  }
}

/** Tiles of which the names are kept: stills of one town share them. */
const KEPT_TILES = 1000;

/** What stills are made of: map features, and the names of tiles that earlier ones needed. */
export class StillSource {
  readonly cutter: TileCutter;
  readonly #labels = new LRUCache<string, Label[]>({ max: KEPT_TILES });

  constructor(features: Iterable<MapFeature>) {
    this.cutter = new TileCutter(features);
  }

  /** Shows something otherwise from now on. */
  amend(how: (cutter: TileCutter) => void): void {
    how(this.cutter);
    this.#labels.clear();
  }

  labels(tile: TileName, { style, langs }: Pick<Still, "style" | "langs">): Label[] {
    const name = JSON.stringify([tile.z, tile.x, tile.y, style, langs]);
    let labels = this.#labels.get(name);
    if (!labels) {
      const features = this.cutter.cutPart(partOf(tile), (properties) => hasLabel(properties, style));
      labels = labelsOf(features, { langs, style });
      this.#labels.set(name, labels);
    }
    return labels;
  }
}

/** Lets others have their turn; throws when the still is not wanted any more. */
export type Between = () => Promise<void>;

/**
 * Paints a still with the same painter as the map in a page, in steps: whoever waits for a piece of the map meanwhile
 * gets it between two of them.
 * @returns a PNG
 */
export async function paintStill(
  source: StillSource,
  { view, size, density, night, style, langs, over }: Still,
  between: Between = async () => undefined,
): Promise<Uint8Array> {
  const [width, height] = [size.width * density, size.height * density];
  const canvas = createCanvas(width, height);
  const context = canvas.getContext("2d", { alpha: false });
  const painter = context as unknown as Painter;
  const palette = night ? NIGHT : DAY;
  context.scale(density, density);
  for (const part of partsOf(view, size)) {
    const features = source.cutter.cutPart(part, (properties) => isPainted(properties, style));
    await between();
    context.save();
    context.translate(part.x, 0);
    context.scale(part.scale, part.scale);
    context.beginPath();
    context.rect(0, 0, part.width, part.height);
    context.clip();
    paintPart(painter, features, part, { palette, style });
    context.restore();
    await between();
  }
  // tile by tile, so that names stand in place on the map in a page
  const labels: Label[] = [];
  for (const tile of tilesOf(view, size)) {
    labels.push(...source.labels(tile, { style, langs }));
    await between();
  }
  drawOver(painter, view, size, palette, labels, { ...over, lang: langs.find(isLettered) ?? "en", isStill: true });
  await between();
  return encodePng(canvas.data(), width, height);
}
