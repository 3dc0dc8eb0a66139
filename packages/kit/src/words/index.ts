import type { Words } from "./say.ts";

export { type ByNumber, setWords, type Words } from "./say.ts";

/** Languages that the kit speaks beside English, each loaded when it is wanted. */
const LANGUAGES: Readonly<Record<string, () => Promise<{ default: Words }>>> = {
  ar: () => import("./ar.ts"),
  de: () => import("./de.ts"),
  el: () => import("./el.ts"),
  es: () => import("./es.ts"),
  fr: () => import("./fr.ts"),
  it: () => import("./it.ts"),
  nl: () => import("./nl.ts"),
  pl: () => import("./pl.ts"),
  pt: () => import("./pt.ts"),
};

/** Languages of which the kit has words (BCP 47). */
export const WORD_LANGUAGES: readonly string[] = ["en", ...Object.keys(LANGUAGES)];

/**
 * The kit's words in the first of some languages that it has; undefined for English. Give them to {@link setWords}
 * before the pieces are made; words of your own are an object of the same shape.
 *
 * @example
 * setWords(await loadWords(document.documentElement.lang));
 */
export async function loadWords(...langs: readonly string[]): Promise<Words | undefined> {
  for (const lang of langs) {
    const language = lang.toLowerCase().split("-")[0];
    if (language === "en") return undefined;
    if (Object.hasOwn(LANGUAGES, language)) return (await LANGUAGES[language]()).default;
  }
  return undefined;
}
