import type { HouseNumber } from "../place/index.ts";
import { NUMBER_WORD, readHouse } from "./house.ts";
import type { LineWords } from "./line-words.ts";

/** A street with what is beside it in one text. */
export interface StreetLine {
  street: string;
  house?: HouseNumber;
  unit?: string;
}

/** A number as houses have them, suffixes and ranges among them. */
const NUMBER = String.raw`\d{1,5}(?:\s?(?:bis|ter|quater)(?!\p{L})|\s?[½¼¾]|\s[1-3]\/[2-4]|(?:\s?\p{L}(?![\p{L}.]))?(?:\s?[-\u2010-\u2015/+&]\s?(?:\d{1,4}\s?)?\p{L}?(?:hs)?(?![\p{L}\d]))?(?:\/\d{1,4}){0,2})`;
const BEFORE = new RegExp(String.raw`^(?:${NUMBER_WORD})?(${NUMBER})[\s,]+(\p{L}.*|\d+(?:st|nd|rd|th)\s.*)$`, "iu");
const AFTER = new RegExp(String.raw`(?:[\s,]+(?:${NUMBER_WORD})?|(?<=\p{Ll}{3}))(${NUMBER})(?=\.?(?:$|[\s,(]))`, "giu");
/** What most lines are: the patterns above take several times as long. */
const PLAIN_BEFORE = /^(\d{1,4}[a-z]?) ((?!(?:bis|ter|quater) )\p{L}{2}[^\d]*)$/iu;
const PLAIN_AFTER = /^([^\d]*\p{L}{3}) ([1-9]\d{0,3}[a-z]?)$/iu;
/** "s/n": a house that has no number. */
const WITHOUT = /[\s,]+(?:s\/n[°º]?|s\.n\.|snc|б\/н)\.?$/iu;
/** Points of the compass that stand between a number and the street, and are no letter of the number. */
const COMPASS = /^(\d+)\s([NSEW])$/;

/** A street and a number from one text: the number is where the country has it, else on the other side. */
export function splitLine(line: string, side: "before" | "after", words?: LineWords): StreetLine {
  const text = line.replace(/(\p{L}\.)(?=\d)/gu, "$1 ");
  const bare = text.replace(WITHOUT, "");
  if (bare !== text) return { street: bare };
  const box = words?.boxIn(text) ?? -1;
  if (box === 0) return { street: line };
  if (box > 0) return splitLine(text.slice(0, box).replace(/[\s,]+$/, ""), side, words);
  const inside = words?.unitIn(text) ?? -1;
  if (inside > 0) {
    const found = splitLine(text.slice(0, inside).replace(/[\s,]+$/, ""), side, words);
    const unit = [found.unit, text.slice(inside)].filter(Boolean).join(", ");
    if (found.house) return { ...found, unit };
  }
  const ways = side === "before" ? [numberBefore, numberBehind] : [numberBehind, numberBefore];
  for (const way of ways) {
    const found = way(text, words);
    if (found) return found;
  }
  return { street: line };
}

function numberBefore(text: string): StreetLine | undefined {
  const [, written, rest] = PLAIN_BEFORE.exec(text) ?? BEFORE.exec(text) ?? [];
  if (written === undefined) return undefined;
  // "12 N Mill Lane" goes to the north
  const compass = COMPASS.exec(written);
  const { house } = readHouse(compass ? compass[1] : written);
  if (!house) return undefined;
  return { street: compass ? `${compass[2]} ${rest}` : rest, house };
}

/** The last number with nothing behind it but which part of the house is meant: "Straße des 17. Juni 135", "Molenstraat 12 III". */
function numberBehind(text: string, words: LineWords | undefined): StreetLine | undefined {
  const plain = PLAIN_AFTER.exec(text);
  if (plain) return { street: plain[1], ...readHouse(plain[2]) };
  for (const match of [...text.matchAll(AFTER)].reverse()) {
    const street = text.slice(0, match.index);
    if (!/\p{L}/u.test(street)) continue;
    const rest = text.slice(match.index + match[0].length).replace(/^[.\s,(]+|\)$/g, "");
    if (rest && !isPartOfHouse(rest, words)) continue;
    const { house, unit } = readHouse(match[1]);
    // "Koivukatu 4 A 12": the number before is the house's
    if (!house || /\d\s?\p{L}$/u.test(street)) continue;
    const inside = [unit, rest].filter(Boolean).join(", ");
    return { street: street.replace(/[\s,]+$/, ""), house, ...(inside ? { unit: inside } : {}) };
  }
  return undefined;
}

/** True for what may stand behind a house's number: a flat, a floor, a staircase, in a word, a sign or a Roman number. */
const isPartOfHouse = (rest: string, words: LineWords | undefined) =>
  /^(?:[IVX]+(?:\/\d+)?|\p{Lu}{1,3}\d{0,4}|\p{Lu}?\s?\d{1,4}|#\s?\S+)$/u.test(rest) || words?.isUnit(rest) === true;
