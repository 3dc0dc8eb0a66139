import { NONE, type Segment } from "../index/index.ts";
import { postcodeShape, profileOf } from "../place/index.ts";
import { type Lexicon, lexiconOf } from "../text/index.ts";
import { type ForwardAnswer, forward } from "./forward.ts";
import type { Held } from "./held.ts";
import { Marks } from "./marks.ts";
import { type PostcodesAnswer, type PostcodesQuery, postcodes } from "./postcodes.ts";
import type { ForwardQuery } from "./query.ts";
import { type AnswerRecord, describe, type Shown } from "./record.ts";
import { type ReverseAnswer, type ReverseQuery, reverse } from "./reverse.ts";
import { type SuggestAnswer, type SuggestQuery, suggest } from "./suggest.ts";

const MOST_AREAS = 5000;

/**
 * Answers lookups from one segment. Keeps working memory of its own, so one engine serves one thread; several engines
 * may share a segment.
 */
export class Engine implements Held {
  /** Working memory of the lookup under way. */
  readonly marks: Marks;
  readonly lexicon: Lexicon;
  readonly codeShapes: readonly RegExp[];
  /** Areas as answers give them, by languages; the same few stand at the end of every reverse lookup. */
  readonly #areas = new Map<string, AnswerRecord>();

  constructor(readonly segment: Segment) {
    this.marks = new Marks(segment);
    this.lexicon = lexiconOf(segment.meta.langs);
    this.codeShapes = segment.countries().flatMap((country) => {
      const shape = postcodeShape(profileOf(segment.countryCode(country)));
      return shape?.source.includes(" ") ? [shape] : [];
    });
  }

  suggest(query: SuggestQuery): SuggestAnswer {
    return suggest(this, query);
  }

  forward(query: ForwardQuery): ForwardAnswer {
    return forward(this, query);
  }

  reverse(query: ReverseQuery): ReverseAnswer {
    return reverse(this, query);
  }

  postcodes(query: PostcodesQuery): PostcodesAnswer {
    return postcodes(this, query);
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

  /** One record by its ref; undefined when nothing here has it. */
  record(ref: string, shown: Shown = {}): AnswerRecord | undefined {
    const target = this.segment.resolve(ref);
    return target && describe(this.segment, target.thing, target.address ?? NONE, shown);
  }
}
