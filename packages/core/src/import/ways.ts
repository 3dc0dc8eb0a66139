import { fold, LANGUAGES } from "../text/index.ts";

/** Share of streets of which a word is, or ends as, a word for a kind of street. @param streets words of each, folded */
function shareCalled(streets: readonly (readonly string[])[], ways: readonly string[]): number {
  if (!streets.length) return 0;
  const isCalled = (words: readonly string[]) =>
    words.some((word) =>
      ways.some((way) => word === way || (way.length > 2 && word.length > way.length + 2 && word.endsWith(way))),
    );
  return streets.filter(isCalled).length / streets.length;
}

/** Words for streets in each language, the short ones that stand alone among them. */
const CALLED = LANGUAGES.map(({ lang, ways, abbreviations }) => {
  const isWay = (word: string) => ways.includes(word);
  return { lang, ways: [...ways, ...abbreviations.filter(([, long]) => isWay(long)).map(([short]) => short)] };
});

/** For each language, the share of some streets that are called as in it. @param streets as they are written */
export function waysOf(streets: readonly string[]): Map<string, number> {
  const words = streets.map((street) => fold(street).text.split(/[^\p{L}]+/u));
  return new Map(CALLED.map(({ lang, ways }) => [lang, shareCalled(words, ways)]));
}

/** The largest share of some values that are a word for a kind of street and nothing else ("ST", "Ave."), of all languages. */
export function shareOfBareWays(values: readonly string[]): number {
  if (!values.length) return 0;
  const plain = values.map((value) => fold(value).text.replace(/\.$/, ""));
  return Math.max(...CALLED.map(({ ways }) => plain.filter((value) => ways.includes(value)).length)) / values.length;
}
