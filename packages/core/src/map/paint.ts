import { TILE } from "../geo/index.ts";
import { paintCovers } from "./cover.ts";
import type { MapFeature, MapLayer } from "./features.ts";
import type { Painter } from "./painter.ts";
import type { Palette } from "./palettes.ts";
import { byRank, type MapPart, Pen } from "./pen.ts";
import { paintSteps } from "./steps.ts";

/** Which square of OGC WebMercatorQuad is painted. */
export interface TileName {
  z: number;
  x: number;
  y: number;
}

/** Map styles: streets; ground cover; elevation; and ground cover with streets and names. */
export const MAP_STYLES = ["streets", "ground", "heights", "named-ground"] as const;
export type MapStyle = (typeof MAP_STYLES)[number];

/** How a map is painted. */
export interface PaintOptions {
  palette: Palette;
  /** Streets when not given. */
  style?: MapStyle;
}

/** Lines of the sea's hatching, and the dots of parks, in pixels apart: they divide a tile, so that they run on beyond it. */
const HATCH = 8;
/** From this zoom on streets have two edges; and the style `streets` has contours. */
const CASED_ZOOM = 12;
/** From this zoom on the style `heights` has houses, as outlines. */
const OUTLINE_ZOOM = 16;
const CONTOUR_ZOOMS = [10, 12, 13];
/** The rank of land that was surveyed, and of boundaries that only the coarse outlines know. */
const SURVEYED = 1;
const BETWEEN_COUNTRIES = 3;

/**
 * Paints a tile's features from the north-west corner, without any labels.
 * @param features of the tile, with a margin around it
 * @param painter a context with one unit to a CSS pixel
 */
export function paintTile(
  painter: Painter,
  features: readonly MapFeature[],
  tile: TileName,
  options: PaintOptions,
): void {
  paintPart(painter, features, partOf(tile), options);
}

/** The part of the map that a tile shows. */
export function partOf({ z, x, y }: TileName): MapPart {
  return { z, left: x * TILE, top: y * TILE, width: TILE, height: TILE };
}

/** Paints any part of the map from the north-west corner, without any labels. */
export function paintPart(
  painter: Painter,
  features: readonly MapFeature[],
  part: MapPart,
  options: PaintOptions,
): void {
  const steps = paintInSlices(painter, features, part, options);
  while (!steps.next().done);
}

/** Paints a part of the map layer by layer, so that other work can be done between two slices. */
export function* paintInSlices(
  painter: Painter,
  features: readonly MapFeature[],
  part: MapPart,
  { palette, style = "streets" }: PaintOptions,
): Generator<void> {
  const pen = new Pen(painter, part, palette);
  const of = (layer: MapLayer) => features.filter((feature) => feature.properties.layer === layer);
  painter.lineJoin = "round";
  painter.lineCap = "round";
  paintSea(pen);
  if (style !== "ground") pen.lines(of("ferry"), palette.ferry, 1, [3, 5]);
  const land = of("land").filter(({ properties }) => properties.rank === SURVEYED);
  const ground = style === "heights" ? palette.steps[0][1] : palette.land;
  paintCoarseLand(pen, of("land"), ground);
  pen.fill(land, ground);
  if (style !== "heights") pen.fill(of("town"), palette.town);
  if (style === "heights") yield* paintSteps(pen, of("contour"));
  else yield* paintGround(pen, of, style);
  paintWater(pen, of);
  pen.lines(land, palette.coast, coastWidth(part.z));
  yield;
  if (style !== "ground")
    for (const [rank, boundaries] of byRank(of("boundary")))
      pen.lines(boundaries, palette.boundary, rank === 1 ? 1.2 : 0.8, rank === BETWEEN_COUNTRIES ? [] : [6, 4]);
  const buildings = of("building");
  if (style !== "heights") pen.areas(buildings, palette.building, "nonzero", palette.buildingLine, 0.6);
  else if (part.z >= OUTLINE_ZOOM) pen.lines(buildings, palette.casing, 0.6);
  if (style !== "heights") paintPoints(pen, of("point"));
  yield;
  if (style === "ground") return;
  paintRailways(pen, of("railway"));
  paintStreets(pen, of("street"), style);
}

/** True for features that a map style shows at all: others need not be cut for it. */
export function isPainted({ layer, rank }: MapFeature["properties"], style: MapStyle): boolean {
  if (layer === "name") return false;
  if (layer === "cover") return style === "ground" || style === "named-ground";
  if (layer === "contour") return style === "heights" || (style === "streets" && rank <= CONTOUR_ZOOMS.length);
  return true;
}

type LayerOf = (layer: MapLayer) => MapFeature[];

function* paintGround(pen: Pen, of: LayerOf, style: MapStyle): Generator<void> {
  const { palette, part } = pen;
  if (style !== "streets") yield* paintCovers(pen, of("cover"));
  for (const park of of("park")) paintPark(pen, park);
  yield;
  if (style !== "streets") return;
  for (const [rank, contours] of byRank(of("contour")))
    if (part.z >= (CONTOUR_ZOOMS[rank - 1] ?? Infinity)) pen.lines(contours, palette.contour, rank === 1 ? 1.1 : 0.6);
  yield;
}

/** Coarse outlines and what was laid under towns beside them are one land: all coasts are inked first, and what lies inside is covered. */
function paintCoarseLand(pen: Pen, land: readonly MapFeature[], ground: string): void {
  const outlines = land.filter(({ properties }) => properties.rank === SURVEYED + 1);
  const laid = land.filter(({ properties }) => properties.rank > SURVEYED + 1);
  for (const parts of [outlines, laid]) pen.lines(parts, pen.palette.coast, 2 * coastWidth(pen.part.z));
  pen.fill(outlines, ground);
  pen.fill(laid, ground, "nonzero");
}

const coastWidth = (zoom: number) => (zoom < 10 ? 0.8 : 1.3);

function paintSea({ painter, part, palette }: Pen): void {
  const { top, width, height } = part;
  painter.fillStyle = palette.sea;
  painter.fillRect(0, 0, width, height);
  painter.beginPath();
  for (let row = Math.floor(top / HATCH); row * HATCH < top + height; row++) {
    const y = (row + 0.5) * HATCH - top;
    painter.moveTo(-2, y);
    painter.lineTo(width + 2, y);
  }
  painter.strokeStyle = palette.seaLine;
  painter.lineWidth = 0.7;
  painter.stroke();
}

function paintPark(pen: Pen, park: MapFeature): void {
  const { painter, part, palette } = pen;
  pen.fill([park], palette.park);
  if (part.z < 14) return;
  painter.save();
  pen.clip(park);
  painter.fillStyle = palette.parkDot;
  painter.beginPath();
  const { left, top } = part;
  const box = pen.boxOf(park);
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

/** Rivers, and lakes over them. */
function paintWater(pen: Pen, of: LayerOf): void {
  const { palette } = pen;
  for (const [rank, rivers] of byRank(of("river")))
    pen.lines(rivers, palette.river, pen.width(rank === 1 ? 1.4 : 0.9, 1.18));
  const lakes = of("water");
  pen.areas(lakes, palette.water, "evenodd", palette.coast, pen.part.z < 12 ? 0.6 : 1);
}

/** Houses of which nothing is known but in place. */
function paintPoints(pen: Pen, features: readonly MapFeature[]): void {
  const { painter, palette } = pen;
  const radius = pen.width(1.4, 1.3);
  painter.beginPath();
  for (const { geometry } of features) {
    const pairs =
      geometry.type === "MultiPoint" ? geometry.coordinates : geometry.type === "Point" ? [geometry.coordinates] : [];
    for (const pair of pairs) {
      const [x, y] = pen.spot(pair);
      painter.moveTo(x + radius, y);
      painter.arc(x, y, radius, 0, 2 * Math.PI);
    }
  }
  painter.fillStyle = palette.buildingLine;
  painter.fill();
}

/** A thin line with sleepers across. */
function paintRailways(pen: Pen, railways: readonly MapFeature[]): void {
  const { palette, part } = pen;
  pen.lines(railways, palette.railway, part.z < CASED_ZOOM ? 0.8 : 1.1);
  if (part.z < CASED_ZOOM - 1) return;
  pen.painter.lineCap = "butt";
  pen.lines(railways, palette.railway, part.z < 14 ? 4 : 6, [1.1, 6]);
  pen.painter.lineCap = "round";
}

/** All casings first, then the paper of all streets, broad ones last, so that crossings are open. */
function paintStreets(pen: Pen, features: readonly MapFeature[], style: MapStyle): void {
  const { palette, part } = pen;
  const ranks = byRank(features);
  if (part.z < CASED_ZOOM || style === "heights") {
    const isClose = part.z >= CASED_ZOOM + 2;
    for (const [rank, streets] of ranks)
      if (isClose || rank <= 2) pen.lines(streets, palette.thinRoad, rank === 1 ? 1.2 : 0.6);
    return;
  }
  const width = (rank: number) => Math.max(0.8, pen.width([3.4, 3, 2, 1.3][rank - 1] ?? 1.3, 1.55));
  for (const [rank, streets] of ranks) pen.lines(streets, palette.casing, width(rank) + 1.6);
  for (const [rank, streets] of ranks)
    pen.lines(streets, rank === 1 ? palette.road : rank === 2 ? palette.mainStreet : palette.street, width(rank));
}
