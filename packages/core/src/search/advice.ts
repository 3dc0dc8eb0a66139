import { ADVICE_WORDS, type AdviceWords } from "./advice-words.ts";

/** A sentence of advice in English; what is in braces is put in. */
export type Advice = keyof AdviceWords;

/**
 * A sentence of advice in the first of some languages that it is known in, else in English.
 * @param langs the reader's, BCP 47, the most wanted first
 */
export function advise(
  langs: readonly string[],
  english: Advice,
  values: Readonly<Record<string, string>> = {},
): string {
  const text = wordsIn(langs)?.[english] ?? english;
  return text.replace(/\{(\w+)\}/g, (placeholder, name: string) => values[name] ?? placeholder);
}

/** The same of names of parts. */
export function partIn(langs: readonly string[], part: "town" | "postcode" | "county" | "region" | "country"): string {
  return wordsIn(langs)?.[part] ?? part;
}

/** The words of the first language that is English or known; undefined for English. */
function wordsIn(langs: readonly string[]): AdviceWords | undefined {
  for (const lang of langs) {
    const own = lang.slice(0, lang.search(/-|$/)).toLowerCase();
    if (own === "en") return undefined;
    if (Object.hasOwn(ADVICE_WORDS, own)) return ADVICE_WORDS[own];
  }
  return undefined;
}
