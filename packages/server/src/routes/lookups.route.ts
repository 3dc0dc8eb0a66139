import { featureOf } from "@bibliotope/core/formats";
import { geodesic } from "@bibliotope/core/geodesic";
import { heldProfile, PARTS, type PartName } from "@bibliotope/core/place";
import type { Engine } from "@bibliotope/core/search";
import {
  CALLS,
  distanceAsking,
  forwardAsking,
  OPENSEARCH,
  postcodesAsking,
  recordAsking,
  reverseAsking,
  suggestAsking,
} from "@bibliotope/wire";
import type { Request, Response, Router } from "express";
import type { Knex } from "knex";
import { readAsking } from "../http/asking.ts";
import { engineOf, languagesOf, sendAnswer, sendRecords } from "../http/engine.ts";
import { checkCountry, countriesFor } from "../http/key-countries.ts";
import { missingRecord } from "../http/missing-record.ts";
import { exactRouter } from "../http/router.ts";
import { playsDiffers, playsSeveral } from "../http/situations.ts";
import { fixedAnswer } from "../http/without-index.ts";
import type { LiveIndex } from "../publication/live-index.ts";

/** Where the other candidates of a played ambiguity are looked for: which ways, and degrees from the first one. */
const AROUND = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;
const ASIDE = 0.001;

/** The lookups, by GET, and by POST where a question is asked. */
export function lookupRoutes(index: LiveIndex, database: Knex): Router {
  const router = exactRouter();

  router.route("/suggest").get(suggest).post(suggest);
  router.route("/forward").get(forward).post(forward);
  router.route("/reverse").get(reverse).post(reverse);
  router.route("/records/:ref").get(record);
  router.route("/postcodes/:country").get(postcodes);
  router.route("/distance").get(distance).post(distance);
  return router;

  function suggest(request: Request, response: Response) {
    const { lang, format, ...asked } = readAsking(request, suggestAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const countries = countriesFor(response, asked.countries);
    const answer = engine.suggest({ ...asked, countries, langs: languagesOf(request, lang) });
    const isOpenSearch = format === "opensearch" || (!format && request.accepts(["json", OPENSEARCH]) === OPENSEARCH);
    response.vary("Accept");
    if (isOpenSearch) {
      const { suggestions } = answer;
      sendAnswer(
        response,
        OPENSEARCH,
        [asked.q, suggestions.map((s) => s.line), suggestions.map((s) => s.within)],
        began,
      );
      return;
    }
    const advice = answer.outcome === "none" ? notHeld(engine, countries) : [];
    sendAnswer(
      response,
      CALLS.suggest.mediaType,
      { q: asked.q, outcome: answer.outcome, advice, source: sourceOf(engine), suggestions: answer.suggestions },
      began,
    );
  }

  function forward(request: Request, response: Response) {
    const asked = readAsking(request, forwardAsking);
    if (!index.engine && response.locals.key?.kind === "try") {
      const { answer, features } = fixedAnswer(asked.q ?? PARTS.flatMap((part) => asked[part] ?? []).join(", "));
      sendRecords(request, response, answer, features, asked.format, performance.now());
      return;
    }
    const engine = engineOf(index);
    const began = performance.now();
    const { q, lang, gloss, kinds, inside, box, near, limit } = asked;
    const countries = countriesFor(response, asked.countries);
    const parts = Object.fromEntries(
      PARTS.flatMap((part) => (asked[part] === undefined ? [] : [[part, asked[part]]])),
    ) as Partial<Record<PartName, string>>;
    const answer = engine.forward({
      q,
      parts,
      countries,
      kinds,
      inside,
      box,
      near,
      limit,
      langs: languagesOf(request, lang),
    });
    if (playsDiffers(response)) addDifference(answer);
    if (playsSeveral(response)) addNeighbours(engine, answer, languagesOf(request, lang));
    const candidates = gloss ? answer.candidates : answer.candidates.map(({ gloss: _, ...candidate }) => candidate);
    const advice = [...answer.advice, ...(answer.outcome === "none" ? notHeld(engine, countries) : [])];
    const features = candidates.map(featureOf);
    sendRecords(
      request,
      response,
      {
        type: "FeatureCollection",
        outcome: answer.outcome,
        advice,
        ...(answer.reading ? { reading: answer.reading } : {}),
        source: sourceOf(engine),
        features,
      },
      features,
      asked.format,
      began,
    );
  }

  function reverse(request: Request, response: Response) {
    const { lang, format, ...asked } = readAsking(request, reverseAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const countries = countriesFor(response, asked.countries);
    const answer = engine.reverse({ ...asked, countries, langs: languagesOf(request, lang) });
    const features = answer.candidates.map(featureOf);
    sendRecords(
      request,
      response,
      {
        type: "FeatureCollection",
        outcome: answer.outcome,
        advice: answer.advice,
        source: sourceOf(engine),
        features,
      },
      features,
      format,
      began,
    );
  }

  async function record(request: Request, response: Response) {
    const { lang, facts, typed, format } = readAsking(request, recordAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const ref = String(request.params.ref);
    const found = engine.record(ref, { langs: languagesOf(request, lang) });
    if (!found) throw await missingRecord(database, engine, ref);
    checkCountry(response, found.parts.country?.code);
    if (typed !== undefined) response.locals.typed = typed;
    if (found.facts && facts) {
      const chosen = facts.flatMap((fact) => (found.facts?.[fact] === undefined ? [] : [[fact, found.facts[fact]]]));
      found.facts = Object.fromEntries(chosen);
    }
    const feature = featureOf(found);
    sendRecords(request, response, { ...feature, source: sourceOf(engine) }, [feature], format, began);
  }

  function postcodes(request: Request, response: Response) {
    const { starts, lang, limit, format } = readAsking(request, postcodesAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const country = String(request.params.country).slice(0, 2);
    checkCountry(response, country.toUpperCase());
    const answer = engine.postcodes({ country, starts, limit, langs: languagesOf(request, lang) });
    const missing = answer.outcome === "none" ? notHeld(engine, [country.toUpperCase()]) : [];
    const features = answer.candidates.map(featureOf);
    sendRecords(
      request,
      response,
      {
        type: "FeatureCollection",
        outcome: answer.outcome,
        advice: answer.outcome === "matched" || missing.length ? missing : ["No postcode held begins like this."],
        total: answer.total,
        source: sourceOf(engine),
        features,
      },
      features,
      format,
      began,
    );
  }
}

/** Lets what was written differ in the number, or in what there is of the first record: for a form's rehearsal. */
function addDifference(answer: ReturnType<Engine["forward"]>): void {
  const [first] = answer.candidates;
  const part = PARTS.find((one) => one !== "unit" && first?.parts[one]);
  if (!first || !part) return;
  const held = first.parts[part]?.name ?? "";
  const written = part === "house" || part === "building" ? `${held}b` : `Other ${held}`;
  answer.outcome = "differs";
  answer.advice = ["This is the situation “differs”, as the try key asked."];
  answer.candidates = [{ ...first, differences: [{ part, written, held, how: "nearby" }] }];
}

/** Makes an answer ambiguous, with the houses around the first one where it has no others: for a form's rehearsal. */
function addNeighbours(engine: Engine, answer: ReturnType<Engine["forward"]>, langs: readonly string[]): void {
  const [first] = answer.candidates;
  if (!first) return;
  answer.outcome = "ambiguous";
  if (answer.candidates.length > 1) return;
  const held = new Set([first.ref]);
  for (const [north, east] of AROUND) {
    const at = { lat: first.at.lat + north * ASIDE, lon: first.at.lon + east * ASIDE };
    const { candidates } = engine.reverse({ at, radius: 500, limit: 1, langs });
    const near = candidates.find(({ ref, kind }) => kind === "address" && !held.has(ref));
    if (!near) continue;
    const { distance: _, bearing: __, ...other } = near;
    held.add(other.ref);
    answer.candidates.push({ ...other, score: 0.5, differences: [], gloss: [] });
  }
}

/** `/v1/distance`: needs no data, so it answers without an index too. */
function distance(request: Request, response: Response) {
  const { from, to } = readAsking(request, distanceAsking);
  const began = performance.now();
  const { metres, bearing } = geodesic(from, to);
  const answer = {
    metres: Math.round(metres * 1000) / 1000,
    ...(bearing === undefined ? {} : { bearing: Math.round(bearing * 1e6) / 1e6 }),
  };
  sendAnswer(response, CALLS.distance.mediaType, answer, began);
}

export function sourceOf(engine: Engine) {
  return engine.segment.meta.sources;
}

/** A word about asked countries of which no data is held. */
function notHeld(engine: Engine, countries: readonly string[] | undefined): string[] {
  const held = heldCountries(engine).map(({ code }) => code);
  const missing = (countries ?? []).filter((code) => !held.includes(code));
  return missing.length ? [`No data is held for ${missing.join(", ")}; held are ${held.join(", ")}.`] : [];
}

/** The countries of the open index, with their profiles. */
export function heldCountries({ segment }: Engine) {
  return Array.from({ length: segment.meta.counts.areas }, (_, area) => area)
    .filter((area) => segment.kindOf(area) === "country")
    .map((area) => ({ area, code: segment.areaCode(area)!, profile: heldProfile(segment.areaCode(area)!) }));
}
