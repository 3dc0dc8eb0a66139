/** What addresses need to know of a language. Words are folded (see fold.ts). Data, not code. */
export interface LanguagePack {
  /** BCP 47. */
  lang: string;
  /** Short forms of common words, both ways: typing either finds the other. A short form may stand for several words. */
  abbreviations: readonly (readonly [short: string, long: string])[];
  /** Kinds of street, as they stand in names, alone or at the end of a compound. */
  ways: readonly string[];
  /** Words that may be left out or added without changing what is meant. */
  small: readonly string[];
  /** Words that say what the number behind them is ("flat 3"), by what it then is. */
  before: Readonly<Partial<Record<NumberRole, readonly string[]>>>;
  /** The same for words behind their number ("3rd floor", "2 etage"). */
  after?: Readonly<Partial<Record<NumberRole, readonly string[]>>>;
  /** What may only stand behind the number of a house, or between separators: what of the house is meant. */
  within?: Within;
  /** Written numbers of streets ("third") with the forms in digits. */
  ordinals?: readonly (readonly [digits: string, word: string])[];
  /**
   * How forms and the heads of tables call the parts of an address, separated by commas. The HTML of forms and files of
   * data are read by it; what only one of them has is beside its reader.
   */
  partNames?: Readonly<Partial<Record<NamedPart, string>>>;
}

/** Words for what lies in a house. */
export interface Within {
  /** Words before a number or a letter ("Haus 3", "Bldg C"). */
  before?: readonly string[];
  /** Words behind such, or behind a floor ("EG links", "II p."). */
  after?: readonly string[];
  /** What needs no number, of one word or several ("basement", "fond de cour"). */
  alone: readonly string[];
  /** True where the number stands before the street, so that these follow a street's name ("20 Mill Drive Rear"). */
  followsStreet?: true;
}

/** What forms and tables have a name for: parts of an address, its first line, its position. */
export const NAMED_PARTS = [
  "line",
  "street",
  "house",
  "unit",
  "floor",
  "building",
  "district",
  "town",
  "county",
  "region",
  "postcode",
  "country",
  "lat",
  "lon",
] as const;
export type NamedPart = (typeof NAMED_PARTS)[number];

/** What a number can be, other than part of a name. */
export type NumberRole = "house" | "unit" | "floor" | "box" | "telephone";
