import { project, TILE } from "../geo/index.ts";
import type { SheetFeature, SheetLayer } from "./features.ts";
import type { Painter } from "./painter.ts";
import type { SheetStyle } from "./styles.ts";

/** Which square of OGC WebMercatorQuad is painted. */
export interface TileName {
  z: number;
  x: number;
  y: number;
}

type Point = [x: number, y: number];

/** What is painted: a part of the whole world's square at a zoom, in CSS pixels from its north-west corner. */
export interface SheetPart {
  z: number;
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Lines of the sea's hatching, and the dots of parks, in pixels apart; divide a tile, so that they run on beyond it. */
const HATCH = 8;

/**
 * Paints a tile's features from its north-west corner, without any labels.
 * @param features of the tile, with a margin around it
 * @param painter a context with one unit to a CSS pixel
 */
export function paintTile(
  painter: Painter,
  features: readonly SheetFeature[],
  { z, x, y }: TileName,
  style: SheetStyle,
): void {
  paintPart(painter, features, { z, left: x * TILE, top: y * TILE, width: TILE, height: TILE }, style);
}

/** Paints any part of a sheet from its north-west corner, without any labels. */
export function paintPart(
  painter: Painter,
  features: readonly SheetFeature[],
  part: SheetPart,
  style: SheetStyle,
): void {
  const sheet = new Sheet(painter, part, style);
  const of = (layer: SheetLayer) => features.filter((feature) => feature.properties.layer === layer);
  painter.lineJoin = "round";
  painter.lineCap = "round";
  sheet.sea();
  sheet.land(of("land"));
  for (const park of of("park")) sheet.park(park);
  for (const [rank, contours] of byRank(of("contour"))) sheet.lines(contours, style.contour, rank === 1 ? 1.1 : 0.6);
  for (const [rank, rivers] of byRank(of("river")))
    sheet.lines(rivers, style.river, sheet.width(rank === 1 ? 1.4 : 0.9, 1.18));
  for (const [rank, boundaries] of byRank(of("boundary")))
    sheet.lines(boundaries, style.boundary, rank === 1 ? 1.2 : 0.8, [6, 4]);
  sheet.buildings(of("building"));
  sheet.lines(of("ferry"), style.ferry, 1, [3, 5]);
  sheet.streets(of("street"));
}

/** Features by rank, the least important first. */
function byRank(features: readonly SheetFeature[]): [rank: number, features: SheetFeature[]][] {
  const ranks = new Map<number, SheetFeature[]>();
  for (const feature of features) {
    const { rank } = feature.properties;
    const its = ranks.get(rank);
    if (its) its.push(feature);
    else ranks.set(rank, [feature]);
  }
  return [...ranks].sort((a, b) => b[0] - a[0]);
}

/** One part of a sheet being painted. */
class Sheet {
  constructor(
    private readonly painter: Painter,
    private readonly part: SheetPart,
    private readonly style: SheetStyle,
  ) {}

  sea(): void {
    const { painter, style } = this;
    const { top, width, height } = this.part;
    painter.fillStyle = style.sea;
    painter.fillRect(0, 0, width, height);
    painter.beginPath();
    for (let row = Math.floor(top / HATCH); row * HATCH < top + height; row++) {
      const y = (row + 0.5) * HATCH - top;
      painter.moveTo(-2, y);
      painter.lineTo(width + 2, y);
    }
    this.#ink(style.seaLine, 0.7);
  }

  land(features: readonly SheetFeature[]): void {
    for (const feature of features) this.area(feature, this.style.land, this.style.coast, this.part.z < 10 ? 0.8 : 1.3);
  }

  park(feature: SheetFeature): void {
    const { painter, style } = this;
    this.area(feature, style.park);
    if (this.part.z < 14) return;
    painter.save();
    this.#trace([feature]);
    painter.clip("evenodd");
    painter.fillStyle = style.parkDot;
    painter.beginPath();
    const { left, top } = this.part;
    const box = this.#boxOf(feature);
    // rows 8 px apart, every second one shifted
    for (let row = Math.floor((box.top + top) / HATCH); row * HATCH < box.bottom + top; row++) {
      const y = (row + 0.5) * HATCH - top;
      const shift = (row % 2) * (HATCH / 2) - left;
      for (let column = Math.floor((box.left + left) / HATCH); column * HATCH <= box.right + left; column++) {
        const x = column * HATCH + shift;
        painter.moveTo(x + 0.9, y);
        painter.arc(x, y, 0.9, 0, 2 * Math.PI);
      }
    }
    painter.fill();
    painter.restore();
  }

  area(feature: SheetFeature, fill: string, stroke?: string, width = 1): void {
    this.#trace([feature]);
    this.painter.fillStyle = fill;
    this.painter.fill("evenodd");
    if (stroke) this.#ink(stroke, width);
  }

  /** All in one path: one by one a town takes three times as long. */
  buildings(features: readonly SheetFeature[]): void {
    if (!features.length) return;
    this.#trace(features);
    this.painter.fillStyle = this.style.building;
    this.painter.fill("nonzero");
    this.#ink(this.style.buildingLine, 0.6);
  }

  lines(features: readonly SheetFeature[], stroke: string, width: number, dash: number[] = []): void {
    if (!features.length) return;
    this.#trace(features);
    this.painter.setLineDash(dash);
    this.#ink(stroke, width);
    this.painter.setLineDash([]);
  }

  /** All casings first, then the paper of all streets, broad ones last, so that crossings are open. */
  streets(features: readonly SheetFeature[]): void {
    const { style } = this;
    const ranks = byRank(features);
    for (const [rank, streets] of ranks) {
      if (this.part.z < 12) this.lines(streets, style.casing, rank === 1 ? 1 : 0.5);
      else this.lines(streets, style.casing, this.#streetWidth(rank) + 1.6);
    }
    if (this.part.z < 12) return;
    for (const [rank, streets] of ranks)
      this.lines(
        streets,
        rank === 1 ? style.road : rank === 2 ? style.mainStreet : style.street,
        this.#streetWidth(rank),
      );
  }

  #streetWidth(rank: number): number {
    const base = [3.4, 3, 2, 1.3][rank - 1] ?? 1.3;
    return Math.max(0.8, this.width(base, 1.55));
  }

  /** The box around an area, in pixels, as far as it lies in the part. */
  #boxOf({ geometry }: SheetFeature): { left: number; top: number; right: number; bottom: number } {
    const { width, height } = this.part;
    const rings = geometry.type === "Polygon" ? geometry.coordinates : [];
    const points = (geometry.type === "MultiPolygon" ? geometry.coordinates.flat() : rings).flat().map(this.#spot);
    const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
    return {
      left: Math.max(0, Math.min(...xs)),
      top: Math.max(0, Math.min(...ys)),
      right: Math.min(width, Math.max(...xs)),
      bottom: Math.min(height, Math.max(...ys)),
    };
  }

  /** A width that grows with the zoom, given for zoom 14. */
  width(base: number, growth: number): number {
    return base * growth ** (this.part.z - 14);
  }

  #ink(stroke: string, width: number): void {
    this.painter.strokeStyle = stroke;
    this.painter.lineWidth = width;
    this.painter.stroke();
  }

  #trace(features: readonly SheetFeature[]): void {
    this.painter.beginPath();
    for (const { geometry } of features) {
      if (geometry.type === "LineString") this.#path(geometry.coordinates, false);
      else if (geometry.type === "MultiLineString") for (const line of geometry.coordinates) this.#path(line, false);
      else if (geometry.type === "Polygon") for (const ring of geometry.coordinates) this.#path(ring, true);
      else if (geometry.type === "MultiPolygon") for (const ring of geometry.coordinates.flat()) this.#path(ring, true);
    }
  }

  /** Pixels of a position, from the part's north-west corner. */
  readonly #spot = ([lon, lat]: Point): { x: number; y: number } => {
    const { z, left, top } = this.part;
    const size = TILE * 2 ** z;
    const { x, y } = project({ lat, lon });
    return { x: x * size - left, y: y * size - top };
  };

  #path(line: readonly Point[], close: boolean): void {
    line.forEach((point, i) => {
      const { x, y } = this.#spot(point);
      if (i === 0) this.painter.moveTo(x, y);
      else this.painter.lineTo(x, y);
    });
    if (close) this.painter.closePath();
  }
}
