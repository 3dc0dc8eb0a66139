import { project, TILE } from "../geo/index.ts";
import type { SheetFeature, SheetGeometry, SheetLayer } from "./features.ts";
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
  for (const contour of of("contour")) sheet.line(contour, style.contour, contour.properties.rank === 1 ? 1.1 : 0.6);
  for (const river of of("river"))
    sheet.line(river, style.river, sheet.width(river.properties.rank === 1 ? 1.4 : 0.9, 1.18));
  for (const boundary of of("boundary"))
    sheet.line(boundary, style.boundary, boundary.properties.rank === 1 ? 1.2 : 0.8, [6, 4]);
  for (const building of of("building")) sheet.area(building, style.building, style.buildingLine, 0.6);
  for (const ferry of of("ferry")) sheet.line(ferry, style.ferry, 1, [3, 5]);
  sheet.streets(of("street"));
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
    this.#trace(feature.geometry);
    painter.clip("evenodd");
    painter.fillStyle = style.parkDot;
    painter.beginPath();
    const { left, top, width, height } = this.part;
    // rows 8 px apart, every second one shifted
    for (let row = Math.floor(top / HATCH); row * HATCH < top + height; row++) {
      const y = (row + 0.5) * HATCH - top;
      const shift = (row % 2) * (HATCH / 2) - left;
      for (let column = Math.floor(left / HATCH); column * HATCH <= left + width; column++) {
        const x = column * HATCH + shift;
        painter.moveTo(x + 0.9, y);
        painter.arc(x, y, 0.9, 0, 2 * Math.PI);
      }
    }
    painter.fill();
    painter.restore();
  }

  area(feature: SheetFeature, fill: string, stroke?: string, width = 1): void {
    this.#trace(feature.geometry);
    this.painter.fillStyle = fill;
    this.painter.fill("evenodd");
    if (stroke) this.#ink(stroke, width);
  }

  line(feature: SheetFeature, stroke: string, width: number, dash: number[] = []): void {
    this.#trace(feature.geometry);
    this.painter.setLineDash(dash);
    this.#ink(stroke, width);
    this.painter.setLineDash([]);
  }

  /** All casings first, then the paper of all streets, broad ones last, so that crossings are open. */
  streets(features: readonly SheetFeature[]): void {
    const ordered = [...features].sort((a, b) => b.properties.rank - a.properties.rank);
    for (const street of ordered) {
      if (this.part.z < 12) this.line(street, this.style.casing, street.properties.rank === 1 ? 1 : 0.5);
      else this.line(street, this.style.casing, this.#streetWidth(street) + 1.6);
    }
    if (this.part.z < 12) return;
    for (const street of ordered) {
      const { rank } = street.properties;
      this.line(
        street,
        rank === 1 ? this.style.road : rank === 2 ? this.style.mainStreet : this.style.street,
        this.#streetWidth(street),
      );
    }
  }

  #streetWidth(street: SheetFeature): number {
    const base = [3.4, 3, 2, 1.3][street.properties.rank - 1] ?? 1.3;
    return Math.max(0.8, this.width(base, 1.55));
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

  #trace(geometry: SheetGeometry): void {
    this.painter.beginPath();
    if (geometry.type === "LineString") this.#path(geometry.coordinates, false);
    else if (geometry.type === "MultiLineString") for (const line of geometry.coordinates) this.#path(line, false);
    else if (geometry.type === "Polygon") for (const ring of geometry.coordinates) this.#path(ring, true);
    else if (geometry.type === "MultiPolygon") for (const ring of geometry.coordinates.flat()) this.#path(ring, true);
  }

  #path(line: readonly Point[], close: boolean): void {
    const { z, left, top } = this.part;
    const size = TILE * 2 ** z;
    line.forEach(([lon, lat], i) => {
      const { x, y } = project({ lat, lon });
      if (i === 0) this.painter.moveTo(x * size - left, y * size - top);
      else this.painter.lineTo(x * size - left, y * size - top);
    });
    if (close) this.painter.closePath();
  }
}
