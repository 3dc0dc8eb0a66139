import { project } from "../geo/index.ts";
import type { SheetFeature } from "./features.ts";

/** A name that wants to stand on the sheet. Places on the projected square, 0 to 1. */
export interface Label {
  text: string;
  /** Names of the same thing in several tiles share it. */
  key: string;
  what: "country" | "town" | "water" | "park" | "street";
  rank: number;
  x: number;
  y: number;
  /** Radians; 0 for level text. */
  turn: number;
  /** Length of the line it stands along, on the projected square; 0 for a point. */
  run: number;
}

/** A label with the box it takes on the screen. */
export interface LabelBox {
  label: Label;
  /** Middle, in CSS pixels. */
  x: number;
  y: number;
}

/** The labels of a tile's features: names of points, and of streets at the middle of their straightest stretch. */
export function labelsOf(features: readonly SheetFeature[]): Label[] {
  const labels: Label[] = [];
  for (const { geometry, properties, id } of features) {
    const text = properties.names?.[0]?.name;
    if (!text) continue;
    if (properties.layer === "name" && geometry.type === "Point") {
      const [lon, lat] = geometry.coordinates;
      labels.push({
        text,
        key: id ?? text,
        what: properties.what === "water" || properties.what === "country" ? properties.what : "town",
        rank: properties.rank,
        turn: 0,
        run: 0,
        ...project({ lat, lon }),
      });
    } else if (properties.layer === "park" && geometry.type === "Polygon") {
      labels.push({
        text,
        key: id ?? text,
        what: "park",
        rank: 5,
        turn: 0,
        run: 0,
        ...middleOf(geometry.coordinates[0]),
      });
    } else if (
      properties.layer === "street" &&
      (geometry.type === "LineString" || geometry.type === "MultiLineString")
    ) {
      const lines = geometry.type === "LineString" ? [geometry.coordinates] : geometry.coordinates;
      for (const line of lines)
        labels.push({ text, key: id ?? text, what: "street", rank: 5 + properties.rank, ...alongLine(line) });
    }
  }
  return labels;
}

function middleOf(ring: readonly (readonly [number, number])[]): { x: number; y: number } {
  const points = ring.map(([lon, lat]) => project({ lat, lon }));
  return {
    x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
    y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
  };
}

/** The middle of a line, its direction there (never upside down) and its length. */
function alongLine(line: readonly (readonly [number, number])[]): Pick<Label, "x" | "y" | "turn" | "run"> {
  const points = line.map(([lon, lat]) => project({ lat, lon }));
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

/**
 * Chooses the labels that fit on a view: important ones first, none over another, none twice.
 * @param toScreen gives CSS pixels for a point of the projected square
 * @param scale CSS pixels of the whole square's side
 * @param widthOf text width in CSS pixels
 * @param within CSS pixels of the picture that names must stand on as a whole
 */
export function placeLabels(
  labels: readonly Label[],
  toScreen: (point: { x: number; y: number }) => { x: number; y: number },
  scale: number,
  widthOf: (label: Label) => number,
  within?: { width: number; height: number },
): LabelBox[] {
  const ordered = [...labels].sort(
    (a, b) => a.rank - b.rank || (a.key < b.key ? -1 : a.key > b.key ? 1 : b.run - a.run),
  );
  const placed: LabelBox[] = [];
  const taken: [number, number, number, number][] = [];
  const shown = new Set<string>();
  for (const label of ordered) {
    if (shown.has(label.key)) continue;
    const width = widthOf(label);
    if (label.what === "street" && label.run * scale < width * 1.15) continue;
    const { x, y } = toScreen(label);
    const halfWidth = (Math.abs(Math.cos(label.turn)) * width) / 2 + 7;
    const halfHeight = (Math.abs(Math.sin(label.turn)) * width) / 2 + 9;
    const box: [number, number, number, number] = [x - halfWidth, y - halfHeight, x + halfWidth, y + halfHeight];
    if (within && (box[0] < 0 || box[1] < 0 || box[2] > within.width || box[3] > within.height)) continue;
    if (taken.some((other) => box[0] < other[2] && box[2] > other[0] && box[1] < other[3] && box[3] > other[1]))
      continue;
    taken.push(box);
    shown.add(label.key);
    placed.push({ label, x, y });
  }
  return placed;
}
