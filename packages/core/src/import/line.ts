import {
  type CountryProfile,
  type HouseNumber,
  parseHouseNumber,
  postcodeAsWritten,
  regionOf,
} from "../place/index.ts";

/** An address of one text, in parts. */
export interface WholeLine {
  street: string;
  house?: HouseNumber;
  unit?: string;
  postcode?: string;
  town?: string;
  /** Code or name of a region, as it is written. */
  region?: string;
}

const BEFORE = /^(\d+\s?\p{L}?(?:[-/]\d+\p{L}?)?)[\s,]+(.+)$/u;
const AFTER = /^(.+?)[\s,]+(\d+\s?\p{L}?(?:[-/]\d+\p{L}?)?)$/u;

/** A street and its number from one text: the number is where the country has it, else on the other side. */
export function splitLine(line: string, side: "before" | "after"): { street: string; house?: HouseNumber } {
  const ways = side === "before" ? [BEFORE, AFTER] : [AFTER, BEFORE];
  for (const way of ways) {
    const match = way.exec(line);
    if (!match) continue;
    const [street, written] = way === BEFORE ? [match[2], match[1]] : [match[1], match[2]];
    const house = parseHouseNumber(written);
    if (house) return { street, house };
  }
  return { street: line };
}

/**
 * A whole address from one text whose parts are parted by commas, semicolons or line ends: "12b Mill Lane, Flat 2, Tidewell,
 * HT4 29". What has no such marks is a street and its number.
 * @param isCountry true for what names the country of the row
 */
export function splitWhole(line: string, profile: CountryProfile, isCountry: (text: string) => boolean): WholeLine {
  const { stands: side } = profile.number;
  let pieces = line
    .split(/\s*[,;\n]\s*/)
    .map((piece) => piece.trim())
    .filter(Boolean);
  if (pieces.length > 1 && isCountry(pieces[pieces.length - 1])) pieces.pop();
  // "601000, Lipovo, ulitsa Lipovaya, 12" goes from the broadest to the number
  const code = pieces.length > 2 && isCode(pieces[0], profile) ? pieces[0] : undefined;
  if (code) {
    const broad = pieces.slice(1);
    const number = parseHouseNumber(broad[broad.length - 1]) ? broad.pop() : undefined;
    const [own, ...around] = broad.reverse();
    pieces = [number && own ? `${own} ${number}` : own, ...around.slice(0, 1)];
  }
  if (pieces.length < 2) return splitLine(pieces[0] ?? line, side);
  const usual = pieces.findIndex((piece) => (side === "before" ? BEFORE : AFTER).test(piece));
  const at = Math.max(0, usual >= 0 && !endOf(pieces[usual], profile) ? usual : 0);
  const found: WholeLine = splitLine(pieces[at], side);
  let next = at + 1;
  // a number alone, behind the street or in front of it: "Calle Olmo, 12"
  const isMore = next < pieces.length && !(pieces.length < 3 && isCode(pieces[next], profile));
  const alone = isMore && !found.house ? parseHouseNumber(pieces[next]) : undefined;
  if (alone) {
    found.house = alone;
    next++;
  }
  if (at > 0) found.unit = pieces.slice(0, at).join(", ");
  if (code) found.postcode = postcodeAsWritten(profile, code) ?? code;
  const rest = pieces.slice(next);
  for (let i = rest.length - 1; i >= 0; i--) {
    const end = endOf(rest[i], profile);
    if (!end || found.postcode) continue;
    found.postcode = end.postcode;
    rest[i] = end.rest;
  }
  const names = rest.filter(Boolean);
  const last = names[names.length - 1];
  if (names.length > 1 && last && regionOf(profile.code, last)) {
    found.region = last;
    names.pop();
  }
  // "3rd floor" is in the house, a name is of where it is
  const town = names.pop();
  if (town && /\d/.test(town)) names.push(town);
  else if (town) found.town = town;
  const inside = names.filter((name) => /\d/.test(name));
  if (inside.length) found.unit ??= inside.join(", ");
  return found;
}

/** True for what is a postcode and nothing else; digits enough for one where the country's are not known. */
function isCode(text: string, profile: CountryProfile): boolean {
  return profile.postcode ? endOf(text, profile)?.rest === "" : /^\d{4,7}$/.test(text);
}

/** A postcode at the beginning or at the end of a text, and what is left of it: "6013 Seebach", "Springvale IL 62701". */
export function endOf(text: string, profile: CountryProfile): { postcode: string; rest: string } | undefined {
  const words = text.split(" ");
  for (const count of [2, 1]) {
    if (words.length < count) continue;
    for (const isFirst of [true, false]) {
      const code = (isFirst ? words.slice(0, count) : words.slice(-count)).join(" ");
      if (code.length < 4 || !/\d/.test(code)) continue;
      const postcode = postcodeAsWritten(profile, code);
      // "IL 62701" is a region and its postcode
      const isMore = count === 2 && code.split(" ").some((word) => postcodeAsWritten(profile, word) === postcode);
      if (postcode === undefined || isMore || (count === 2 && /^\p{L}+$/u.test(words[isFirst ? 1 : words.length - 1])))
        continue;
      const rest = (isFirst ? words.slice(count) : words.slice(0, -count)).join(" ");
      return { postcode, rest };
    }
  }
  return undefined;
}
