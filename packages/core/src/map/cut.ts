import { project, TILE, unproject } from "../geo/index.ts";
import { clipLine, clipRing, type Frame, frameAround, frameHolds, framesMeet, type Line } from "./clip.ts";
import type { FeatureTile, MapFeature, MapGeometry } from "./features.ts";
import { FrameTree } from "./frame-tree.ts";
import { partOf, type TileName } from "./paint.ts";
import type { MapPart } from "./pen.ts";
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
  source: MapFeature;
  /** Lines, or polygons as rings; a point is a line of one point. */
  pieces: { lines: Line[]; frame: Frame }[];
  frame: Frame;
}

/** The features of one zoom. */
interface Level {
  features: Prepared[];
  tree: FrameTree;
}

/** Features of one kind of data, ready to be cut into tiles. Simplified once for each zoom. */
export class TileCutter {
  readonly #prepared: Prepared[];
  readonly #byZoom = new Map<number, Level>();
  #replaced: ReadonlySet<string> = new Set();
  #instead: TileCutter | undefined;

  constructor(features: Iterable<MapFeature>) {
    this.#prepared = [...features].map(prepare);
  }

  /** All features that have one of some ids, as they came. */
  having(ids: ReadonlySet<string>): MapFeature[] {
    return this.#prepared.map(({ source }) => source).filter(({ id }) => id !== undefined && ids.has(id));
  }

  /** From now on shows other features in place of all that have one of some ids; what was replaced before is back. */
  replace(ids: ReadonlySet<string>, instead: Iterable<MapFeature>): void {
    this.#replaced = ids;
    this.#instead = new TileCutter(instead);
  }

  /** The features of a tile (OGC WebMercatorQuad numbering), with a margin of 64 pixels. */
  cut(tile: TileName): FeatureTile {
    return { type: "FeatureCollection", features: this.cutPart(partOf(tile)) };
  }

  /** The features of any part of the map, with the same margin. @param isWanted leaves others out uncut */
  cutPart(part: MapPart, isWanted: (properties: MapFeature["properties"]) => boolean = () => true): MapFeature[] {
    const { z, left, top, width, height } = part;
    const side = TILE * 2 ** z;
    const frame: Frame = {
      left: (left - MARGIN) / side,
      top: (top - MARGIN) / side,
      right: (left + width + MARGIN) / side,
      bottom: (top + height + MARGIN) / side,
    };
    const { features, tree } = this.#at(z);
    const here = tree
      .meeting(frame)
      .map((place) => features[place])
      .flatMap((feature): MapFeature[] => {
        const { id, properties } = feature.source;
        const isShown = isWanted(properties) && !(id !== undefined && this.#replaced.has(id));
        const cut = isShown && cutGeometry(feature, frame, z);
        if (!cut) return [];
        const { geometry, cuts } = cut;
        const { source } = feature;
        return [{ ...source, geometry, properties: cuts ? { ...source.properties, cuts } : source.properties }];
      });
    return this.#instead ? here.concat(this.#instead.cutPart(part, isWanted)) : here;
  }

  #at(zoom: number): Level {
    const at = Math.min(zoom, EXACT_ZOOM);
    let level = this.#byZoom.get(at);
    if (!level) {
      const shown = this.#prepared.filter(({ source }) => at >= firstZoom(source.properties));
      const features =
        at === EXACT_ZOOM ? shown : shown.map((feature) => simplified(feature, TOLERANCE / (TILE * 2 ** at)));
      level = { features, tree: new FrameTree(features.map(({ frame }) => frame)) };
      this.#byZoom.set(at, level);
    }
    return level;
  }
}

/** The zoom from which a feature is shown, by layer and rank. */
export function firstZoom({ layer, rank, what }: MapFeature["properties"]): number {
  if (what === "water") return 9;
  if (what === "country") return COUNTRY_ZOOM[Math.min(rank, COUNTRY_ZOOM.length) - 1];
  if (what === "peak") return PEAK_ZOOM[Math.min(rank, PEAK_ZOOM.length) - 1];
  return FIRST_ZOOM[layer][Math.min(rank, FIRST_ZOOM[layer].length) - 1];
}

const PEAK_ZOOM = [9, 11, 12];
const COUNTRY_ZOOM = [0, 1, 3, 5];

const FIRST_ZOOM: Readonly<Record<MapFeature["properties"]["layer"], readonly number[]>> = {
  land: [0],
  town: [7],
  park: [12, 12],
  cover: [7, 12],
  contour: [7, 10, 12, 14],
  water: [8],
  river: [8, 11],
  boundary: [7, 10, 2],
  building: [15],
  ferry: [5],
  railway: [8],
  street: [8, 12, 13, 14],
  point: [15],
  name: [9, 10, 11, 12],
};

function prepare(source: MapFeature): Prepared {
  const pieces = partsOf(source.geometry).map((rings) => {
    const lines = rings.map(projected);
    return { lines, frame: frameAround(lines[0]) };
  });
  return { source, pieces, frame: around(pieces.map((piece) => piece.frame)) };
}

function projected(ring: Pairs): Line {
  const line = new Float64Array(2 * ring.length);
  ring.forEach(([lon, lat], i) => {
    const { x, y } = project({ lat, lon });
    line[2 * i] = x;
    line[2 * i + 1] = y;
  });
  return line;
}

type Pairs = [number, number][];

/** A geometry as parts: each a line, a point, or a polygon's rings. */
function partsOf(geometry: MapGeometry): Pairs[][] {
  if (geometry.type === "Point") return [[[geometry.coordinates]]];
  if (geometry.type === "MultiPoint") return geometry.coordinates.map((point) => [[point]]);
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

function cutGeometry(
  { source, pieces }: Prepared,
  frame: Frame,
  z: number,
): { geometry: MapGeometry; cuts?: number[][] } | undefined {
  const near = pieces.filter((piece) => framesMeet(piece.frame, frame));
  const { type } = source.geometry;
  if (type === "Point") return near.length ? { geometry: source.geometry } : undefined;
  if (type === "MultiPoint") {
    const coordinates = near.flatMap(({ lines }) => degrees(lines[0], z).pairs);
    return near.length ? { geometry: { type, coordinates } } : undefined;
  }
  if (type === "LineString" || type === "MultiLineString") {
    const lines = near
      .flatMap((piece) => (frameHolds(frame, piece.frame) ? piece.lines : clipLine(piece.lines[0], frame)))
      .map((line) => degrees(line, z).pairs)
      .filter((line) => line.length > 1);
    if (!lines.length) return undefined;
    return {
      geometry:
        lines.length === 1
          ? { type: "LineString", coordinates: lines[0] }
          : { type: "MultiLineString", coordinates: lines },
    };
  }
  const polygons = near
    .map((piece) =>
      piece.lines
        .map((ring) =>
          frameHolds(frame, piece.frame) ? closed(degrees(ring, z)) : closed(degrees(clipRing(ring, frame), z, frame)),
        )
        .filter(({ pairs }) => pairs.length > 3),
    )
    .filter((rings) => rings.length > 0);
  if (!polygons.length) return undefined;
  const cuts = polygons.flat().map((ring) => ring.cuts);
  const coordinates = polygons.map((rings) => rings.map(({ pairs }) => pairs));
  return {
    geometry:
      coordinates.length === 1
        ? { type: "Polygon", coordinates: coordinates[0] }
        : { type: "MultiPolygon", coordinates },
    ...(cuts.some((ring) => ring.length > 0) ? { cuts } : {}),
  };
}

/** A line in degrees, and the places of the points from which an edge runs along the frame that cut it. */
interface Degrees {
  pairs: Pairs;
  cuts: number[];
}

/** Rounds to the grain of a zoom, drops points that fall together, and goes back to degrees. */
function degrees(line: Line, z: number, frame?: Frame): Degrees {
  const steps = TILE * 2 ** z * GRAIN;
  const pairs: Pairs = [];
  const cuts: number[] = [];
  let lastX = Number.NaN;
  let lastY = Number.NaN;
  for (let i = 0; i < line.length; i += 2) {
    const x = Math.round(line[i] * steps);
    const y = Math.round(line[i + 1] * steps);
    if (x !== lastX || y !== lastY) {
      const { lat, lon } = unproject({ x: x / steps, y: y / steps });
      pairs.push([round(lon), round(lat)]);
      lastX = x;
      lastY = y;
    }
    const place = pairs.length - 1;
    // of points that fall together, the last one's edge counts
    if (cuts[cuts.length - 1] === place) cuts.pop();
    if (frame && runsAlong(frame, line, i)) cuts.push(place);
  }
  return { pairs, cuts };
}

/** True when the edge from a point of a closed ring to the next lies on one side of a frame. */
function runsAlong({ left, top, right, bottom }: Frame, ring: Line, from: number): boolean {
  const to = from + 2 < ring.length ? from + 2 : 0;
  const [ax, ay, bx, by] = [ring[from], ring[from + 1], ring[to], ring[to + 1]];
  return (ax === bx && (ax === left || ax === right)) || (ay === by && (ay === top || ay === bottom));
}

function closed({ pairs, cuts }: Degrees): Degrees {
  if (pairs.length < 3) return { pairs: [], cuts: [] };
  const [first, last] = [pairs[0], pairs[pairs.length - 1]];
  const isClosed = first[0] === last[0] && first[1] === last[1];
  // the edge from a last point that fell together with the first has no length
  return isClosed
    ? { pairs, cuts: cuts.filter((place) => place < pairs.length - 1) }
    : { pairs: [...pairs, first], cuts };
}

const round = (value: number) => Math.round(value * 1e7) / 1e7;
