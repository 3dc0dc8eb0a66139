import { csvOf, geojsonSeqOf, gpxOf, type LookupFeature, vcardOf } from "@bibliotope/core/formats";
import { type AnswerOf, type CallName, RECORD_FORMATS, type RecordFormat } from "@bibliotope/wire";
import type { Incoming } from "./incoming.ts";
import type { Reply } from "./send-reply.ts";

const WRITERS = { geojsonseq: geojsonSeqOf, csv: csvOf, gpx: gpxOf, vcf: vcardOf };
const TYPES = Object.entries(RECORD_FORMATS) as [RecordFormat, string][];
const WANTED = [RECORD_FORMATS.geojson, "application/json", ...Object.values(RECORD_FORMATS)];
const BY_LANGUAGE = ["Accept-Language"];
const BY_BOTH = ["Accept", "Accept-Language"];

/** An answer of a lookup as JSON. */
export function jsonReply<N extends CallName>(
  incoming: Incoming<N>,
  answer: AnswerOf<N>,
  began: number,
  more: Partial<Reply> = {},
): Reply {
  const shown = played(incoming, answer as object);
  return {
    mediaType: incoming.call.mediaType,
    body: JSON.stringify(shown),
    cache: "private, no-cache",
    varies: BY_LANGUAGE,
    took: performance.now() - began,
    outcome: "outcome" in shown ? shown.outcome : undefined,
    ...more,
  };
}

/**
 * Records in the form that is wanted: by `format`, else by the Accept header, else GeoJSON. The advice and the source
 * stand in the GeoJSON form alone; the others have no place for them, but all tell the outcome and what differs.
 */
export function recordsReply<N extends CallName>(
  incoming: Incoming<N>,
  answer: AnswerOf<N>,
  features: readonly LookupFeature[],
  params: RecordFormat | undefined,
  began: number,
): Reply {
  const format = params ?? TYPES.find(([, type]) => type === incoming.wants(WANTED))?.[0] ?? "geojson";
  if (format === "geojson") return jsonReply(incoming, answer, began, { varies: BY_BOTH });
  const shown = played(incoming, answer as object);
  const outcome = "outcome" in shown ? String(shown.outcome) : undefined;
  return {
    mediaType: RECORD_FORMATS[format],
    body: WRITERS[format](shown === answer ? features : [], outcome),
    cache: "private, no-cache",
    varies: BY_BOTH,
    took: performance.now() - began,
    outcome,
  };
}

/** An answer with nothing in it, where that is being played; else the answer. */
function played(incoming: Pick<Incoming, "situation">, answer: object): object {
  if (incoming.situation !== "none" || !("outcome" in answer)) return answer;
  return {
    ...answer,
    outcome: "none",
    advice: ["This is the simulated situation “none”, as requested with a try key."],
    ...("features" in answer ? { features: [] } : {}),
    ...("suggestions" in answer ? { suggestions: [] } : {}),
  };
}
