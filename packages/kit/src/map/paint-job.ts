import { TILE } from "@bibliotope/core/geo";
import { DAY, type Label, labelsOf, NIGHT, paintTile, type SheetTile, type TileName } from "@bibliotope/core/sheet";

/** A tile to be fetched and painted. */
export interface PaintJob extends TileName {
  id: number;
  url: string;
  night: boolean;
  /** Device pixels to a CSS pixel. */
  ratio: number;
}

export type Painted = { id: number; bitmap: ImageBitmap; labels: Label[] } | { id: number; failed: string };

/** Fetches a tile's features and paints them; runs in a worker, or on the page where a policy forbids workers. */
export async function paintJob(job: PaintJob, signal?: AbortSignal): Promise<Painted> {
  try {
    const response = await fetch(job.url, { signal });
    if (!response.ok) return { id: job.id, failed: `status ${response.status}` };
    const { features } = (await response.json()) as SheetTile;
    const side = Math.round(TILE * job.ratio);
    const canvas = new OffscreenCanvas(side, side);
    const context = canvas.getContext("2d")!;
    context.scale(side / TILE, side / TILE);
    paintTile(context, features, job, job.night ? NIGHT : DAY);
    return { id: job.id, bitmap: canvas.transferToImageBitmap(), labels: labelsOf(features) };
  } catch (error) {
    return { id: job.id, failed: String(error) };
  }
}
