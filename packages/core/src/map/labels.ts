import { project } from "../geo/index.ts";
import type { MapFeature, Name } from "./features.ts";
import type { MapStyle } from "./paint.ts";
import { ringsOf } from "./pen.ts";

/** A name, or a height, that is to be written on the map. Places on the projected square, 0 to 1. */
export interface Label {
  text: string;
  /** The local name, where the text is in another language. */
  local?: string;
  /** Names of the same thing in several tiles share it. */
  key: string;
  what: "country" | "town" | "water" | "park" | "street" | "peak" | "contour";
  rank: number;
  x: number;
  y: number;
  /** Radians; 0 for level text. */
  turn: number;
  /** Length of the line it runs along, on the projected square; 0 for a point. */
  run: number;
}

/** A label with the box it takes on the screen. */
export interface LabelBox {
  label: Label;
  /** Middle, in CSS pixels. */
  x: number;
  y: number;
}

/** Which names a reader wants. */
export interface Reading {
  /** BCP 47, the most wanted first; the local names where there is none in any of them. */
  langs?: readonly string[];
  /** Streets when not given. */
  style?: MapStyle;
}

const ON_STYLE: Readonly<Record<MapStyle, ReadonlySet<Label["what"]>>> = {
  streets: new Set(["country", "town", "water", "park", "street"]),
  "named-ground": new Set(["country", "town", "water", "park", "street"]),
  heights: new Set(["country", "town", "water", "peak", "contour", "street"]),
  ground: new Set(),
};

/** True for features that may have a label in a map style. */
export function hasLabel({ layer, rank, names, what }: MapFeature["properties"], style: MapStyle): boolean {
  if (style === "ground") return false;
  if (what === "peak") return style === "heights";
  return layer === "contour" ? style === "heights" && rank <= MOST_CONTOUR_RANK : Boolean(names?.length);
}

/** Contours of lower importance have no height written on them. */
const MOST_CONTOUR_RANK = 2;

/** The labels of a tile's features that belong to a map style: names of points, of streets along them, and heights. */
export function labelsOf(features: readonly MapFeature[], { langs = [], style = "streets" }: Reading = {}): Label[] {
  const wanted = ON_STYLE[style];
  return features
    .flatMap((feature) => (feature.properties.layer === "contour" ? contourLabels(feature) : namesOf(feature, langs)))
    .filter(({ what }) => wanted.has(what));
}

function namesOf({ geometry, properties, id }: MapFeature, langs: readonly string[]): Label[] {
  const { layer, rank, what, height } = properties;
  if (layer === "name" && what === "peak" && geometry.type === "Point") {
    const { x, y } = spotOf(geometry.coordinates);
    return [{ text: String(height), key: `peak ${x} ${y}`, what, rank: 4 + rank, turn: 0, run: 0, x, y }];
  }
  const names = properties.names ?? [];
  if (!names.length) return [];
  const { name: text } = nameFor(names, langs);
  const local = names[0].name;
  const label = { text, key: id ?? text, ...(local === text ? {} : { local }) };
  if (layer === "name" && geometry.type === "Point") {
    const kind = what === "water" || what === "country" ? what : "town";
    return [{ ...label, what: kind, rank, turn: 0, run: 0, ...spotOf(geometry.coordinates) }];
  }
  if (layer === "park" && geometry.type === "Polygon")
    return [{ ...label, what: "park", rank: 5, turn: 0, run: 0, ...middleOf(geometry.coordinates[0]) }];
  if (layer !== "street") return [];
  return linesOf(geometry).map((line) => ({
    ...label,
    what: "street" as const,
    rank: 5 + rank,
    ...alongLine(line.map(spotOf)),
  }));
}

/** The name in the first preferred language that there is (RFC 4647 basic filtering), else the local one. */
function nameFor(names: readonly Name[], langs: readonly string[]): Name {
  for (const lang of langs) {
    const wanted = lang.toLowerCase();
    const found = names.find((name) => `${name.lang.toLowerCase()}-`.startsWith(`${wanted}-`));
    if (found) return found;
  }
  return names[0];
}

/** Heights along the more important contours, in the middle of each stretch that no tile cut. */
function contourLabels(feature: MapFeature): Label[] {
  const { rank, height, cuts } = feature.properties;
  if (rank > MOST_CONTOUR_RANK) return [];
  return ringsOf(feature).flatMap((ring, i): Label[] => {
    const along = alongLine(longestStretch(ring, new Set(cuts?.[i])).map(spotOf));
    // one for each part of the map as broad as some hundred metres
    const key = `${height} m ${Math.round(along.x * 30000)} ${Math.round(along.y * 30000)}`;
    return [{ text: String(height), key, what: "contour", rank: 20 + rank, ...along }];
  });
}

function longestStretch(ring: readonly Pair[], cuts: ReadonlySet<number>): Pair[] {
  const stretches: Pair[][] = [[ring[0]]];
  for (let i = 1; i < ring.length; i++) {
    if (cuts.has(i - 1)) stretches.push([ring[i]]);
    else stretches[stretches.length - 1].push(ring[i]);
  }
  return stretches.reduce((a, b) => (b.length > a.length ? b : a));
}

type Pair = readonly [lon: number, lat: number];

function linesOf(geometry: MapFeature["geometry"]): Pair[][] {
  if (geometry.type === "LineString") return [geometry.coordinates];
  return geometry.type === "MultiLineString" ? geometry.coordinates : [];
}

function spotOf([lon, lat]: Pair): { x: number; y: number } {
  return project({ lat, lon });
}

function middleOf(ring: readonly Pair[]): { x: number; y: number } {
  const points = ring.map(spotOf);
  return {
    x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
    y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
  };
}

/** The middle of a line, its direction there (never upside down) and its length. */
function alongLine(points: readonly { x: number; y: number }[]): Pick<Label, "x" | "y" | "turn" | "run"> {
  const lengths = points.slice(1).map((p, i) => Math.hypot(p.x - points[i].x, p.y - points[i].y));
  const run = lengths.reduce((sum, length) => sum + length, 0);
  let left = run / 2;
  for (let i = 0; i < lengths.length; i++) {
    const [a, b] = [points[i], points[i + 1]];
    if (left <= lengths[i] || i === lengths.length - 1) {
      const t = lengths[i] ? left / lengths[i] : 0;
      let turn = Math.atan2(b.y - a.y, b.x - a.x);
      if (turn > Math.PI / 2) turn -= Math.PI;
      if (turn <= -Math.PI / 2) turn += Math.PI;
      return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t, turn, run };
    }
    left -= lengths[i];
  }
  return { ...points[0], turn: 0, run: 0 };
}

/** CSS pixels of the shortest stretch of a contour that has its height written on it. */
const LEAST_CONTOUR = 150;
/** CSS pixels from a name to the local one below it, and from a peak's sign to the height. */
export const LOCAL_LINE = 14;
export const PEAK_LINE = 11;

/** A box on the screen, in CSS pixels. */
export interface ScreenBox {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** What labels have to keep to. */
export interface Room {
  /** CSS pixels of the picture that names must lie within. */
  within?: { width: number; height: number };
  /** Leaves names out without a place being looked for. */
  isShown?: (label: Label) => boolean;
  /** What is on the map and must not be written over. */
  kept?: readonly ScreenBox[];
}

/** CSS pixels down that the name of a point may be moved to keep clear of what is there, the first that fits. */
const SHIFTS = [0, -24, 46];

/**
 * Chooses the labels that fit on a view: important ones first, none over another, none twice.
 * @param toScreen gives CSS pixels for a point of the projected square
 * @param scale CSS pixels of the square's side
 * @param widthOf text width in CSS pixels
 */
export function placeLabels(
  labels: readonly Label[],
  toScreen: (point: { x: number; y: number }) => { x: number; y: number },
  scale: number,
  widthOf: (label: Label) => number,
  { within, kept = [], isShown }: Room = {},
): LabelBox[] {
  const placed: LabelBox[] = [];
  const taken: ScreenBox[] = [...kept];
  const shown = new Set<string>();
  for (const one of ordered(labels)) {
    if (shown.has(one.key) || (isShown && !isShown(one))) continue;
    const label = one.what === "street" ? alongStreet(one, (own) => one.run * scale >= widthOf(own) * 1.15) : one;
    if (!label) continue;
    const width = widthOf(label);
    if (label.what === "contour" && label.run * scale < LEAST_CONTOUR) continue;
    const spot = toScreen(label);
    const fits = (shift: number) => {
      const box = boxOf(label, width, spot.x, spot.y + shift);
      if (within && (box.left < 0 || box.top < 0 || box.right > within.width || box.bottom > within.height))
        return false;
      return !taken.some((other) => meet(box, other));
    };
    // only what is on the map is made way for: names that got out of each other's way would jump about
    const isCovered = kept.some((other) => meet(boxOf(label, width, spot.x, spot.y), other));
    const shift = (isCovered && !label.run && label.what !== "peak" ? SHIFTS : [0]).find(fits);
    if (shift === undefined) continue;
    taken.push(boxOf(label, width, spot.x, spot.y + shift));
    shown.add(label.key);
    placed.push({ label, x: spot.x, y: spot.y + shift });
  }
  return placed;
}

/** A street's name as it is on the street: with the local one behind it where there is room. */
function alongStreet(label: Label, hasRoom: (label: Label) => boolean): Label | undefined {
  if (!label.local) return hasRoom(label) ? label : undefined;
  const alone = { ...label, local: undefined };
  return [{ ...alone, text: `${label.text} · ${label.local}` }, alone].find(hasRoom);
}

/** Lists of names in their order: a map that moves has the same list for many frames. */
const orders = new WeakMap<readonly Label[], Label[]>();

/** The important names first; of the same thing the one with the longest run. */
function ordered(labels: readonly Label[]): Label[] {
  let order = orders.get(labels);
  if (!order) {
    order = labels.toSorted((a, b) => a.rank - b.rank || (a.key < b.key ? -1 : a.key > b.key ? 1 : b.run - a.run));
    orders.set(labels, order);
  }
  return order;
}

function boxOf(label: Label, width: number, x: number, y: number): ScreenBox {
  const halfWidth = (Math.abs(Math.cos(label.turn)) * width) / 2 + 7;
  const halfHeight = (Math.abs(Math.sin(label.turn)) * width) / 2 + 9;
  const below = halfHeight + (label.local ? LOCAL_LINE : 0) + (label.what === "peak" ? PEAK_LINE : 0);
  return { left: x - halfWidth, top: y - halfHeight, right: x + halfWidth, bottom: y + below };
}

const meet = (a: ScreenBox, b: ScreenBox) =>
  a.left < b.right && a.right > b.left && a.top < b.bottom && a.bottom > b.top;
