import { featureOf } from "@bibliotope/core/formats";
import { heldProfile, PARTS, type PartName } from "@bibliotope/core/place";
import type { Engine } from "@bibliotope/core/search";
import { CALLS, forwardAsking, recordAsking, reverseAsking, suggestAsking } from "@bibliotope/wire";
import { type Request, type Response, Router } from "express";
import { readAsking } from "../http/asking.ts";
import { engineOf, languagesOf, sendAnswer } from "../http/engine.ts";
import { HttpProblem } from "../http/problem.ts";
import type { LiveIndex } from "../publication/live-index.ts";

/** `/v1/suggest`, `/v1/forward`, `/v1/reverse`, `/v1/records/REF`, by GET, and by POST where a question is asked. */
export function lookupRoutes(index: LiveIndex): Router {
  const router = Router();

  router.route("/suggest").get(suggest).post(suggest);
  router.route("/forward").get(forward).post(forward);
  router.route("/reverse").get(reverse).post(reverse);
  router.route("/records/:ref").get(record);
  return router;

  function suggest(request: Request, response: Response) {
    const { lang, ...asked } = readAsking(request, suggestAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const answer = engine.suggest({ ...asked, langs: languagesOf(request, lang) });
    const advice = answer.outcome === "none" ? notHeld(engine, asked.countries) : [];
    sendAnswer(
      response,
      CALLS.suggest.mediaType,
      { q: asked.q, outcome: answer.outcome, advice, source: sourceOf(engine), suggestions: answer.suggestions },
      began,
    );
  }

  function forward(request: Request, response: Response) {
    const asked = readAsking(request, forwardAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const { q, lang, gloss, countries, kinds, inside, box, near, limit } = asked;
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
    const candidates = gloss ? answer.candidates : answer.candidates.map(({ gloss: _, ...candidate }) => candidate);
    const advice = [...answer.advice, ...(answer.outcome === "none" ? notHeld(engine, countries) : [])];
    sendAnswer(
      response,
      CALLS.forward.mediaType,
      {
        type: "FeatureCollection",
        outcome: answer.outcome,
        advice,
        source: sourceOf(engine),
        features: candidates.map(featureOf),
      },
      began,
    );
  }

  function reverse(request: Request, response: Response) {
    const { lang, ...asked } = readAsking(request, reverseAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const answer = engine.reverse({ ...asked, langs: languagesOf(request, lang) });
    sendAnswer(
      response,
      CALLS.reverse.mediaType,
      {
        type: "FeatureCollection",
        outcome: answer.outcome,
        advice: answer.advice,
        source: sourceOf(engine),
        features: answer.candidates.map(featureOf),
      },
      began,
    );
  }

  function record(request: Request, response: Response) {
    const { lang } = readAsking(request, recordAsking);
    const engine = engineOf(index);
    const began = performance.now();
    const found = engine.record(String(request.params.ref), { langs: languagesOf(request, lang) });
    if (!found)
      throw new HttpProblem(
        "not-found",
        "No record has this ref. Refs come from suggestions and answers; they are not made by hand.",
      );
    sendAnswer(response, CALLS.record.mediaType, { ...featureOf(found), source: sourceOf(engine) }, began);
  }
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
