import { NONE } from "../index/index.ts";
import { type ForwardAnswer, forward, type LikeliestAnswer, likeliest } from "./forward.ts";
import { Indexed } from "./indexed.ts";
import { type PostcodesAnswer, type PostcodesQuery, postcodes } from "./postcodes.ts";
import type { ForwardQuery } from "./query.ts";
import { type AnswerRecord, describe, type Shown } from "./record.ts";
import { type ReverseAnswer, type ReverseQuery, reverse } from "./reverse.ts";
import { type SuggestAnswer, type SuggestQuery, suggest } from "./suggest.ts";

/**
 * Answers lookups from one segment, or from one and the changes on top of it. Keeps working memory of its own, so one
 * engine serves one thread; several engines may share a segment.
 */
export class Engine extends Indexed {
  suggest(query: SuggestQuery): SuggestAnswer {
    return suggest(this, query);
  }

  forward(query: ForwardQuery): ForwardAnswer {
    return forward(this, query);
  }

  /** The first of `forward` alone, as batches need it. */
  likeliest(query: ForwardQuery): LikeliestAnswer {
    return likeliest(this, query);
  }

  reverse(query: ReverseQuery): ReverseAnswer {
    return reverse(this, query);
  }

  postcodes(query: PostcodesQuery): PostcodesAnswer {
    return postcodes(this, query);
  }

  /** One record by ref; undefined when nothing here has it. */
  record(ref: string, shown: Shown = {}): AnswerRecord | undefined {
    for (const { segment } of this.layers) {
      const target = segment.resolve(ref);
      if (target) return describe(segment, target.thing, target.address ?? NONE, shown);
    }
    return undefined;
  }
}
