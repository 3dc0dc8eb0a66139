import { AREAS, GROUPS, NONE, type Overlaid, POSTCODES, Segment } from "../index/index.ts";
import { postcodeShape, profileOf } from "../place/index.ts";
import { type Lexicon, lexiconOf } from "../text/index.ts";
import { type Dictionary, type QueryToken, rangesOf } from "./interpret.ts";
import { type ChangedNames, Marks } from "./marks.ts";
import { type AnswerRecord, describe } from "./record.ts";

const MOST_AREAS = 5000;

/** A segment, by itself or with changes on top of it. */
export type Searched = Segment | Overlaid;

/**
 * What a search is on: segments, their languages, and working memory that belongs to one thread. Each segment is a layer of
 * it, and so are the changes on top of one; they are read as one dictionary and asked one after the other.
 */
export class Indexed implements Dictionary {
  /** The first that lies on top of nothing. */
  readonly segment: Segment;
  readonly lexicon: Lexicon;
  /** Shapes of the postcodes of the countries with data, of two words or more, as folded words. */
  readonly codeShapes: readonly RegExp[];
  /** Those of all countries with data. */
  readonly wordShapes: readonly RegExp[];
  /** Working memory of the lookup under way. */
  readonly marks: Marks;
  /** All that is requested: this, the changes on top of it before it, and what lies beside it. A layer knows itself alone. */
  readonly layers: readonly Indexed[];
  /** Of the layers, in their order. */
  readonly segments: readonly Segment[];
  readonly bases: readonly Segment[];
  /** Areas as answers give them, by languages; the same few stand at the end of every reverse lookup. */
  readonly #areas = new Map<string, AnswerRecord>();

  /**
   * @param searched one segment, or several that have nothing in common: those of different countries
   * @param lexicon the abbreviations to go by; those of the languages of the data when left out
   */
  constructor(searched: Searched | readonly Searched[], lexicon?: Lexicon) {
    const parts = searched instanceof Segment || "base" in searched ? [searched] : searched;
    const [base, ...beside] = parts.map((part) => (part instanceof Segment ? part : part.base));
    const [first, ...others] = parts;
    this.segment = base;
    this.bases = [base, ...beside];
    this.segments = parts.flatMap((part) => (part instanceof Segment ? [part] : [part.changes, part.base]));
    this.lexicon = lexicon ?? lexiconOf([...new Set(this.segments.flatMap(({ meta }) => meta.langs))]);
    this.wordShapes = this.bases.flatMap((one) =>
      one.countries().flatMap((country) => postcodeShape(profileOf(one.countryCode(country))) ?? []),
    );
    this.codeShapes = this.wordShapes.filter(({ source }) => source.includes(" "));
    const over = first instanceof Segment ? [] : [new Indexed(first.changes, this.lexicon)];
    this.marks = new Marks(base, over.length ? changedNames(base, over[0]) : undefined);
    this.layers = [...over, this, ...others.flatMap((part) => new Indexed(part, this.lexicon).layers)];
  }

  /** An area as an answer gives it; shared between answers, so not to be changed. */
  area(area: number, langs: readonly string[] = []): AnswerRecord {
    const key = `${area} ${langs.join()}`;
    let record = this.#areas.get(key);
    if (!record) {
      if (this.#areas.size >= MOST_AREAS) this.#areas.clear();
      record = describe(this.segment, area, NONE, { langs });
      this.#areas.set(key, record);
    }
    return record;
  }
}

/** Areas of the base that have other names now: how well a typed word fits those. */
function changedNames(base: Segment, over: Indexed): ChangedNames {
  const { sections } = over.segment;
  const byIdentity = new Map(Array.from(base.changedAreas, (area) => [base.sections.thingIdentity[area], area]));
  // a word that the base knows is not misspelt in the changes
  const both = { ...over, segments: [over.segment, base] };
  return {
    areas: new Set(byIdentity.values()),
    *fits(token: QueryToken) {
      if (!byIdentity.size) return;
      const [ranges] = rangesOf(both, token, token.unfinished === true, !token.isTrusted).ranges;
      for (const { from, to, quality } of ranges) {
        for (let term = from; term < to; term++) {
          const end = sections.termPosting[term * GROUPS + POSTCODES];
          for (let p = sections.termPosting[term * GROUPS + AREAS]; p < end; p++) {
            const area = byIdentity.get(sections.thingIdentity[sections.posting[p]]);
            if (area !== undefined) yield [area, quality] as const;
          }
        }
      }
    },
  };
}
