import { AREAS, GROUPS, NONE, type Overlaid, POSTCODES, Segment } from "../index/index.ts";
import { postcodeShape, profileOf } from "../place/index.ts";
import { type Lexicon, lexiconOf } from "../text/index.ts";
import { type QueryToken, rangesOf } from "./interpret.ts";
import { type ChangedNames, Marks } from "./marks.ts";
import { type AnswerRecord, describe } from "./record.ts";

const MOST_AREAS = 5000;

/**
 * What a search is on: a segment, its languages, and working memory that belongs to one thread. With an overlay
 * there are two of them, which are asked one after the other.
 */
export class Indexed {
  readonly segment: Segment;
  readonly lexicon: Lexicon;
  /** Shapes of the postcodes of the countries with data, of two words or more, as folded words. */
  readonly codeShapes: readonly RegExp[];
  /** Those of all countries with data. */
  readonly wordShapes: readonly RegExp[];
  /** Working memory of the lookup under way. */
  readonly marks: Marks;
  /** All that is requested: this alone, or the changes on top of it and this. */
  readonly layers: readonly Indexed[];
  /** Areas as answers give them, by languages; the same few stand at the end of every reverse lookup. */
  readonly #areas = new Map<string, AnswerRecord>();

  /**
   * @param lexicon the abbreviations to go by; those of the languages of the data when left out
   * @param below what the segment lies on top of
   */
  constructor(
    existing: Segment | Overlaid,
    lexicon?: Lexicon,
    readonly below?: Segment,
  ) {
    const { base, changes } = existing instanceof Segment ? { base: existing, changes: undefined } : existing;
    this.segment = base;
    this.lexicon = lexicon ?? lexiconOf([...new Set([...base.meta.langs, ...(changes?.meta.langs ?? [])])]);
    const shapes = base.countries().flatMap((country) => postcodeShape(profileOf(base.countryCode(country))) ?? []);
    this.codeShapes = shapes.filter(({ source }) => source.includes(" "));
    this.wordShapes = shapes;
    const over = changes && new Indexed(changes, this.lexicon, base);
    this.layers = over ? [over, this] : [this];
    this.marks = new Marks(base, over && changedNames(base, over));
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
  return {
    areas: new Set(byIdentity.values()),
    *fits(token: QueryToken) {
      if (!byIdentity.size) return;
      for (const { from, to, quality } of rangesOf(over, token, token.unfinished === true, !token.isTrusted)) {
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
