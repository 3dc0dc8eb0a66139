import { type Position, roundDegrees, sphereDistance } from "@bibliotope/core/geo";
import type { RecordProperties } from "@bibliotope/wire";
import type { Picked } from "./panel.ts";

/** What a picker hands back: the words of one record and its own position, never those of two. */
export interface PickedPlace {
  /** Empty where a spot was taken as it is. */
  ref: string;
  line: string;
  lines: string[];
  /** WGS 84 degrees. */
  at: Position;
  kind: RecordProperties["kind"] | "";
  exactness: RecordProperties["exactness"];
  parts: RecordProperties["parts"];
  /** `chosen` where a record is meant, as in a form; `typed` for a spot that nothing was looked up for. */
  state: "chosen" | "typed";
  /** Of a spot that was taken as it is: what lies nearest, and how many metres from it. */
  near?: { ref: string; line: string; metres: number };
}

/** How a picker ended, as it tells whoever opened it. */
export interface HandedBack {
  from: "bibliotope";
  ended: "picked" | "cancelled";
  /** The word that it was opened with. */
  state: string;
  place?: PickedPlace;
}

/** @param isSpot whether the spot itself is meant, and what lies near only is next to it */
export function placeOfPicked({ at, record }: Picked, isSpot: boolean): PickedPlace {
  if (record && (!isSpot || sphereDistance(at, record.properties.at) < 1)) {
    const { line, lines, kind, exactness, parts, at: own } = record.properties;
    return { ref: record.id, line, lines, at: own, kind, exactness, parts, state: "chosen" };
  }
  const spot = { lat: roundDegrees(at.lat), lon: roundDegrees(at.lon) };
  const near = record && {
    ref: record.id,
    line: record.properties.line,
    metres: Math.round(sphereDistance(at, record.properties.at)),
  };
  return {
    ...{ ref: "", line: "", lines: [], at: spot, kind: "" as const, exactness: "surveyed" as const, parts: {} },
    ...{ state: "typed" as const, ...(near ? { near } : {}) },
  };
}

/** The address that a picker goes on to, with what came of it in the query string. */
export function redirectOf(to: string, { ended, state, place }: HandedBack): string {
  const url = new URL(to);
  url.searchParams.set("ended", ended);
  if (state) url.searchParams.set("state", state);
  if (place) {
    const { ref, line, at, kind, exactness, parts, state: address } = place;
    const params = { ref, line, lat: String(at.lat), lon: String(at.lon), kind, exactness, address };
    for (const [name, value] of Object.entries(params)) url.searchParams.set(name, value);
    for (const [part, { name = "" } = {}] of Object.entries(parts)) url.searchParams.set(`part-${part}`, name);
  }
  return url.href;
}

/** As much of a web view's bridge as is needed: it takes a text, or an object. */
interface Bridge {
  postMessage(message: unknown): void;
}

/**
 * The bridge of the web view that a page is shown in, by name: an object that the program has put into the page, or a
 * message handler of the platform's own.
 */
export function bridgeOf(name: string, page: object = window): Bridge | undefined {
  const fields = page as Record<string, unknown>;
  const handlers = (fields.webkit as { messageHandlers?: Record<string, Bridge> } | undefined)?.messageHandlers;
  const shell = (fields.chrome as { webview?: Bridge } | undefined)?.webview;
  const own = Object.hasOwn(fields, name) ? (fields[name] as Bridge) : undefined;
  return [own, handlers?.[name], shell].find((one) => typeof one?.postMessage === "function");
}
