import type { Segment } from "@bibliotope/core/index";
import { pickName, profileOf } from "@bibliotope/core/place";
import type { Engine } from "@bibliotope/core/search";
import { CALLS, type Country } from "@bibliotope/wire";
import type { Router } from "express";
import { engineOf, languagesOf, sendAnswer } from "../http/engine.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import { heldCountries, sourceOf } from "./lookups.route.ts";

/** `/v1/countries` and `/v1/countries/CC`. */
export function countryRoutes(index: LiveIndex): Router {
  const router = exactRouter();
  router.get("/countries", (request, response) => {
    const engine = engineOf(index);
    const began = performance.now();
    const countries = countriesOf(engine, languagesOf(request, undefined));
    sendAnswer(response, CALLS.countries.mediaType, { countries, source: sourceOf(engine) }, began);
  });
  router.get("/countries/:code", (request, response) => {
    const engine = engineOf(index);
    const began = performance.now();
    const code = request.params.code.toUpperCase();
    const country = countriesOf(engine, languagesOf(request, undefined)).find((held) => held.code === code);
    if (!country) {
      const held = heldCountries(engine)
        .map((other) => other.code)
        .join(", ");
      throw new HttpProblem("not-found", `No data is held for ${code.slice(0, 20)}. Held are ${held}.`);
    }
    sendAnswer(response, CALLS.country.mediaType, { ...country, source: sourceOf(engine) }, began);
  });
  return router;
}

/** The first and the last postcode held of each country, by the segment that holds them. */
const ends = new WeakMap<Segment, ReadonlyMap<string, ReadonlySet<number>>>();

/** Examples that can be looked up; undefined where no postcode is held. */
function heldPostcodes({ segment }: Engine, country: string): string[] | undefined {
  let known = ends.get(segment);
  if (!known) {
    const held = new Map<string, ReadonlySet<number>>();
    for (let postcode = segment.firstPostcode; postcode < segment.firstStreet; postcode++) {
      const code = segment.countryCode(postcode);
      const [first = postcode] = held.get(code) ?? [];
      held.set(code, new Set([first, postcode]));
    }
    known = held;
    ends.set(segment, known);
  }
  const things = known.get(country);
  return things && Array.from(things, (thing) => segment.namesOf(thing)[0].name);
}

function countriesOf(engine: Engine, langs: readonly string[]): Country[] {
  return heldCountries(engine).map(({ area, code }) => {
    const { langs: spoken, lines, line, labels, levels, number, postcode } = profileOf(code);
    return {
      code,
      name: pickName(engine.segment.namesOf(area), langs).name,
      langs: [...spoken],
      lines,
      line,
      labels,
      levels: [...levels],
      number,
      ...(postcode
        ? { postcode: { ...postcode, examples: heldPostcodes(engine, code) ?? [...postcode.examples] } }
        : {}),
    };
  });
}
