import { isRightToLeft } from "@bibliotope/core/map";

/** Words that depend on a number, by the categories of CLDR's plural rules. */
export type ByNumber = { other: string } & Partial<Record<Intl.LDMLPluralRule, string>>;

/** The kit's words in a language: each English sentence with the translation. */
export interface Words {
  /** BCP 47. */
  lang: string;
  words: Readonly<Record<string, string | ByNumber>>;
}

let chosen: Words | undefined;

/** Sets the language of all pieces that are made from now on; English with none. */
export function setWords(words: Words | undefined): void {
  chosen = words;
}

/** The language of the kit's words, BCP 47. */
export const wordsLang = () => chosen?.lang ?? "en";

/**
 * A sentence in the chosen language, in English where that has none. Values stands in for `{name}`. What depends on the
 * number `{n}` is written for one and for many, with a bar between.
 */
export function say(english: string, values: Readonly<Record<string, string | number>> = {}): string {
  const { n } = values;
  const translated = chosen && Object.hasOwn(chosen.words, english) ? chosen.words[english] : undefined;
  const [one, many = one] = english.split("|");
  let text = n === 1 ? one : many;
  if (typeof translated === "string") text = translated;
  else if (translated) text = translated[new Intl.PluralRules(chosen!.lang).select(Number(n))] ?? translated.other;
  const isIsolated = isRightToLeft(wordsLang());
  return text.replace(/\{(\w+)\}/g, (placeholder, name: string) => {
    const value = values[name] ?? placeholder;
    // an address in another script would turn the words around it: first strong isolate, pop directional isolate
    return isIsolated && typeof value === "string" ? `\u2068${value}\u2069` : String(value);
  });
}
