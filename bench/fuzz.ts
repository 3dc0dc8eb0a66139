import type { Engine } from "@bibliotope/core/search";
import { Random } from "@bibliotope/islands";
import { atMost, type Measure, timeEach } from "./measure.ts";

const EACH = 400;
const ROUNDS = 3;

/** The slowest of texts that nobody types: it must not keep other lookups waiting. */
export function measureFuzz(engine: Engine, words: readonly string[], corpus: string): Measure {
  const texts = Object.values(KINDS).flatMap((make) => {
    const random = new Random(77);
    return Array.from({ length: EACH }, () => make(random, words).slice(0, 500));
  });
  const suggested = timeEach(texts, ROUNDS, (q) => engine.suggest({ q })).each;
  const each = timeEach(texts, ROUNDS, (q) => engine.forward({ q })).each.map((time, i) =>
    Math.max(time, suggested[i]),
  );
  const slowest = Math.max(...each);
  const text = JSON.stringify(texts[each.indexOf(slowest)]).slice(0, 60);
  const beside = `${texts.length} texts of ${Object.keys(KINDS).length} kinds, the slower of suggest and forward, ${ROUNDS} rounds; slowest ${text}`;
  return atMost("slowest of fuzzed texts", corpus, "ms", slowest, 50, beside);
}

const letters = (random: Random, from: number, to: number, length: number) =>
  Array.from({ length }, () => String.fromCodePoint(random.integer(from, to))).join("");

/** Texts by kind. @param words names of the corpus */
const KINDS: Record<string, (random: Random, words: readonly string[]) => string> = {
  bytes: (random) => letters(random, 1, 255, random.integer(1, 200)),
  "mixed scripts": (random) =>
    Array.from({ length: random.integer(2, 20) }, () => {
      const [from, to] = random.pick([
        [97, 122],
        [0x3b1, 0x3c9],
        [0x430, 0x44f],
        [0x5d0, 0x5ea],
        [0x4e00, 0x4fff],
      ]);
      return letters(random, from, to, random.integer(1, 12));
    }).join(" "),
  "two hundred words": (random, words) => Array.from({ length: 200 }, () => random.pick(words)).join(" "),
  "sixteen common words": (random, words) => Array.from({ length: 16 }, () => random.pickOften(words)).join(" "),
  digits: (random) => letters(random, 48, 57, 500),
  "repeated letters": (random) => letters(random, 97, 122, 1).repeat(random.integer(1, 500)),
  "letters one by one": (random) => Array.from({ length: 16 }, () => letters(random, 97, 122, 1)).join(" "),
  "marks without width": (random, words) => [...random.pick(words)].join(random.pick(["\u200b", "\u0301", "\u200d"])),
};
