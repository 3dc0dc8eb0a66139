import { Router } from "express";
import { HttpProblem } from "../http/problem.ts";
import type { SheetTiles } from "../sheets/sheet-tiles.ts";

const MOST_ZOOM = 20;

/** `/v1/sheets/features/{z}/{x}/{y}`: map features of a tile (GeoJSON, OGC WebMercatorQuad numbering). */
export function sheetRoutes(tiles: SheetTiles): Router {
  const router = Router();
  router.get("/sheets/features/:z/:x/:y", async (request, response) => {
    const [z, x, y] = [request.params.z, request.params.x, request.params.y].map((text) =>
      /^\d{1,7}$/.test(text) ? Number(text) : Number.NaN,
    );
    if (!(z <= MOST_ZOOM && x < 2 ** z && y < 2 ** z)) {
      throw new HttpProblem(
        "not-found",
        `A tile is z/x/y with z from 0 to ${MOST_ZOOM} and x, y below 2 to the power of z.`,
      );
    }
    const json = await tiles.tile(z, x, y);
    if (json === undefined)
      throw new HttpProblem("not-ready", "The map is being prepared. Ask again in a moment.", undefined, {
        "Retry-After": "2",
      });
    response.set("Cache-Control", "private, max-age=300").type("application/geo+json").send(json);
  });
  return router;
}
