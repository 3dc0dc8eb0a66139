import { TILE } from "@bibliotope/core/geo";
import {
  type PicturePart,
  type PictureTiles,
  picturePartOf,
  pictureTileUrl,
  type TileName,
} from "@bibliotope/core/map";
import { contextOf } from "./context.ts";

/** Milliseconds for a picture to come, bytes that it may have, and pixels of the side. */
const PATIENCE = 8000;
const LARGEST = 4 * 2 ** 20;
const BROADEST = 2048;

/** There is no picture of that ground, which is no fault. */
const ABSENT = new Set([204, 404, 410]);

/** A picture, and which part of it to show. */
export interface ShownPicture {
  bitmap: ImageBitmap;
  part: PicturePart;
}

/**
 * Fetches the picture for a tile, without the page's cookies. Its server must let other origins read it.
 * @returns undefined where there is none; in words why one that should be there did not come
 */
export async function fetchPicture(
  tiles: PictureTiles,
  tile: TileName,
  signal?: AbortSignal,
): Promise<ShownPicture | string | undefined> {
  const part = picturePartOf(tiles, tile);
  if (!part) return undefined;
  const patience = new AbortController();
  const late = setTimeout(() => patience.abort(), PATIENCE);
  const given = () => patience.abort();
  signal?.addEventListener("abort", given);
  try {
    const response = await fetch(pictureTileUrl(tiles.url, part), { signal: patience.signal, credentials: "omit" });
    if (ABSENT.has(response.status)) return undefined;
    if (!response.ok) return `status ${response.status}`;
    const kind = response.headers.get("content-type") ?? "";
    if (!kind.startsWith("image/")) return `${kind || "something unnamed"} in place of a picture`;
    const bitmap = await createImageBitmap(await readUpTo(response, LARGEST));
    if (bitmap.width > BROADEST || bitmap.height > BROADEST) return "a picture that is too large";
    return { bitmap, part };
  } catch (error) {
    signal?.throwIfAborted();
    return patience.signal.aborted ? "no answer in time" : String(error);
  } finally {
    clearTimeout(late);
    signal?.removeEventListener("abort", given);
  }
}

/** Draws a picture over a tile. @param context one unit to a CSS pixel */
export function drawPicture(context: OffscreenCanvasRenderingContext2D, { bitmap, part }: ShownPicture): void {
  const { width, height } = bitmap;
  context.imageSmoothingQuality = "high";
  context.drawImage(
    bitmap,
    ...[part.left * width, part.top * height, part.side * width, part.side * height],
    ...([0, 0, TILE, TILE] as const),
  );
  bitmap.close();
}

/** A body of at most so many bytes. */
async function readUpTo(response: Response, most: number): Promise<Blob> {
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  let length = 0;
  const reader = response.body!.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return new Blob(pieces, { type: response.headers.get("content-type") ?? "" });
    length += value.length;
    if (length > most) {
      await reader.cancel();
      throw new RangeError(`more than ${most} bytes`);
    }
    pieces.push(value);
  }
}

/** Writes who made pictures into the south-east corner of a map. @param width CSS pixels of the map */
export function drawCredit(canvas: HTMLCanvasElement, words: string, width: number): void {
  const context = contextOf(canvas);
  const ratio = canvas.width / width;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  const [right, foot] = [width, canvas.height / ratio];
  context.font = "11px system-ui, sans-serif";
  context.textAlign = "right";
  context.textBaseline = "middle";
  const taken = Math.min(width, context.measureText(words).width + 16);
  context.fillStyle = "rgb(255 255 255 / 0.82)";
  context.fillRect(right - taken, foot - 18, taken, 18);
  context.fillStyle = "#20242a";
  context.fillText(words, right - 8, foot - 9, taken - 16);
}
