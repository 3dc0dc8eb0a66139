import { PARTS } from "../place/index.ts";
import { type Gloss, glossOf, withScripts } from "./gloss.ts";
import type { Held } from "./held.ts";
import { interpret, type QueryToken } from "./interpret.ts";
import { compileFilter, type ForwardQuery, OUTCOME, type Outcome } from "./query.ts";
import { rank } from "./rank.ts";
import { type AnswerRecord, describe } from "./record.ts";

/** A record that may be meant, with why. */
export interface ScoredRecord extends AnswerRecord {
  /** 0 to 1. */
  score: number;
  gloss: Gloss[];
}

export interface ForwardAnswer {
  outcome: Outcome;
  candidates: ScoredRecord[];
  /** What the person could do, in words, when the answer is not a clear one. */
  advice: string[];
}

const DEFAULT_LIMIT = 5;

/** Candidates for an address as free text, by parts, or both, best first. */
export function forward(held: Held, query: ForwardQuery): ForwardAnswer {
  const { segment, matches } = held;
  const { text, tokens } = readQuery(held, query);
  if (!tokens.length) return { outcome: "none", candidates: [], advice: ["Give at least one word to look for."] };
  matches.fill(tokens);
  const filter = compileFilter(segment, query);
  const ranked = rank(segment, tokens, matches, filter, Math.max(2, query.limit ?? DEFAULT_LIMIT), query.near);
  const found = ranked.filter((candidate) => candidate.score >= OUTCOME.found);
  const candidates = found.map((candidate): ScoredRecord => {
    const record = describe(segment, candidate.thing, candidate.address, { langs: query.langs, typed: text });
    const gloss = withScripts(glossOf(segment, tokens, candidate, record.parts, text));
    return { ...record, score: Math.round(candidate.score * 1000) / 1000, gloss };
  });
  const outcome = outcomeOf(found.map((candidate) => candidate.score));
  return {
    outcome,
    candidates: candidates.slice(0, query.limit ?? DEFAULT_LIMIT),
    advice: adviceFor(held, outcome, tokens, text),
  };
}

/** Free text and parts become one list of words; the words of a part may only be part of names of its kind. */
function readQuery({ segment }: Held, query: ForwardQuery): { text: string; tokens: QueryToken[] } {
  let text = query.q ?? "";
  const tokens = interpret(segment, text, false);
  for (const part of PARTS) {
    const given = query.parts?.[part]?.trim();
    if (!given) continue;
    const offset = text.length + (text ? 1 : 0);
    text += (text ? " " : "") + given;
    for (const token of interpret(segment, given, false, part)) {
      tokens.push({ ...token, start: token.start + offset, end: token.end + offset });
    }
  }
  return { text, tokens: tokens.slice(0, 16) };
}

function outcomeOf(scores: readonly number[]): Outcome {
  if (!scores.length) return "none";
  return scores.length > 1 && scores[0] - scores[1] < OUTCOME.margin ? "ambiguous" : "matched";
}

function adviceFor({ matches }: Held, outcome: Outcome, tokens: readonly QueryToken[], text: string): string[] {
  if (outcome === "ambiguous") return ["Several fit equally well: add the town, the county or the postcode."];
  if (outcome === "matched") return [];
  const unknown = tokens.filter(
    (token, t) => token.kind === "word" && !matches.touched.some((thing) => matches.own(thing, t) > 0),
  );
  if (!unknown.length) return ["These words are known, but not together: check the town or the postcode."];
  return [
    `Not known here: ${unknown.map((token) => text.slice(token.start, token.end)).join(", ")}. Check the spelling.`,
  ];
}
