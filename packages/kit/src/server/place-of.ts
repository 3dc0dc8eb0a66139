import {
  EXACTNESS_WORDS,
  type FormDefinition,
  fillableFields,
  isBelow,
  outcomeOf,
  questionOf,
  ruleOf,
  startingField,
  type Values,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { Problem, RecordFeature, RecordProperties } from "@bibliotope/wire";
import type { Asked, Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";

/** Why an address of a body has no place. */
export type NoPlace = "empty" | "none" | "several" | "inexact" | "unreachable";

/**
 * What came of looking up the address of a body. There is nothing to store in it before `ok` was looked at: without a
 * place it holds the problem that the form can show.
 */
export type Place =
  | {
      ok: true;
      /** Ref of the record. */
      ref: string;
      /** WGS 84 degrees. */
      at: Position;
      line: string;
      exactness: RecordProperties["exactness"];
      parts: RecordProperties["parts"];
      record: RecordFeature;
    }
  | {
      ok: false;
      why: NoPlace;
      /** For the answer to the form: `application/problem+json` (RFC 9457), with its `status`. */
      problem: Problem;
      /** What could be meant, where several fit. */
      candidates: readonly RecordFeature[];
      /** True when the same body may have a place later. */
      again: boolean;
    };

/** The address of a body: as its form has it, or as text or parts. */
export type BodyAddress =
  | { definition: FormDefinition; values: Values; address?: string }
  | { q: string; field?: string }
  | { parts: Record<string, string>; field?: string };

export interface PlaceOptions {
  /** The least exactness that will do; what the form asks for when not given, else any. */
  exactness?: RecordProperties["exactness"];
  /** Narrowing, such as `{ countries: "QR" }`. */
  narrow?: Asked;
  signal?: AbortSignal;
}

/** Candidates that an ambiguous address is told with. */
const MOST_CANDIDATES = 5;

/**
 * Turns the address of a body into a place, before a record is stored. Never throws for what an address or a service
 * can do wrong.
 *
 * @example
 * const place = await placeOf(client, { definition, values: request.body });
 * if (!place.ok) return response.status(place.problem.status).type("application/problem+json").json(place.problem);
 * await store({ ...request.body, lat: place.at.lat, lon: place.at.lon });
 */
export async function placeOf(client: Client, body: BodyAddress, options: PlaceOptions = {}): Promise<Place> {
  const field = fieldOf(body);
  const asked = askedFor(body);
  if (!asked) return no("empty", field, "The address is missing.");
  try {
    const found = await lookUp(client, asked, options);
    if (found.why === "several")
      return no("several", field, `${found.candidates.length} addresses fit. Choose one of them.`, found.candidates);
    const [record] = found.candidates;
    if (!record) return no("none", field, ["No such address is known.", ...found.advice].join(" "));
    const { at, line, exactness, parts } = record.properties;
    const least =
      options.exactness ?? ("definition" in body ? ruleOf(body.definition, body.address ?? "").exactness : undefined);
    if (least && isBelow({ name: "", exactness: least }, exactness))
      return no("inexact", field, `The address is only known ${EXACTNESS_WORDS[exactness]}. Give the house too.`, [
        record,
      ]);
    return { ok: true, ref: record.id, at, line, exactness, parts, record };
  } catch (error) {
    if (!(error instanceof LookupError)) throw error;
    const words = "The address could not be looked up, so nothing was stored. Try again in a moment.";
    return { ...no("unreachable", field, words), again: error.again };
  }
}

interface Looked {
  why?: "several";
  candidates: readonly RecordFeature[];
  advice: readonly string[];
}

async function lookUp(client: Client, asked: { ref?: string; asked?: Asked }, options: PlaceOptions): Promise<Looked> {
  if (asked.ref) {
    try {
      return { candidates: [await client.record(asked.ref, {}, options.signal)], advice: [] };
    } catch (error) {
      // a ref that is no longer there: what stands in the fields is still asked for
      if (!(error instanceof LookupError) || error.trouble !== "missing" || !asked.asked) throw error;
    }
  }
  const { outcome, features, advice } = await client.forward(
    { ...asked.asked, ...options.narrow, limit: MOST_CANDIDATES },
    options.signal,
  );
  const candidates = features.map((feature) => ({ ...feature, exactness: feature.properties.exactness }));
  const chosen = outcomeOf({ name: "" }, candidates, outcome === "ambiguous");
  if (chosen.type === "several") return { why: "several", candidates: features, advice };
  return { candidates: chosen.type === "none" ? [] : features.slice(0, 1), advice };
}

/** What is to be asked for a body: the ref that its form holds, and what stands in its fields. */
function askedFor(body: BodyAddress): { ref?: string; asked?: Asked } | undefined {
  if ("q" in body) return body.q.trim() ? { asked: { q: body.q } } : undefined;
  if ("parts" in body) return Object.values(body.parts).some((part) => part.trim()) ? { asked: body.parts } : undefined;
  const { definition, values, address = "" } = body;
  const held = fillableFields(definition, address).find(({ binding }) => binding?.trim() === "{ref}");
  const ref = held && values[held.name]?.trim();
  const question = questionOf(definition, values, address);
  if (!ref && !question) return undefined;
  const { q, parts, country } = question ?? {};
  return {
    ...(ref ? { ref } : {}),
    ...(question
      ? { asked: { ...(q === undefined ? parts : { q }), ...(country ? { countries: country } : {}) } }
      : {}),
  };
}

/** The field that a problem is shown at. */
function fieldOf(body: BodyAddress): string {
  if ("definition" in body) return startingField(body.definition, body.address ?? "") ?? "address";
  return body.field ?? "address";
}

const TITLES: Readonly<Record<NoPlace, string>> = {
  empty: "The address is missing",
  none: "The address is not known",
  several: "Several addresses fit",
  inexact: "The address is not exact enough",
  unreachable: "The address could not be looked up",
};

function no(why: NoPlace, field: string, detail: string, candidates: readonly RecordFeature[] = []) {
  const status = why === "unreachable" ? 503 : 422;
  const told = candidates.length > 1 ? ` ${candidates.map(({ properties }) => properties.line).join("; ")}.` : "";
  const issues = [{ parameter: field, message: `${detail}${told}` }];
  const problem: Problem = { type: "about:blank", title: TITLES[why], status, detail, issues };
  return { ok: false as const, why, problem, candidates, again: false };
}
