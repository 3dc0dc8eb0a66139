import { project, TILE } from "../geo/index.ts";
import type { MapFeature } from "./features.ts";
import type { Painter } from "./painter.ts";
import type { Palette } from "./palettes.ts";

/** What is painted: a part of the world's square at a zoom, in CSS pixels from the north-west corner. */
export interface MapPart {
  z: number;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** A spot of a part, or a box in it, in CSS pixels from the north-west corner. */
export type Spot = [x: number, y: number];
export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** CSS pixels that no line's ink reaches from the middle. Of what a tile's margin holds, most is never seen. */
const BROAD = 24;

/** Draws features on one part of the map. */
export class Pen {
  /** Where the points of the line in hand are: x, y after one another. */
  #spots = new Float64Array(64);

  constructor(
    readonly painter: Painter,
    readonly part: MapPart,
    readonly palette: Palette,
  ) {}

  /** Fills areas, all in one path: one by one a town takes three times as long. */
  fill(features: readonly MapFeature[], colour: string, rule: "evenodd" | "nonzero" = "evenodd"): void {
    if (!features.length) return;
    this.trace(features);
    this.painter.fillStyle = colour;
    this.painter.fill(rule);
  }

  /** Fills areas and inks their outlines; in one path where no tile cut them, since tracing takes longer than painting. */
  areas(features: readonly MapFeature[], colour: string, rule: "evenodd" | "nonzero", ink: string, width: number) {
    const isCut = (feature: MapFeature) => Boolean(feature.properties.cuts?.some((ring) => ring.length));
    const uncut = features.filter((feature) => !isCut(feature));
    this.fill(uncut, colour, rule);
    if (uncut.length) this.ink(ink, width);
    const cut = features.filter(isCut);
    this.fill(cut, colour, rule);
    this.lines(cut, ink, width);
  }

  /** Inks lines, and outlines of areas where they are the areas' own. */
  lines(features: readonly MapFeature[], colour: string, width: number, dash: number[] = []): void {
    if (!features.length) return;
    this.painter.beginPath();
    for (const feature of features) this.#outline(feature);
    this.painter.setLineDash(dash);
    this.ink(colour, width);
    this.painter.setLineDash([]);
  }

  /** Lets nothing be drawn outside an area until the painter's state is restored. Expensive: never for a tile. */
  clip(area: MapFeature): void {
    this.trace([area]);
    this.painter.clip("evenodd");
  }

  ink(colour: string, width: number): void {
    this.painter.strokeStyle = colour;
    this.painter.lineWidth = width;
    this.painter.stroke();
  }

  /** Begins a path of some features, areas closed. */
  trace(features: readonly MapFeature[]): void {
    this.painter.beginPath();
    for (const { geometry } of features) {
      if (geometry.type === "LineString") this.#path(geometry.coordinates, false);
      else if (geometry.type === "MultiLineString") for (const line of geometry.coordinates) this.#path(line, false);
      else for (const ring of ringsOf({ geometry })) this.#path(ring, true);
    }
  }

  /** A width that grows with the zoom, given for zoom 14. */
  width(base: number, growth: number): number {
    return base * growth ** (this.part.z - 14);
  }

  /** The box around an area as far as it lies in the part. */
  boxOf(feature: MapFeature): Box {
    const { width, height } = this.part;
    const box = { left: width, top: height, right: 0, bottom: 0 };
    for (const pair of ringsOf(feature).flat()) {
      const [x, y] = this.spot(pair);
      box.left = Math.max(0, Math.min(box.left, x));
      box.top = Math.max(0, Math.min(box.top, y));
      box.right = Math.min(width, Math.max(box.right, x));
      box.bottom = Math.min(height, Math.max(box.bottom, y));
    }
    return box;
  }

  spot([lon, lat]: readonly [number, number]): Spot {
    const { z, left, top } = this.part;
    const size = TILE * 2 ** z;
    const { x, y } = project({ lat, lon });
    return [x * size - left, y * size - top];
  }

  #outline({ geometry, properties: { cuts } }: MapFeature): void {
    if (geometry.type === "LineString") this.#path(geometry.coordinates, false);
    else if (geometry.type === "MultiLineString") for (const line of geometry.coordinates) this.#path(line, false);
    else for (const [i, ring] of ringsOf({ geometry }).entries()) this.#ringBut(ring, cuts?.[i]);
  }

  /** A ring without the edges at which it was cut. */
  #ringBut(ring: readonly Spot[], cuts: readonly number[] | undefined): void {
    if (!cuts?.length) {
      this.#path(ring, true);
      return;
    }
    if (!this.#place(ring)) return;
    const skipped = new Set(cuts);
    for (let i = 0; i < ring.length; i++) {
      const [x, y] = [this.#spots[2 * i], this.#spots[2 * i + 1]];
      if (i === 0 || skipped.has(i - 1)) this.painter.moveTo(x, y);
      else this.painter.lineTo(x, y);
    }
  }

  #path(line: readonly Spot[], close: boolean): void {
    if (!this.#place(line)) return;
    const { painter } = this;
    const spots = this.#spots;
    painter.moveTo(spots[0], spots[1]);
    let end = 2 * line.length;
    // closing draws the edge back to the first point
    if (close && spots[end - 2] === spots[0] && spots[end - 1] === spots[1]) end -= 2;
    for (let i = 2; i < end; i += 2) painter.lineTo(spots[i], spots[i + 1]);
    if (close) painter.closePath();
  }

  /** Notes where a line's points are. @returns false when nothing of it can be seen on the part */
  #place(line: readonly Spot[]): boolean {
    const { z, left, top, width, height } = this.part;
    const size = TILE * 2 ** z;
    if (this.#spots.length < 2 * line.length) this.#spots = new Float64Array(4 * line.length);
    let [west, north, east, south] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let i = 0; i < line.length; i++) {
      const { x, y } = project({ lat: line[i][1], lon: line[i][0] });
      const [right, down] = [x * size - left, y * size - top];
      this.#spots[2 * i] = right;
      this.#spots[2 * i + 1] = down;
      west = Math.min(west, right);
      north = Math.min(north, down);
      east = Math.max(east, right);
      south = Math.max(south, down);
    }
    return west < width + BROAD && east > -BROAD && north < height + BROAD && south > -BROAD;
  }
}

/** The rings of an area, polygon after polygon; none of anything else. */
export function ringsOf({ geometry }: Pick<MapFeature, "geometry">): [number, number][][] {
  if (geometry.type === "Polygon") return geometry.coordinates;
  return geometry.type === "MultiPolygon" ? geometry.coordinates.flat() : [];
}

/** Features by rank, the least important first. */
export function byRank(features: readonly MapFeature[]): [rank: number, features: MapFeature[]][] {
  const ranks = new Map<number, MapFeature[]>();
  for (const feature of features) {
    const { rank } = feature.properties;
    const own = ranks.get(rank);
    if (own) own.push(feature);
    else ranks.set(rank, [feature]);
  }
  return [...ranks].sort((a, b) => b[0] - a[0]);
}
