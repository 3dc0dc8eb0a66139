/** Words in lower case without accents: of text, and of names like `billingAddress_street1`. */
export function wordsOf(text: string): string[] {
  return (
    text
      .replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2")
      .replace(/(\p{L})(\d)/gu, "$1 $2")
      // without its accent "č. p." would be a postcode's "C. P."
      .replace(/(?<!\p{L})č\.?\s?p\.?(?!\p{L})/giu, " cislo popisne ")
      .replace(/(?<!\p{L})č\.?\s?(?:o|or)\.?(?!\p{L})/giu, " cislo orientacni ")
      .normalize("NFD")
      .replace(/\p{M}/gu, "")
      .toLowerCase()
      .replace(/№|\bn\.?\s?[º°]/giu, " nr ")
      .replace(/ß/g, "ss")
      .replace(/ø/g, "o")
      .replace(/æ/g, "ae")
      .replace(/ł/g, "l")
      .replace(/ı/g, "i")
      .split(/[^\p{L}\p{N}]+/u)
      .filter(Boolean)
  );
}

/** Phrases of a list between commas, each as its words. */
export function phrasesOf(list: string): string[][] {
  return list.split(",").map((phrase) => phrase.trim().split(" "));
}

/** True where the words contain the phrase. */
export const holds = (words: readonly string[], phrase: readonly string[]) => placeOf(words, phrase) >= 0;

/** Where the words contain the phrase, the last time; -1 where they do not. */
export function placeOf(words: readonly string[], phrase: readonly string[]): number {
  for (let at = words.length - phrase.length; at >= 0; at--)
    if (phrase.every((word, i) => words[at + i] === word)) return at;
  return -1;
}
