import type { Segment } from "../index/index.ts";
import type { Lexicon } from "../text/index.ts";
import type { Marks } from "./marks.ts";
import type { AnswerRecord } from "./record.ts";

/** What a search stands on: a segment, its languages, and working memory that belongs to one thread. */
export interface Held {
  readonly segment: Segment;
  readonly lexicon: Lexicon;
  /** Shapes of the postcodes of the countries held, of two words or more, as folded words. */
  readonly codeShapes: readonly RegExp[];
  /** Working memory of the lookup under way. */
  readonly marks: Marks;
  /** An area as an answer gives it; shared between answers, so not to be changed. */
  area(area: number, langs?: readonly string[]): AnswerRecord;
}
