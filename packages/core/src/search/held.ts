import type { Segment } from "../index/index.ts";
import type { Matches } from "./match.ts";
import type { AnswerRecord } from "./record.ts";

/** What a search stands on: a segment, and working memory that belongs to one thread. */
export interface Held {
  readonly segment: Segment;
  /** Working memory of the lookup under way. */
  readonly matches: Matches;
  /** An area as an answer gives it; shared between answers, so not to be changed. */
  area(area: number, langs?: readonly string[]): AnswerRecord;
}
