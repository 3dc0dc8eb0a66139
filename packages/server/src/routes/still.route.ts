import { shortLine } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { AnswerRecord } from "@bibliotope/core/search";
import { type MapMarker, type Over, viewOf } from "@bibliotope/core/sheet";
import { CALLS, type StillAsking, stillAsking } from "@bibliotope/wire";
import type { Request, Response, Router } from "express";
import type { Knex } from "knex";
import { readAsking } from "../http/asking.ts";
import { engineOf, languagesOf } from "../http/engine.ts";
import { goneSignal } from "../http/gone.ts";
import { missingRecord } from "../http/missing-record.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import type { SheetTiles } from "../sheets/sheet-tiles.ts";
import type { Still } from "../sheets/still.ts";

/** Zoom at which one house alone is shown. */
const HOUSE_ZOOM = 16;

/** `/v1/still`: the map as a picture. */
export function stillRoutes(index: LiveIndex, tiles: SheetTiles, database: Knex): Router {
  const router = exactRouter();
  router.route("/still").get(still).post(still);
  return router;

  async function still(request: Request, response: Response) {
    const asked = readAsking(request, stillAsking);
    const of = asked.of === undefined ? undefined : await recordOf(request, asked.of, asked.lang);
    const { over, shown } = whatStands(asked, of);
    const fitted = viewOf(shown, asked.size, HOUSE_ZOOM);
    const view = { at: fitted.at, zoom: asked.zoom ?? fitted.zoom };
    const { size, scale, night, sheet } = asked;
    const langs = languagesOf(request, asked.lang);
    const picture: Still = { view, size, scale, night, sheet, langs, over };
    const png = await tiles.still(picture, goneSignal(response));
    if (!png)
      throw new HttpProblem("not-ready", "The map is being prepared. Ask again in a moment.", undefined, {
        "Retry-After": "2",
      });
    response
      .set("Cache-Control", "private, max-age=300")
      .vary("Accept-Language")
      .type(CALLS.still.mediaType)
      .send(Buffer.from(png.buffer, png.byteOffset, png.byteLength));
  }

  async function recordOf(request: Request, ref: string, lang: StillAsking["lang"]): Promise<AnswerRecord> {
    const engine = engineOf(index);
    const record = engine.record(ref, { langs: languagesOf(request, lang) });
    if (!record) throw await missingRecord(database, engine, ref);
    return record;
  }
}

/** What stands on the picture, and what must be seen of it. */
function whatStands({ at, label, markers, line }: StillAsking, of: AnswerRecord | undefined) {
  const signs: MapMarker[] = markers.map((position, i) => ({ at: position, number: i + 1 }));
  const shown: Position[] = [...markers, ...(line ?? [])];
  const mark = (position: Position, text: string | undefined) => {
    signs.push({ at: position, marked: true, ...(text ? { label: text } : {}) });
    shown.unshift(position);
  };
  if (at) mark(at, of ? undefined : label);
  if (of?.box) {
    const [west, south, east, north] = of.box;
    // over the 180th meridian the middle keeps the box on the side on which it lies
    shown.push(of.at, { lat: south, lon: west }, { lat: north, lon: east });
  } else if (of) mark(of.at, label ?? shortLine(of));
  const over: Over = { markers: signs, ...(line ? { lines: [{ points: line }] } : {}) };
  return { over, shown };
}
