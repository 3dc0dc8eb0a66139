import { TILE } from "@bibliotope/core/geo";
import {
  DAY,
  type Label,
  labelsOf,
  NIGHT,
  type PictureTiles,
  paintInSlices,
  partOf,
  type SheetKind,
  type SheetTile,
  type TileName,
} from "@bibliotope/core/sheet";
import { hiddenContextOf } from "./context.ts";
import { drawPicture, fetchPicture } from "./pictures.ts";

/** How the tiles of a map are painted. */
export interface TileLook {
  sheet: SheetKind;
  night: boolean;
  /** BCP 47, for names. */
  langs: readonly string[];
  /** Pictures in place of the sheet. */
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
      /** Why the sheet stands there in place of the picture. */
      lost?: string;
    }
  | { id: number; failed: string };

/** Milliseconds of a slice of painting on the page's own thread. */
const SLICE = 6;

/**
 * Fetches a tile's features and paints them; runs in a worker, or on the page where a policy forbids workers.
 * @param rest waits until other work had its turn; without it, all is painted in one go
 */
export async function paintJob(job: PaintJob, signal?: AbortSignal, rest?: () => Promise<void>): Promise<Painted> {
  try {
    const picture = job.pictures && (await fetchPicture(job.pictures, job, signal));
    const isPicture = typeof picture === "object";
    let start = performance.now();
    const side = Math.round(TILE * job.ratio);
    const canvas = new OffscreenCanvas(side, side);
    const context = hiddenContextOf(canvas);
    context.scale(side / TILE, side / TILE);
    if (isPicture) drawPicture(context, picture);
    const isNamed = job.pictures?.names !== false;
    if (isPicture && !isNamed)
      return { id: job.id, bitmap: canvas.transferToImageBitmap(), labels: [], took: performance.now() - start };
    const response = await fetch(job.url, { signal });
    if (!response.ok) return { id: job.id, failed: `status ${response.status}` };
    const { features } = (await response.json()) as SheetTile;
    if (!isPicture) start = performance.now();
    if (isPicture) {
      const took = performance.now() - start;
      return { id: job.id, bitmap: canvas.transferToImageBitmap(), labels: labelsOf(features, job), took };
    }
    const look = { style: job.night ? NIGHT : DAY, sheet: job.sheet };
    let began = start;
    for (const _ of paintInSlices(context, features, partOf(job), look)) {
      if (!rest || performance.now() - began < SLICE) continue;
      await rest();
      signal?.throwIfAborted();
      began = performance.now();
    }
    const bitmap = canvas.transferToImageBitmap();
    const lost = picture ? { lost: picture } : {};
    return { id: job.id, bitmap, labels: labelsOf(features, job), took: performance.now() - start, ...lost };
  } catch (error) {
    return { id: job.id, failed: String(error) };
  }
}
