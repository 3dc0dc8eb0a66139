import { lettersOf, tokenize } from "../text/index.ts";
import { Growing } from "./growing.ts";
import { hintOf } from "./hints.ts";
import { GROUPS, REST, type Sections } from "./layout.ts";
import { buildTrie, childOf, type Trie } from "./trie.ts";

/** What the words of a segment come to. */
export type TermSections = Trie &
  Pick<
    Sections,
    | "termPosting"
    | "posting"
    | "postingHint"
    | "termLetters"
    | "termLength"
    | "thingTerm"
    | "termOfThing"
    | "headNode"
    | "headThing"
    | "thingOfHead"
    | "hintOfHead"
  >;

/** Nodes with more postings below than this get a list of their most important things. */
const WIDE = 1024;
/** How many things such a list names. */
const HEADS = 512;
/** Words longer than this are all the same length to the search for spelling. */
const LONGEST = 255;

/** Gathers the words of things, in the order of their numbers, while a segment is built. */
export class TermTable {
  readonly #numbers = new Map<string, number>();
  readonly #words: string[] = [];
  readonly #starts = new Growing(Uint32Array);
  readonly #terms = new Growing(Uint32Array);
  /** How many of a thing's words find it; the rest only explain what was typed. */
  readonly #finding = new Growing(Uint8Array);

  /**
   * Notes the words of the next thing.
   * @param joined also find it by all words of a name written as one ("HT429")
   * @param around number of a thing whose words explain this one too, but do not find it
   * @returns how many words its shortest name has
   */
  add(names: readonly string[], joined: boolean, around?: number): number {
    let fewest = LONGEST;
    const words = new Set<string>();
    for (const name of names) {
      const tokens = tokenize(name);
      fewest = Math.min(fewest, tokens.length);
      for (const token of tokens) words.add(token.text);
      if (joined) words.add(tokens.map((token) => token.text).join(""));
    }
    this.#starts.push(this.#terms.length);
    this.#finding.push(Math.min(LONGEST, words.size));
    for (const word of words) this.#terms.push(this.#numberOf(word));
    if (around !== undefined) {
      const end = this.#starts.get(around + 1);
      for (let i = this.#starts.get(around); i < end; i++) this.#terms.push(this.#terms.get(i));
    }
    return fewest;
  }

  #numberOf(word: string): number {
    let number = this.#numbers.get(word);
    if (number === undefined) {
      number = this.#words.push(word) - 1;
      this.#numbers.set(word, number);
    }
    return number;
  }

  /** @param groupOf the group of a thing's postings */
  finish(importance: Uint16Array, groupOf: (thing: number) => number): TermSections {
    const sorted = Uint32Array.from(this.#words, (_, i) => i).sort((a, b) =>
      this.#words[a] < this.#words[b] ? -1 : 1,
    );
    const words = Array.from(sorted, (i) => this.#words[i]);
    const place = new Uint32Array(words.length);
    sorted.forEach((i, at) => {
      place[i] = at;
    });
    this.#starts.push(this.#terms.length);
    const thingTerm = this.#starts.finish();
    const termOfThing = this.#terms.finish().map((i) => place[i]);
    const finding = this.#finding.finish();
    const termPosting = new Uint32Array(words.length * GROUPS + 1);
    const eachPosting = (things: Iterable<number>, take: (slot: number, thing: number) => void) => {
      for (const thing of things) {
        const group = groupOf(thing);
        for (let i = thingTerm[thing]; i < thingTerm[thing] + finding[thing]; i++) {
          take(termOfThing[i] * GROUPS + group, thing);
        }
      }
    };
    const byImportance = orderByImportance(importance);
    eachPosting(byImportance, (slot) => {
      termPosting[slot + 1]++;
    });
    for (let slot = 0; slot < words.length * GROUPS; slot++) termPosting[slot + 1] += termPosting[slot];
    const posting = new Uint32Array(termPosting[words.length * GROUPS]);
    const next = termPosting.slice();
    eachPosting(byImportance, (slot, thing) => {
      posting[next[slot]++] = thing;
    });
    const trie = buildTrie(words);
    const hint = (thing: number) => {
      let bits = 0;
      for (let i = thingTerm[thing]; i < thingTerm[thing + 1]; i++) bits |= hintOf(termOfThing[i]);
      return bits;
    };
    const hints = Uint16Array.from(importance, (_, thing) => hint(thing));
    const heads = headSections(trie, words, termPosting, (take) =>
      eachPosting(byImportance, (slot, thing) => {
        if (slot % GROUPS === REST) take((slot - REST) / GROUPS, thing);
      }),
    );
    return {
      ...trie,
      termPosting,
      posting,
      postingHint: Uint16Array.from(posting, (thing) => hints[thing]),
      termLetters: Uint32Array.from(words, lettersOf),
      termLength: Uint8Array.from(words, (word) => Math.min(LONGEST, word.length)),
      thingTerm,
      termOfThing,
      ...heads,
      hintOfHead: Uint16Array.from(heads.thingOfHead, (thing) => hints[thing]),
    };
  }
}

/** Things, the most important first, equal ones by number (a counting sort). */
function orderByImportance(importance: Uint16Array): Uint32Array {
  const starts = new Uint32Array(65_537);
  for (const value of importance) starts[65_535 - value + 1]++;
  for (let i = 1; i < starts.length; i++) starts[i] += starts[i - 1];
  const order = new Uint32Array(importance.length);
  importance.forEach((value, thing) => {
    order[starts[65_535 - value]++] = thing;
  });
  return order;
}

/** For each node that very much begins with, its most important things. */
function headSections(
  trie: Trie,
  words: readonly string[],
  termPosting: Uint32Array,
  eachPosting: (take: (term: number, thing: number) => void) => void,
) {
  const heads = new Map<number, number[]>();
  const below = (node: number) => {
    let sum = 0;
    for (let term = trie.nodeTermFrom[node]; term < trie.nodeTermTo[node]; term++)
      sum += termPosting[term * GROUPS + REST + 1] - termPosting[term * GROUPS + REST];
    return sum;
  };
  const find = (node: number) => {
    if (below(node) <= WIDE) return;
    heads.set(node, []);
    for (let child = trie.nodeChild[node]; child < trie.nodeChild[node] + trie.nodeChildren[node]; child++) find(child);
  };
  find(0);
  heads.delete(0);
  eachPosting((term, thing) => {
    let node = 0;
    for (let i = 0; i < words[term].length; i++) {
      node = childOf(trie, node, words[term].charCodeAt(i));
      const list = heads.get(node);
      if (!list) break;
      if (list.length < HEADS && list[list.length - 1] !== thing) list.push(thing);
    }
  });
  const nodes = [...heads.keys()].sort((a, b) => a - b);
  const headThing = new Uint32Array(nodes.length + 1);
  nodes.forEach((node, i) => {
    headThing[i + 1] = headThing[i] + heads.get(node)!.length;
  });
  return {
    headNode: Uint32Array.from(nodes),
    headThing,
    thingOfHead: Uint32Array.from(nodes.flatMap((node) => heads.get(node)!)),
  };
}
