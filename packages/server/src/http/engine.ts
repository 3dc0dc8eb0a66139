import { csvOf, geojsonSeqOf, gpxOf, type LookupFeature, vcardOf } from "@bibliotope/core/formats";
import type { Engine } from "@bibliotope/core/search";
import { RECORD_FORMATS, type RecordFormat } from "@bibliotope/wire";
import type { Request, Response } from "express";
import type { LiveIndex } from "../publication/live-index.ts";
import { HttpProblem } from "./problem.ts";
import { played } from "./situations.ts";

/** The engine, or 503 while no index is open. */
export function engineOf(index: LiveIndex): Engine {
  if (index.engine) return index.engine;
  throw new HttpProblem("not-ready", "The index is being built. Ask again in a moment.", undefined, {
    "Retry-After": "2",
  });
}

/** Asked languages, from `lang` or else from Accept-Language. */
export function languagesOf(request: Request, lang: readonly string[] | undefined): readonly string[] {
  return lang ?? request.acceptsLanguages().filter((tag) => tag !== "*");
}

/** Which form of an answer is wanted: by `format`, else by the Accept header, else GeoJSON. */
function formatOf(request: Request, asked: RecordFormat | undefined): RecordFormat {
  if (asked) return asked;
  const wanted = request.accepts(["application/geo+json", "application/json", ...Object.values(RECORD_FORMATS)]);
  const formats = Object.entries(RECORD_FORMATS) as [RecordFormat, string][];
  return formats.find(([, type]) => type === wanted)?.[0] ?? "geojson";
}

/**
 * Answers with records in the form that is wanted. The advice and the source stand in the GeoJSON form alone; the others
 * have no place for them, but all tell the outcome and what differs.
 */
export function sendRecords(
  request: Request,
  response: Response,
  answer: object,
  features: readonly LookupFeature[],
  asked: RecordFormat | undefined,
  began: number,
): void {
  const format = formatOf(request, asked);
  response.vary("Accept");
  const shown = played(response, answer);
  const isPlayed = shown !== answer;
  if ("outcome" in shown) response.locals.outcome = shown.outcome;
  if (format === "geojson") sendAnswer(response, RECORD_FORMATS.geojson, answer, began);
  else {
    const outcome = "outcome" in shown ? String(shown.outcome) : undefined;
    sendBody(response, RECORD_FORMATS[format], WRITERS[format](isPlayed ? [] : features, outcome), began);
  }
}

const WRITERS = { geojsonseq: geojsonSeqOf, csv: csvOf, gpx: gpxOf, vcf: vcardOf };

/** Answers JSON with how long the engine took; equal questions get equal bytes, so the time stands in a header. */
export function sendAnswer(response: Response, mediaType: string, answer: object, began: number): void {
  const shown = played(response, answer);
  if ("outcome" in shown) response.locals.outcome = shown.outcome;
  sendBody(response, mediaType, JSON.stringify(shown), began);
}

function sendBody(response: Response, mediaType: string, body: string, began: number): void {
  response
    .set("Server-Timing", `engine;dur=${(performance.now() - began).toFixed(2)}`)
    .set("Cache-Control", "private, no-cache")
    .vary("Accept-Language")
    .type(mediaType)
    .send(body);
}
