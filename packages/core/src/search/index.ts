export { Engine } from "./engine.ts";
export type { ForwardAnswer, ScoredRecord } from "./forward.ts";
export type { Gloss } from "./gloss.ts";
export type { How } from "./interpret.ts";
export { type ForwardQuery, type Narrowing, OUTCOME, type Outcome } from "./query.ts";
export type { AnswerRecord, Shown } from "./record.ts";
export type { NearRecord, ReverseAnswer, ReverseQuery } from "./reverse.ts";
export type { SuggestAnswer, Suggestion, SuggestQuery } from "./suggest.ts";
