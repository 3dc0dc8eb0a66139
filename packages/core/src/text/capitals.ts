import { fold } from "./fold.ts";
import { LANGUAGES } from "./languages/index.ts";

const LETTERS = /\p{L}[\p{L}\p{M}]*/gu;
/** Numbers of kings and centuries, and what is a letter alone: written in capitals whatever is around. */
const NUMERAL = /^(?=[IVX])X{0,3}(?:IX|IV|V?I{0,3})$/;
/** Short forms that are capitals wherever they stand. */
const KEPT: ReadonlySet<string> = new Set(["NE", "NW", "SE", "SW", "PO", "US"]);
/** Words that lose their vowel before another: "L'ÉGLISE" is "l'Église". */
const ELIDED: ReadonlySet<string> = new Set(["d", "l", "dell", "all", "nell", "dall", "sull", "t"]);
const APOSTROPHE = /['’]/;

const small = new Map<string, ReadonlySet<string>>();

/** Words of a language that are written small inside a name. */
function smallWords(lang: string): ReadonlySet<string> {
  const code = lang.split("-")[0];
  let words = small.get(code);
  if (!words) {
    words = new Set(LANGUAGES.find((pack) => pack.lang === code)?.small ?? []);
    small.set(code, words);
  }
  return words;
}

/** True for a text that has upper-case letters alone; of scripts without case never. */
export function isInCapitals(text: string): boolean {
  return text === text.toUpperCase() && text !== text.toLowerCase() && /\p{L}{3}/u.test(text);
}

/**
 * A name that is in capitals as people write it: "CALLE DE LA ESTACIÓN" is "Calle de la Estación", "L'ÉGLISE" at the end of a
 * name "l'Église", "PIO XII" stays "Pio XII". What has a small letter is left as it is.
 * @param lang BCP 47: which words are small, and how letters change (Turkish)
 */
export function asPeopleWrite(text: string, lang: string): string {
  if (!isInCapitals(text)) return text;
  const smalls = smallWords(lang);
  return text.replace(LETTERS, (word, at: number) => {
    const [before, after] = [text[at - 1] ?? "", text[at + word.length] ?? ""];
    const lower = word.toLocaleLowerCase(lang);
    // letters behind a number are its own: "12B", "1ST"
    if (/\d/.test(before)) return /^(?:ST|ND|RD|TH)$/.test(word) ? lower : word;
    const isFirst = !/\p{L}/u.test(text.slice(0, at));
    if (APOSTROPHE.test(after) && ELIDED.has(lower)) return isFirst ? word : lower;
    if (APOSTROPHE.test(before) && word.length === 1) return lower;
    if (NUMERAL.test(word) || KEPT.has(word)) return word;
    if (!isFirst && smalls.has(fold(word).text) && before === " " && after !== ".") return lower;
    return word.charAt(0) + word.slice(1).toLocaleLowerCase(lang);
  });
}
