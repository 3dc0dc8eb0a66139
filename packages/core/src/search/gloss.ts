import { NONE } from "../index/index.ts";
import { type PartName, type Parts, postcodeShape, profileOf } from "../place/index.ts";
import { hasOtherScript, type Lexicon, type Token, tokenize } from "../text/index.ts";
import type { Candidate } from "./candidates.ts";
import type { Indexed } from "./indexed.ts";
import { type How, TELLS } from "./weights.ts";

/** What one typed word was taken for. Spans are half-open UTF-16 ranges of what was typed. */
export interface Gloss {
  typed: string;
  span: [start: number, end: number];
  how: How;
  part?: PartName;
  /** The word or number it was taken for. */
  as?: string;
}

/** Explains each typed word of a candidate. @param typed the text the words were cut from */
export function glossOf({ segment, lexicon }: Indexed, candidate: Candidate, parts: Parts, typed: string): Gloss[] {
  const profile = profileOf(segment.countryCode(candidate.thing));
  const shape = postcodeShape(profile);
  return candidate.tokens.map((token, t) => {
    const { by, how, as } = candidate.explained[t];
    // spelt out: most of the time of a gloss went into copying it
    const taken = (how: How, part?: PartName, as?: string): Gloss => {
      const gloss: Gloss = { typed: typed.slice(token.start, token.end), span: [token.start, token.end], how };
      if (part !== undefined) gloss.part = part;
      if (as !== undefined) gloss.as = as;
      return gloss;
    };
    if (how && as) {
      const part = as === "unit" ? "unit" : profile.number.part;
      return taken(how, part, how === "absent" ? undefined : parts[part]?.name);
    }
    if (by === NONE && parts.postcode && (token.isCode || shape?.test(token.text)))
      return taken("differs", "postcode", parts.postcode.name);
    if (by === NONE || (token.weight <= TELLS.nothing && !isNamed(candidate, by, t))) return taken("ignored");
    const kind = segment.kindOf(by);
    const part: PartName = kind === "address" ? "house" : kind;
    const word = parts[part] && takenFor(token, parts[part].name, lexicon);
    if (!word) return taken("same", part);
    return taken(token.isCut && word.how === "same" ? "joined" : word.how, part, word.text);
  });
}

/** True when another word, one that means something, is of the same name. */
function isNamed({ tokens, explained }: Candidate, by: number, except: number): boolean {
  return explained.some((other, t) => t !== except && other.by === by && tokens[t].weight > TELLS.nothing);
}

/** Words of names met lately: the same street and town names come again and again. */
const known = new Map<string, Token[]>();
const MOST_KNOWN = 8192;

/** The words of a name, as they are read. */
function wordsOf(name: string): Token[] {
  let words = known.get(name);
  if (!words) {
    if (known.size >= MOST_KNOWN) known.clear();
    words = tokenize(name);
    known.set(name, words);
  }
  return words;
}

/** The word of a name that a typed word was taken for, the closest way first. */
function takenFor(token: Token, name: string, lexicon: Lexicon): { text: string; how: How } | undefined {
  const words = wordsOf(name);
  const text = (word: Token) => name.slice(word.start, word.end);
  const same = words.find((word) => word.text === token.text);
  if (same) return { text: text(same), how: "same" };
  if (isAllOf(words, token.text)) return { text: name, how: "joined" };
  const forms = lexicon.otherForms(token.text);
  const short = words.find((word) => forms.includes(word.text));
  if (short) return { text: text(short), how: "abbreviation" };
  const begun = words.find((word) => word.text.startsWith(token.text));
  // the second of two words that stand for one: "harbour master" for Harbourmaster
  const ended = words.find((word) => word.text.length > token.text.length && word.text.endsWith(token.text));
  if (begun) return { text: text(begun), how: "prefix" };
  if (ended && token.text.length > 2) return { text: text(ended), how: "joined" };
  const spelt = words
    .map((word) => ({ word, shared: sharedLetters(word.text, token.text) }))
    .reduce((a, b) => (b.shared > a.shared ? b : a), { word: words[0], shared: -1 });
  return spelt.word ? { text: text(spelt.word), how: "spelling" } : undefined;
}

/** True for a text that is some words written as one. */
function isAllOf(words: readonly Token[], text: string): boolean {
  let at = 0;
  for (const word of words) {
    if (!text.startsWith(word.text, at)) return false;
    at += word.text.length;
  }
  return at === text.length;
}

/** Letters that two words share at their beginning and end; enough to tell which word one error away is meant. */
function sharedLetters(a: string, b: string): number {
  const shorter = Math.min(a.length, b.length);
  let head = 0;
  while (head < shorter && a[head] === b[head]) head++;
  let tail = 0;
  while (tail < shorter - head && a[a.length - 1 - tail] === b[b.length - 1 - tail]) tail++;
  return head + tail;
}

/** "script" where the word is the same but was typed in another script. */
export function withScripts(gloss: Gloss[]): Gloss[] {
  return gloss.map((g) =>
    g.how === "same" && g.as && hasOtherScript(g.as) !== hasOtherScript(g.typed) && /\p{L}/u.test(g.typed)
      ? { ...g, how: "script" }
      : g,
  );
}

/**
 * The ranges of a line that answer to typed words (half open, UTF-16 units, sorted): the typed letters of a beginning,
 * else all of the word.
 */
export function marksIn(line: string, gloss: readonly Gloss[]): [number, number][] {
  const marks: [number, number][] = [];
  for (const { as, how, typed } of gloss) {
    if (!as) continue;
    for (const wanted of wordsOf(as)) {
      const place = findWord(line, as.slice(wanted.start, wanted.end), marks);
      if (place < 0) continue;
      const length = how === "prefix" ? (wordsOf(typed)[0]?.text.length ?? 0) : wanted.text.length;
      const end = length < wanted.text.length ? wanted.from[length] : wanted.end;
      marks.push([place, place + end - wanted.start]);
    }
  }
  return marks.sort((a, b) => a[0] - b[0]);
}

/** Where a complete word is in a line, apart from places that are marked already; -1 where it does not. */
function findWord(line: string, word: string, marked: readonly [number, number][]): number {
  for (let at = line.indexOf(word); at >= 0; at = line.indexOf(word, at + 1)) {
    if (isInWord(line, at - 1) || isInWord(line, at + word.length)) continue;
    if (!marked.some(([from, to]) => at >= from && at < to)) return at;
  }
  return -1;
}

const IN_WORD = /[\p{L}\p{N}]/u;

function isInWord(text: string, at: number): boolean {
  const unit = text[at];
  // beside a word there is mostly nothing, or a space
  return unit !== undefined && unit !== " " && unit !== "," && IN_WORD.test(unit);
}
