/**
 * Short forms of common words, both ways: typing either finds the other. Folded; a short form may stand for several
 * words ("st" for street and saint). Data, one list for each language.
 */
export const ABBREVIATIONS: Readonly<Record<string, readonly (readonly [short: string, long: string])[]>> = {
  en: [
    ["st", "street"],
    ["st", "saint"],
    ["rd", "road"],
    ["ave", "avenue"],
    ["av", "avenue"],
    ["ln", "lane"],
    ["rw", "row"],
    ["sq", "square"],
    ["ct", "court"],
    ["pl", "place"],
    ["ter", "terrace"],
    ["cres", "crescent"],
    ["gdns", "gardens"],
    ["gn", "green"],
    ["hl", "hill"],
    ["wk", "walk"],
    ["qy", "quay"],
    ["stps", "steps"],
    ["hbr", "harbour"],
    ["harbor", "harbour"],
    ["n", "north"],
    ["s", "south"],
    ["e", "east"],
    ["w", "west"],
    ["gt", "great"],
    ["lt", "little"],
    ["upr", "upper"],
    ["lwr", "lower"],
    ["co", "county"],
  ],
  "qov-Latn": [
    ["gr", "grand"],
    ["vg", "veg"],
    ["st", "straede"],
    ["tg", "torg"],
    ["k", "kust"],
  ],
  "qth-Latn": [
    ["tetr", "tetragono"],
    ["pl", "plateia"],
    ["ag", "agios"],
  ],
};

/** Words that may be left out or added without changing what is meant. Folded. */
export const SMALL_WORDS: ReadonlySet<string> = new Set(["the", "of", "at", "in", "no", "nr", "and"]);

const longOf = new Map<string, string[]>();
const shortOf = new Map<string, string[]>();
for (const [short, long] of Object.values(ABBREVIATIONS).flat()) {
  longOf.set(short, [...(longOf.get(short) ?? []), long]);
  shortOf.set(long, [...(shortOf.get(long) ?? []), short]);
}

/** The other written forms of a folded word: what it may be short for, and its short forms. */
export function otherForms(word: string): readonly string[] {
  return [...(longOf.get(word) ?? []), ...(shortOf.get(word) ?? [])];
}
