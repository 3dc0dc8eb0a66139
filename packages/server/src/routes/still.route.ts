import { shortLine } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import { type MapMarker, type Over, viewOf } from "@bibliotope/core/map";
import type { AnswerRecord } from "@bibliotope/core/search";
import type { StillRequest } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Incoming } from "../http/incoming.ts";
import { missingRecord } from "../http/missing-record.ts";
import { HttpProblem } from "../http/problem.ts";
import type { SeenEngine } from "../http/seen-engine.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import type { TileMaker } from "../tiles/map-tiles.ts";
import type { Still } from "../tiles/still.ts";

/** Zoom at which one house alone is shown. */
const HOUSE_ZOOM = 16;

/** The map as a picture. */
export function stillHandlers(tiles: TileMaker, database: Knex) {
  return { still } satisfies Partial<Handlers>;

  async function still(incoming: Incoming<"still">): Promise<Reply> {
    const { params } = incoming;
    const langs = incoming.languages(params.lang);
    const body = await drawStill({ tiles, database }, incoming.engine, params, langs, incoming.gone);
    return {
      mediaType: incoming.call.mediaType,
      body,
      cache: "private, max-age=300",
      varies: ["Accept-Language"],
    };
  }
}

/** Draws a picture of the map, as a PNG. @throws HttpProblem for a record that there is not, or while the map is made */
export async function drawStill(
  { tiles, database }: { tiles: TileMaker; database: Knex },
  engine: SeenEngine,
  params: StillRequest,
  langs: readonly string[],
  gone: AbortSignal,
): Promise<Buffer> {
  const { width, height, density, night, style } = params;
  const of = params.of === undefined ? undefined : await recordOf(database, engine, params.of, langs);
  const { over, shown } = whatStands(params, of);
  const fitted = viewOf(shown, { width, height }, HOUSE_ZOOM);
  const view = { at: fitted.at, zoom: params.zoom ?? fitted.zoom };
  const picture: Still = { view, size: { width, height }, density, night, style, langs, over };
  const png = await tiles.still(picture, gone);
  if (!png)
    throw new HttpProblem("not-ready", "The map is being prepared. Try again in a moment.", undefined, {
      "Retry-After": "2",
    });
  return Buffer.from(png.buffer, png.byteOffset, png.byteLength);
}

/** @throws HttpProblem for a ref that no record has, or none any more */
export async function recordOf(
  database: Knex,
  engine: SeenEngine,
  ref: string,
  langs: readonly string[],
): Promise<AnswerRecord> {
  const record = engine.record(ref, { langs });
  if (!record) throw await missingRecord(database, engine, ref);
  return record;
}

/** What is on the picture, and what must be seen of it. */
function whatStands({ at, label, points, line }: StillRequest, of: AnswerRecord | undefined) {
  const signs: MapMarker[] = points.map((position, i) => ({ at: position, number: i + 1 }));
  const shown: Position[] = [...points, ...(line ?? [])];
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
