import { tokenize } from "../text/index.ts";
import type { Sections } from "./layout.ts";
import { buildTrie, type Trie } from "./trie.ts";

/** Gathers the words of things while a segment is built. */
export class TermTable {
  readonly #things = new Map<string, number[]>();

  /**
   * Notes the words of a thing's names.
   * @param joined also find it by all words of a name written as one ("HT429")
   * @returns how many words its shortest name has
   */
  add(thing: number, names: readonly string[], joined: boolean): number {
    let fewest = 255;
    const words = new Set<string>();
    for (const name of names) {
      const tokens = tokenize(name);
      fewest = Math.min(fewest, tokens.length);
      for (const token of tokens) words.add(token.text);
      if (joined) words.add(tokens.map((token) => token.text).join(""));
    }
    for (const word of words) {
      const things = this.#things.get(word);
      if (things) things.push(thing);
      else this.#things.set(word, [thing]);
    }
    return fewest;
  }

  finish(importance: Uint16Array): Trie & Pick<Sections, "termPosting" | "posting"> {
    const words = [...this.#things.keys()].sort((a, b) => (a < b ? -1 : 1));
    const termPosting = new Uint32Array(words.length + 1);
    const posting: number[] = [];
    words.forEach((word, i) => {
      const things = this.#things.get(word)!.sort((a, b) => importance[b] - importance[a] || a - b);
      for (const thing of things) posting.push(thing);
      termPosting[i + 1] = posting.length;
    });
    return { ...buildTrie(words), termPosting, posting: Uint32Array.from(posting) };
  }
}
