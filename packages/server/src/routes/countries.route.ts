import type { Segment } from "@bibliotope/core/index";
import { pickName, profileOf } from "@bibliotope/core/place";
import type { Country } from "@bibliotope/wire";
import type { Incoming } from "../http/incoming.ts";
import { HttpProblem } from "../http/problem.ts";
import { jsonReply } from "../http/reply.ts";
import type { SeenEngine } from "../http/seen-engine.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";

/** The countries with data, all or one, each with the profile. */
export const countryHandlers = { countries, country } satisfies Partial<Handlers>;

function countries(incoming: Incoming<"countries">): Reply {
  const { engine } = incoming;
  const began = performance.now();
  return jsonReply(incoming, { countries: countriesOf(engine, incoming.languages()), source: engine.sources }, began);
}

function country(incoming: Incoming<"country">): Reply {
  const { engine } = incoming;
  const began = performance.now();
  const code = incoming.parts.code.toUpperCase();
  const found = countriesOf(engine, incoming.languages()).find((existing) => existing.code === code);
  if (found) return jsonReply(incoming, { ...found, source: engine.sources }, began);
  const codes = engine
    .countries()
    .map((other) => other.code)
    .join(", ");
  throw new HttpProblem("not-found", `There is no data for ${code.slice(0, 20)}, only for ${codes}.`);
}

/** The first and the last postcode of each country, by the segment that holds them. */
const ends = new WeakMap<Segment, ReadonlyMap<string, ReadonlySet<number>>>();

/** Examples that can be looked up; undefined where no postcode is stored. */
function heldPostcodes({ segment }: SeenEngine, country: string): string[] | undefined {
  let known = ends.get(segment);
  if (!known) {
    const byName = new Map<string, ReadonlySet<number>>();
    for (let postcode = segment.firstPostcode; postcode < segment.firstStreet; postcode++) {
      const code = segment.countryCode(postcode);
      const [first = postcode] = byName.get(code) ?? [];
      byName.set(code, new Set([first, postcode]));
    }
    known = byName;
    ends.set(segment, known);
  }
  const things = known.get(country);
  return things && Array.from(things, (thing) => segment.namesOf(thing)[0].name);
}

function countriesOf(engine: SeenEngine, langs: readonly string[]): Country[] {
  return engine.countries().map(({ area, code }) => {
    const { langs: spoken, lines, line, labels, levels, number, postcode } = profileOf(code);
    return {
      code,
      name: pickName(engine.segment.namesOf(area), langs).name,
      langs: [...spoken],
      bbox: [...engine.segment.areaBox(area)],
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
