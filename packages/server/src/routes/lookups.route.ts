import { featureOf } from "@bibliotope/core/formats";
import { geodesic } from "@bibliotope/core/geodesic";
import { chosenFacts, PARTS, type PartName } from "@bibliotope/core/place";
import { type AnswerRecord, advise, type ForwardAnswer } from "@bibliotope/core/search";
import { OPENSEARCH } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Heights } from "../heights/heights.ts";
import type { Incoming } from "../http/incoming.ts";
import { missingRecord } from "../http/missing-record.ts";
import { jsonReply, recordsReply } from "../http/reply.ts";
import type { SeenEngine } from "../http/seen-engine.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import { fixedAnswer } from "../http/without-index.ts";

/** Where the other candidates of a played ambiguity are looked for: which ways, and degrees from the first one. */
const AROUND = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;
const ASIDE = 0.001;

/** The lookups of addresses and places. */
export function lookupHandlers(database: Knex, heights: Heights) {
  return { suggest, forward, reverse, record, postcodes, distance } satisfies Partial<Handlers>;

  function suggest(incoming: Incoming<"suggest">): Reply {
    const { lang, format, ...params } = incoming.params;
    const { engine } = incoming;
    const began = performance.now();
    const langs = incoming.languages(lang);
    const answer = engine.suggest({ ...params, langs });
    const isOpenSearch = (format ?? OPENSEARCH_WANTED[String(incoming.wants(SUGGEST_TYPES))]) === "opensearch";
    if (isOpenSearch) return openSearch(incoming, answer.suggestions, began);
    const advice = answer.outcome === "none" ? engine.notHeld(params.countries, langs) : [];
    const { outcome, suggestions } = answer;
    return jsonReply(incoming, { q: params.q, outcome, advice, source: engine.sources, suggestions }, began, {
      varies: ["Accept", "Accept-Language"],
    });
  }

  function forward(incoming: Incoming<"forward">): Reply {
    const { params } = incoming;
    if (incoming.isEmpty && incoming.key.kind === "try") {
      const { answer, features } = fixedAnswer(params.q ?? PARTS.flatMap((part) => params[part] ?? []).join(", "));
      return recordsReply(incoming, answer, features, params.format, performance.now());
    }
    const { engine, situation } = incoming;
    const began = performance.now();
    const { q, lang, gloss, kinds, inside, box, near, limit, countries } = params;
    const parts = Object.fromEntries(
      PARTS.flatMap((part) => (params[part] === undefined ? [] : [[part, params[part]]])),
    ) as Partial<Record<PartName, string>>;
    const langs = incoming.languages(lang);
    const answer = engine.forward({ q, parts, countries, kinds, inside, box, near, limit, langs });
    if (situation === "differs") addDifference(answer);
    if (situation === "several") addNeighbours(engine, answer, langs);
    const candidates = gloss ? answer.candidates : answer.candidates.map(({ gloss: _, ...candidate }) => candidate);
    const advice = [...answer.advice, ...(answer.outcome === "none" ? engine.notHeld(countries, langs) : [])];
    const features = candidates.map((one) => featureOf(withWanted(one, params)));
    const { outcome, reading } = answer;
    return recordsReply(
      incoming,
      {
        type: "FeatureCollection",
        outcome,
        advice,
        ...(reading ? { reading } : {}),
        source: engine.sources,
        features,
      },
      features,
      params.format,
      began,
    );
  }

  function reverse(incoming: Incoming<"reverse">): Reply {
    const { lang, format, facts, height, ...params } = incoming.params;
    const { engine } = incoming;
    const began = performance.now();
    const { outcome, advice, candidates } = engine.reverse({ ...params, langs: incoming.languages(lang) });
    const features = candidates.map((one) => featureOf(withWanted(one, { facts, height })));
    return recordsReply(
      incoming,
      { type: "FeatureCollection", outcome, advice, source: engine.sources, features },
      features,
      format,
      began,
    );
  }

  async function record(incoming: Incoming<"record">): Promise<Reply> {
    const { lang, typed, format } = incoming.params;
    const { engine } = incoming;
    const began = performance.now();
    const { ref } = incoming.parts;
    const found = engine.record(ref, { langs: incoming.languages(lang) });
    if (!found) throw await missingRecord(database, engine, ref);
    const feature = featureOf(withWanted(found, incoming.params));
    const reply = recordsReply(incoming, { ...feature, source: engine.sources }, [feature], format, began);
    return typed === undefined ? reply : { ...reply, typed };
  }

  /** A record with those of the facts that are wanted, and how high the ground lies there where that is wanted. */
  function withWanted<R extends AnswerRecord>(
    record: R,
    { facts, height }: { facts?: readonly string[] | undefined; height: boolean },
  ): R & { height?: number | null } {
    return {
      ...record,
      ...(facts && record.facts ? { facts: chosenFacts(record.facts, facts) } : {}),
      ...(height ? { height: heights.at(record.at) } : {}),
    };
  }

  function postcodes(incoming: Incoming<"postcodes">): Reply {
    const { starts, lang, limit, format } = incoming.params;
    const { engine } = incoming;
    const began = performance.now();
    const country = incoming.parts.country.slice(0, 2);
    const langs = incoming.languages(lang);
    const { outcome, total, candidates } = engine.postcodes({ country, starts, limit, langs });
    const missing = outcome === "none" ? engine.notHeld([country.toUpperCase()], langs) : [];
    const advice =
      outcome === "matched" || missing.length
        ? missing
        : [advise(langs, "There is no postcode that starts like this.")];
    const features = candidates.map(featureOf);
    return recordsReply(
      incoming,
      { type: "FeatureCollection", outcome, advice, total, source: engine.sources, features },
      features,
      format,
      began,
    );
  }
}

const SUGGEST_TYPES = ["json", OPENSEARCH];
const OPENSEARCH_WANTED: Readonly<Record<string, "opensearch" | undefined>> = { [OPENSEARCH]: "opensearch" };

/** Suggestions as OpenSearch has them: what was typed, the lines, what they lie in. */
function openSearch(
  incoming: Incoming<"suggest">,
  suggestions: readonly { line: string; within: string }[],
  began: number,
): Reply {
  const shown = incoming.situation === "none" ? [] : suggestions;
  return {
    mediaType: OPENSEARCH,
    body: JSON.stringify([incoming.params.q, shown.map(({ line }) => line), shown.map(({ within }) => within)]),
    cache: "private, no-cache",
    varies: ["Accept", "Accept-Language"],
    took: performance.now() - began,
  };
}

/** Lets what was written differ in the number, or in what there is of the first record: for a form's rehearsal. */
function addDifference(answer: ForwardAnswer): void {
  const [first] = answer.candidates;
  const part = PARTS.find((one) => one !== "unit" && first?.parts[one]);
  if (!first || !part) return;
  const known = first.parts[part]?.name ?? "";
  const written = part === "house" || part === "building" ? `${known}b` : `Other ${known}`;
  answer.outcome = "differs";
  answer.advice = ["This is the simulated situation “differs”, as requested with a try key."];
  answer.candidates = [{ ...first, differences: [{ part, written, held: known, how: "nearby" }] }];
}

/** Makes an answer ambiguous, with the houses around the first one where it has no others: for a form's rehearsal. */
function addNeighbours(engine: SeenEngine, answer: ForwardAnswer, langs: readonly string[]): void {
  const [first] = answer.candidates;
  if (!first) return;
  answer.outcome = "ambiguous";
  if (answer.candidates.length > 1) return;
  const refs = new Set([first.ref]);
  for (const [north, east] of AROUND) {
    const at = { lat: first.at.lat + north * ASIDE, lon: first.at.lon + east * ASIDE };
    const { candidates } = engine.reverse({ at, radius: 500, limit: 1, langs });
    const near = candidates.find(({ ref, kind }) => kind === "address" && !refs.has(ref));
    if (!near) continue;
    const { distance: _, bearing: __, ...other } = near;
    refs.add(other.ref);
    answer.candidates.push({ ...other, score: 0.5, differences: [], gloss: [] });
  }
}

/** Needs no data, so it answers without an index too. */
function distance(incoming: Incoming<"distance">): Reply {
  const { from, to } = incoming.params;
  const began = performance.now();
  const { metres, bearing } = geodesic(from, to);
  const answer = {
    metres: Math.round(metres * 1000) / 1000,
    ...(bearing === undefined ? {} : { bearing: Math.round(bearing * 1e6) / 1e6 }),
  };
  return jsonReply(incoming, answer, began);
}
