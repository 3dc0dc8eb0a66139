import { Worker } from "node:worker_threads";
import type { Express, Response } from "express";
import { standIn } from "./stand-in.ts";

/** The last zoom of which there are pictures. */
const LAST_ZOOM = 17;
/** Pictures that wait to be painted at once. */
const MOST_WAITING = 200;
const TILE_PATH = "/survey/:z/:x/:y.jpg";

/**
 * Pictures of the islands from the air, as tiles: XYZ, and a WMTS (OGC 07-057r7) asked by keys and values.
 * @param painting file of the worker that paints them
 */
export function survey(painting = new URL("./survey.worker.js", import.meta.url)): Express {
  const app = standIn({
    title: "The aerial survey of the islands",
    words: [
      "Shows the ground of the islands from the air, as picture tiles of OGC WebMercatorQuad up to zoom 17: for a map that has pictures in place of a map style.",
      "Nobody flew there. The pictures are painted when they are first asked for, from the same made-up ground as the demo's data; the first one takes some seconds.",
      "Attribution: Aerial survey of the islands (made up)",
    ],
    examples: [
      "curl '{here}/survey/13/3603/4952.jpg' --output tile.jpg",
      "curl '{here}/wmts?SERVICE=WMTS&REQUEST=GetTile&VERSION=1.0.0&LAYER=survey&STYLE=default&TILEMATRIXSET=WebMercatorQuad&FORMAT=image/jpeg&TILEMATRIX=13&TILEROW=4952&TILECOL=3603' --output tile.jpg",
    ],
  });
  const painter = new SurveyPainter(painting);
  app.use((_, response, next) => {
    // pages of any origin may read the pictures
    response.set("Access-Control-Allow-Origin", "*");
    next();
  });
  app.get(TILE_PATH, async (request, response) => {
    const { z, x, y } = request.params;
    await answer(tileOf(z, x, y), response);
  });
  app.get("/wmts", async (request, response) => {
    const query = new Map(
      Object.entries(request.query).map(([key, value]) => [key.toLowerCase(), String(value)] as const),
    );
    if (query.get("request")?.toLowerCase() !== "gettile" || query.get("layer") !== "survey")
      return void response.status(400).json({ error: "REQUEST=GetTile and LAYER=survey are what it answers." });
    await answer(tileOf(query.get("tilematrix"), query.get("tilecol"), query.get("tilerow")), response);
  });
  async function answer(tile: readonly [number, number, number] | undefined, response: Response) {
    if (!tile) return void response.status(404).json({ error: "There is no such tile." });
    if (painter.waiting >= MOST_WAITING) return void response.status(503).set("Retry-After", "1").end();
    const picture = await painter.paint(tile);
    response.set("Cache-Control", "public, max-age=3600").type("image/jpeg").send(picture);
  }
  return app;
}

/** A tile that there is. */
function tileOf(...names: (string | undefined)[]): [number, number, number] | undefined {
  if (!names.every((name) => name !== undefined && /^\d{1,6}$/.test(name))) return undefined;
  const [z, x, y] = names.map(Number);
  return z <= LAST_ZOOM && x < 2 ** z && y < 2 ** z ? [z, x, y] : undefined;
}

/** Has the pictures painted beside this thread, begun when the first one is requested. */
class SurveyPainter {
  #worker: Worker | undefined;
  readonly #waiting = new Map<number, { resolve: (picture: Buffer) => void; reject: (error: Error) => void }>();
  #count = 0;

  /** @param file of the worker that paints */
  constructor(private readonly file: URL) {}

  get waiting(): number {
    return this.#waiting.size;
  }

  paint(tile: readonly [z: number, x: number, y: number]): Promise<Buffer> {
    this.#worker ??= this.#begin();
    const id = ++this.#count;
    const painted = new Promise<Buffer>((resolve, reject) => this.#waiting.set(id, { resolve, reject }));
    this.#worker.postMessage({ id, tile });
    return painted;
  }

  #begin(): Worker {
    const worker = new Worker(this.file, { execArgv: [] });
    worker.unref();
    worker.on("message", ({ id, picture }: { id: number; picture: Uint8Array }) => {
      this.#waiting.get(id)?.resolve(Buffer.from(picture));
      this.#waiting.delete(id);
    });
    worker.on("error", (error: Error) => {
      for (const { reject } of this.#waiting.values()) reject(error);
      this.#waiting.clear();
      this.#worker = undefined;
    });
    return worker;
  }
}
