import { project, TILE, unproject } from "../geo/index.ts";
import { clipLine, clipRing, type Frame, frameAround, frameHolds, framesMeet, type Line } from "./clip.ts";
import type { SheetFeature, SheetGeometry, SheetTile } from "./features.ts";
import type { SheetPart, TileName } from "./paint.ts";
import { simplify } from "./simplify.ts";

/** Pixels around a tile that its features reach into, so that no edge shows where two tiles meet. */
const MARGIN = 64;
/** Coordinates are rounded to this part of a pixel. */
const GRAIN = 16;
/** Pixels that simplification may move a line. */
const TOLERANCE = 0.4;
/** From this zoom on, everything is drawn as it is. */
const EXACT_ZOOM = 16;

/** A feature on the projected square. */
interface Prepared {
  source: SheetFeature;
  /** Lines, or polygons as rings; a point is a line of one point. */
  pieces: { lines: Line[]; frame: Frame }[];
  frame: Frame;
}

/** Features of one kind of data, ready to be cut into tiles. Simplified once for each zoom. */
export class SheetCutter {
  readonly #prepared: Prepared[];
  readonly #byZoom = new Map<number, Prepared[]>();

  constructor(features: Iterable<SheetFeature>) {
    this.#prepared = [...features].map(prepare);
  }

  /** The features of a tile (OGC WebMercatorQuad numbering), with a margin of 64 pixels. */
  cut({ z, x, y }: TileName): SheetTile {
    const part = { z, left: x * TILE, top: y * TILE, width: TILE, height: TILE };
    return { type: "FeatureCollection", features: this.cutPart(part) };
  }

  /** The features of any part of a sheet, with the same margin. */
  cutPart({ z, left, top, width, height }: SheetPart): SheetFeature[] {
    const whole = TILE * 2 ** z;
    const frame: Frame = {
      left: (left - MARGIN) / whole,
      top: (top - MARGIN) / whole,
      right: (left + width + MARGIN) / whole,
      bottom: (top + height + MARGIN) / whole,
    };
    return this.#at(z)
      .filter((feature) => framesMeet(feature.frame, frame))
      .flatMap((feature): SheetFeature[] => {
        const geometry = cutGeometry(feature, frame, z);
        return geometry ? [{ ...feature.source, geometry }] : [];
      });
  }

  #at(zoom: number): Prepared[] {
    const level = Math.min(zoom, EXACT_ZOOM);
    let features = this.#byZoom.get(level);
    if (!features) {
      const shown = this.#prepared.filter(({ source }) => level >= firstZoom(source.properties));
      features =
        level === EXACT_ZOOM ? shown : shown.map((feature) => simplified(feature, TOLERANCE / (TILE * 2 ** level)));
      this.#byZoom.set(level, features);
    }
    return features;
  }
}

/** The zoom from which a feature is shown, by layer and rank. */
export function firstZoom({ layer, rank, what }: SheetFeature["properties"]): number {
  if (what === "water") return 9;
  if (what === "country") return 0;
  return FIRST_ZOOM[layer][Math.min(rank, FIRST_ZOOM[layer].length) - 1];
}

const FIRST_ZOOM: Readonly<Record<SheetFeature["properties"]["layer"], readonly number[]>> = {
  land: [0],
  park: [12, 12],
  contour: [10, 12, 13],
  water: [8],
  river: [8, 11],
  boundary: [7, 10],
  building: [15],
  ferry: [5],
  street: [8, 12, 13, 14],
  name: [8, 9, 11],
};

function prepare(source: SheetFeature): Prepared {
  const pieces = partsOf(source.geometry).map((rings) => {
    const lines = rings.map((ring) =>
      Float64Array.from(ring.flatMap(([lon, lat]) => Object.values(project({ lat, lon })))),
    );
    return { lines, frame: frameAround(lines[0]) };
  });
  return { source, pieces, frame: around(pieces.map((piece) => piece.frame)) };
}

type Pairs = [number, number][];

/** A geometry as parts: each a line, a point, or a polygon's rings. */
function partsOf(geometry: SheetGeometry): Pairs[][] {
  if (geometry.type === "Point") return [[[geometry.coordinates]]];
  if (geometry.type === "LineString") return [[geometry.coordinates]];
  if (geometry.type === "MultiLineString") return geometry.coordinates.map((line) => [line]);
  return geometry.type === "Polygon" ? [geometry.coordinates] : geometry.coordinates;
}

function around(frames: readonly Frame[]): Frame {
  return frameAround(frames.flatMap((f) => [f.left, f.top, f.right, f.bottom]));
}

function simplified(feature: Prepared, tolerance: number): Prepared {
  return {
    ...feature,
    pieces: feature.pieces.map((piece) => ({ ...piece, lines: piece.lines.map((line) => simplify(line, tolerance)) })),
  };
}

function cutGeometry({ source, pieces }: Prepared, frame: Frame, z: number): SheetGeometry | undefined {
  const near = pieces.filter((piece) => framesMeet(piece.frame, frame));
  const { type } = source.geometry;
  if (type === "Point") return near.length ? source.geometry : undefined;
  if (type === "LineString" || type === "MultiLineString") {
    const lines = near
      .flatMap((piece) => (frameHolds(frame, piece.frame) ? piece.lines : clipLine(piece.lines[0], frame)))
      .map((line) => degrees(line, z))
      .filter((line) => line.length > 1);
    if (!lines.length) return undefined;
    return lines.length === 1
      ? { type: "LineString", coordinates: lines[0] }
      : { type: "MultiLineString", coordinates: lines };
  }
  const polygons = near
    .map((piece) =>
      piece.lines
        .map((ring) => closed(degrees(frameHolds(frame, piece.frame) ? ring : clipRing(ring, frame), z)))
        .filter((ring) => ring.length > 3),
    )
    .filter((rings) => rings.length > 0);
  if (!polygons.length) return undefined;
  return polygons.length === 1
    ? { type: "Polygon", coordinates: polygons[0] }
    : { type: "MultiPolygon", coordinates: polygons };
}

/** Rounds to the grain of a zoom, drops points that fall together, and goes back to degrees. */
function degrees(line: Line, z: number): Pairs {
  const steps = TILE * 2 ** z * GRAIN;
  const pairs: Pairs = [];
  let lastX = Number.NaN;
  let lastY = Number.NaN;
  for (let i = 0; i < line.length; i += 2) {
    const x = Math.round(line[i] * steps);
    const y = Math.round(line[i + 1] * steps);
    if (x === lastX && y === lastY) continue;
    const { lat, lon } = unproject({ x: x / steps, y: y / steps });
    pairs.push([round(lon), round(lat)]);
    lastX = x;
    lastY = y;
  }
  return pairs;
}

function closed(ring: Pairs): Pairs {
  if (ring.length < 3) return [];
  const [first, last] = [ring[0], ring[ring.length - 1]];
  return first[0] === last[0] && first[1] === last[1] ? ring : [...ring, first];
}

const round = (value: number) => Math.round(value * 1e7) / 1e7;
