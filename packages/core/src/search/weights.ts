import type { PartName } from "../place/index.ts";
import type { NumberRole } from "../text/index.ts";

/*
 * Every weight of the ranking and of the verdict. They were set by hand and tried with `npm run fit`, which moves each of
 * them up and down and tells what that does to questions whose answers are known: of the islands (typing errors, beginnings,
 * abbreviations, parts left out) and of the world (real countries' ways of writing), on three quarters of the countries at
 * a time, judged by the fourth. What is beside a weight is the set that it matters for most.
 *
 * `weights.test.ts` has questions that come out wrong when a weight is moved by a half. What bounds the work alone (how
 * many things are looked at) is no weight and stays where it is used.
 */

/** How a typed word was taken; the words of the wire. */
export type How =
  | "same"
  | "prefix"
  | "spelling"
  | "abbreviation"
  | "script"
  | "joined"
  | "nearby"
  | "differs"
  | "absent"
  | "ignored";

/** What each way of taking a word is worth, 0 to 1. */
export const QUALITY: Readonly<Record<How, number>> = {
  same: 1,
  script: 1,
  /** Islands, abbreviated: what is written out comes before what is short. */
  abbreviation: 0.98,
  /** Islands, compounds joined and split. */
  joined: 0.97,
  /** Islands, cut after some characters. */
  prefix: 0.96,
  /** Islands and world, typing errors: a word mended may not beat one that was written. */
  spelling: 0.85,
  /** Islands, numbers without their letter: "12" for 12b. */
  nearby: 0.7,
  differs: 0,
  /** World, numbers that are not there: the street is still found. */
  absent: 0.25,
  ignored: 0,
};

/** What a word is worth that was taken in more than one way at once. */
export const MENDED = {
  /** Islands, two typing errors. */
  twoErrors: 0.7,
  /** World, compounds whose kind of street is short and whose word has an error: "tanenpl" for Tannenplatz. */
  shortAndMisspelt: 0.83,
  /** Islands, cut after some characters, with an error in them. */
  begunMisspelt: 0.75,
  /** A complete word that may yet become a longer one: "lantern" on the way to Lanternmouth. Islands, cut after some characters. */
  wholeSoFar: 0.97,
  /**
   * The beginning of a word where the person has gone on to the next one; less than a word that one error parts from
   * what was written. Islands, abbreviated; towns, one error.
   */
  leftShort: 0.84,
} as const;

/** The share of a typed word in the text. */
export const WEIGHT: Readonly<Record<"word" | "number" | "label" | "small" | Exclude<NumberRole, "house">, number>> = {
  word: 1,
  /** World, neighbours' numbers; islands, numbers that are not there. */
  number: 1.04,
  label: 0.1,
  small: 0.1,
  unit: 0.3,
  floor: 0.1,
  box: 0.1,
  telephone: 0.1,
};

/** The same of words by what they tell. */
export const TELLS = {
  /** Each word of a postcode that is written in two. */
  code: 0.5,
  /** A word that is in very many names. */
  leastRare: 0.3,
  /** What weighs no more means nothing by itself. */
  nothing: 0.1,
  /** What weighs as much tells names apart: it is no kind of street. */
  apart: 0.9,
  /** What weighs less may stand anywhere in a name. */
  inOrder: 0.2,
  /** What weighs as much counts as a complete word of a name, the rest as `smallShare` of one. */
  ofName: 0.5,
  smallShare: 0.2,
  /** So much of itself is left to a word in another stretch than the street's where all together led to nothing. World, the neighbour town. */
  rest: 0.3,
} as const;

/** What is taken off a score, and what some numbers are worth. */
export const COST = {
  /** The words of a name that were not typed, at most. Islands, cut after some characters. */
  incomplete: 0.06,
  /**
   * The number in the middle of the name ("block 7 4" means block 7, rather than block 4), or words of the name in
   * another order than it has.
   */
  disorder: 0.02,
  /** A word that names no town but something broader: a town is meant rather than a region of the name. */
  county: 0.006,
  region: 0.008,
  country: 0.008,
} as const;

/** What a number is worth that is not simply one of the street's, 0 to 1. */
export const NUMBER = {
  /** Between two neighbours. */
  between: 0.6,
  /** In a street that only common words point to. World, no such street. */
  ofCommon: 0.4,
  /** A unit in a building that is not known to have it. */
  unknownUnit: 0.5,
} as const;

/** What moves the order of equal scores. */
export const ORDER = {
  /** Of the most important thing. Islands and towns, cut after some characters. */
  importance: 0.03,
  /** Of what lies where the person is, and the metres at which half of it is lost. */
  nearness: 0.03,
  nearnessHalf: 5000,
  /**
   * So much more important is what ten times as many people live in: such a thing with an error in the name comes before
   * one that the text is the beginning of. Towns, one error.
   */
  tenfold: 0.13,
  /** What is spelt exactly like the text, accents and all; ten times as many people make up for it. Towns, whole names. */
  spelt: 0.004,
} as const;

/**
 * The chance that somebody who writes so means the record that explains the text best, by what is not so in it; 1 for
 * what does not stand here: another house, unit or postcode is nearly always a slip. Islands, with texts of which a tenth
 * have no right answer.
 */
export const TRUST: Readonly<Partial<Record<PartName, number>>> = { town: 0.87, country: 0.87 };

/** From scores to chances, and from chances to what an answer is called. */
export const VERDICT = {
  /** What explains less of a text than this does not count as found. The wire's documentation names it, and the next one. */
  found: 0.48,
  /** A second whose chance times this is no less than the first one's makes the answer ambiguous. */
  factor: 2,
  /** What is this much worse explained than the best has hardly a chance beside it. */
  beside: 0.002,
  /** How quickly a chance falls with what is left unexplained: islands, ten bins of scores. */
  steepness: 3,
} as const;

/** All of them by group, for `npm run fit` and the test that moves each. */
export const WEIGHTS: Readonly<Record<string, Readonly<Partial<Record<string, number>>>>> = {
  QUALITY,
  MENDED,
  WEIGHT,
  TELLS,
  COST,
  NUMBER,
  ORDER,
  TRUST,
  VERDICT,
};
