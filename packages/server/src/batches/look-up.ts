import { type Reading, RowAsker, type RowQuestion } from "@bibliotope/core/import";
import type { BriefRecord, Engine, NearRecord, ScoredRecord } from "@bibliotope/core/search";
import { type BatchAnswer, type BatchAsk, CLEAR, type RowStatus } from "@bibliotope/wire";

/** What a row came to. */
export interface RowResult {
  query: string;
  standing: Exclude<RowStatus, "seen">;
  /** The most likely record, or none. */
  answer: BatchAnswer | null;
  score: number | null;
  /** Metres from the row's position. */
  distance: number | null;
  /** How many more may be meant, as far as was looked. */
  others: number;
}

/** Candidates to choose from. */
const CANDIDATES = 5;
/** Metres within which an address is looked for around a position. */
const RADIUS = 250;

/** Asks the engine for the rows of one batch. */
export class RowLookup {
  readonly #asker: RowAsker;

  constructor(
    private readonly engine: Engine,
    reading: Reading,
    private readonly how: BatchAsk,
    /** Those in which it is looked; all when empty. */
    private readonly countries: readonly string[] = [],
  ) {
    this.#asker = new RowAsker(reading);
  }

  lookUp(cells: readonly string[]): RowResult {
    const question = this.#asker.ask(cells);
    const forward = this.how === "reverse" ? undefined : this.#forward(question);
    const isEnough = forward?.standing === "clear" || (this.how === "forward" && forward);
    if (isEnough || !question.at) return forward ?? nothing(question.words);
    const reverse = this.#reverse(question);
    return forward && (reverse.standing === "none" || forward.standing === "doubtful") ? forward : reverse;
  }

  /** All that may be meant by a row, or by a text that a person has put instead. */
  candidates(cells: readonly string[], text?: string): (ScoredRecord | NearRecord)[] {
    const question = text === undefined ? this.#asker.ask(cells) : { words: text, q: text };
    const { q, parts, at } = { at: undefined, parts: undefined, ...question } as RowQuestion;
    const found =
      this.how === "reverse" && text === undefined
        ? []
        : asks(question)
          ? this.engine.forward({ q, parts, limit: CANDIDATES }).candidates
          : [];
    if (found.length || !at || this.how === "forward") return found;
    return this.engine.reverse({ at, radius: RADIUS, limit: CANDIDATES }).candidates;
  }

  #forward(question: RowQuestion): RowResult | undefined {
    if (!asks(question)) return undefined;
    const { q, parts } = question;
    const { outcome, first, others } = this.engine.likeliest({ q, parts, countries: this.countries });
    if (outcome === "none" || !first) return nothing(question.words);
    return {
      query: question.words,
      standing: outcome === "matched" ? "clear" : "doubtful",
      answer: { ...answerOf(first), outcome, differences: first.differences },
      score: first.score,
      distance: null,
      others: Math.min(others, CANDIDATES - 1),
    };
  }

  #reverse({ words, at }: RowQuestion): RowResult {
    const { candidates } = this.engine.reverse({
      at: at!,
      radius: RADIUS,
      limit: CANDIDATES,
      countries: this.countries,
    });
    const [first] = candidates;
    if (!first) return nothing(words);
    return {
      query: words,
      standing: first.kind === "address" && first.distance <= CLEAR.metres ? "clear" : "doubtful",
      answer: answerOf(first),
      score: null,
      distance: first.distance,
      others: candidates.length - 1,
    };
  }
}

const asks = ({ q, parts }: RowQuestion) => Boolean(q || parts);
const nothing = (query: string): RowResult => ({
  query,
  standing: "none",
  answer: null,
  score: null,
  distance: null,
  others: 0,
});

/** What of a record is kept with a row. */
export function answerOf({ ref, kind, exactness, at, line, parts }: BriefRecord): BatchAnswer {
  return { ref, kind, exactness, at: { lat: at.lat, lon: at.lon }, line, parts };
}
