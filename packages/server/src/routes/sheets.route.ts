import { CALLS } from "@bibliotope/wire";
import type { Request, Router } from "express";
import type { Heights } from "../heights/heights.ts";
import { goneSignal } from "../http/gone.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { SheetTiles } from "../sheets/sheet-tiles.ts";

const MOST_ZOOM = 20;

/** `/v1/sheets/…/{z}/{x}/{y}`: map features of a tile, and heights of its ground (OGC WebMercatorQuad numbering). */
export function sheetRoutes(tiles: SheetTiles, heights: Heights): Router {
  const router = exactRouter();
  router.get("/sheets/features/:z/:x/:y", async (request, response) => {
    const { z, x, y } = tileOf(request);
    const json = await tiles.tile(z, x, y, goneSignal(response));
    if (json === undefined) throw notReady();
    // asked again each time, mostly answered by 304: what is corrected by hand is shown at once
    response.set("Cache-Control", "private, no-cache").type(CALLS.sheet.mediaType).send(json);
  });
  router.get("/sheets/heights/:z/:x/:y", (request, response) => {
    const tile = tileOf(request);
    if (!heights.isReady) throw notReady();
    response.set("Cache-Control", "private, max-age=300").json(heights.tile(tile));
  });
  return router;
}

function tileOf({ params }: Request): { z: number; x: number; y: number } {
  const [z, x, y] = [params.z, params.x, params.y].map((text) =>
    /^\d{1,7}$/.test(String(text)) ? Number(text) : Number.NaN,
  );
  if (z <= MOST_ZOOM && x < 2 ** z && y < 2 ** z) return { z, x, y };
  throw new HttpProblem(
    "not-found",
    `A tile is z/x/y with z from 0 to ${MOST_ZOOM} and x, y below 2 to the power of z.`,
  );
}

function notReady(): HttpProblem {
  return new HttpProblem("not-ready", "The map is being prepared. Ask again in a moment.", undefined, {
    "Retry-After": "2",
  });
}
