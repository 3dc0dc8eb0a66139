import { TILE } from "@bibliotope/core/geo";
import {
  DAY,
  type FeatureTile,
  type Label,
  labelsOf,
  type MapStyle,
  NIGHT,
  type PictureTiles,
  paintInSlices,
  partOf,
  type TileName,
} from "@bibliotope/core/map";
import { hiddenContextOf } from "./context.ts";
import { drawPicture, fetchPicture, type ShownPicture } from "./pictures.ts";

/** How the tiles of a map are painted. */
export interface TileLook {
  mapStyle: MapStyle;
  night: boolean;
  /** BCP 47, for names. */
  langs: readonly string[];
  /** Pictures in place of the map style. */
  pictures?: PictureTiles;
}

/** A tile to be fetched and painted. */
export interface PaintJob extends TileName, TileLook {
  id: number;
  url: string;
  /** Device pixels to a CSS pixel. */
  ratio: number;
}

/** A painted tile with how many milliseconds its painting took; or why there is none. */
export type Painted =
  | {
      id: number;
      bitmap: ImageBitmap;
      labels: Label[];
      took: number;
      /** Why the map is there in place of the picture. */
      lost?: string;
    }
  | { id: number; failed: string };

/** Milliseconds of a slice of painting on the page's own thread. */
const SLICE = 6;

/**
 * Fetches a tile's features, or its picture, and paints them; runs in a worker, or on the page where a policy forbids workers.
 * @param rest waits until other work had its turn; without it, all is painted in one go
 */
export async function paintJob(job: PaintJob, signal?: AbortSignal, rest?: () => Promise<void>): Promise<Painted> {
  const { id, pictures } = job;
  try {
    const picture = pictures && (await fetchPicture(pictures, job, signal));
    if (typeof picture === "object") return { id, ...(await paintPicture(job, picture, signal)) };
    return { id, ...(await paintMap(job, signal, rest)), ...(picture ? { lost: picture } : {}) };
  } catch (error) {
    return { id, failed: String(error) };
  }
}

type PaintedTile = Omit<Extract<Painted, { bitmap: ImageBitmap }>, "id">;

/** The map's own features. */
async function paintMap(job: PaintJob, signal?: AbortSignal, rest?: () => Promise<void>): Promise<PaintedTile> {
  const features = await featuresOf(job, signal);
  const [canvas, context] = canvasFor(job);
  const options = { palette: job.night ? NIGHT : DAY, style: job.mapStyle };
  const start = performance.now();
  let began = start;
  for (const _ of paintInSlices(context, features, partOf(job), options)) {
    if (!rest || performance.now() - began < SLICE) continue;
    await rest();
    signal?.throwIfAborted();
    began = performance.now();
  }
  const bitmap = canvas.transferToImageBitmap();
  return { bitmap, labels: labelsOf(features, job), took: performance.now() - start };
}

/** A picture, under the map's names where they are wanted. */
async function paintPicture(job: PaintJob, picture: ShownPicture, signal?: AbortSignal): Promise<PaintedTile> {
  const [canvas, context] = canvasFor(job);
  const start = performance.now();
  drawPicture(context, picture);
  const bitmap = canvas.transferToImageBitmap();
  const took = performance.now() - start;
  const isNamed = job.pictures?.names !== false;
  return { bitmap, labels: isNamed ? labelsOf(await featuresOf(job, signal), job) : [], took };
}

async function featuresOf({ url }: PaintJob, signal?: AbortSignal): Promise<FeatureTile["features"]> {
  const response = await fetch(url, { signal });
  if (!response.ok) throw new Error(`status ${response.status}`);
  return ((await response.json()) as FeatureTile).features;
}

/** A canvas for a tile, one unit to a CSS pixel. */
function canvasFor({ ratio }: PaintJob): [OffscreenCanvas, OffscreenCanvasRenderingContext2D] {
  const side = Math.round(TILE * ratio);
  const canvas = new OffscreenCanvas(side, side);
  const context = hiddenContextOf(canvas);
  context.scale(side / TILE, side / TILE);
  return [canvas, context];
}
