import { type CountryProfile, type HouseNumber, isRegion, postcodeAsWritten, regionOf } from "../place/index.ts";
import { readHouse } from "./house.ts";
import { type LineWords, lineWords } from "./line-words.ts";
import { splitLine } from "./street-line.ts";

/** An address of one text, in parts. */
export interface WholeLine {
  street: string;
  house?: HouseNumber;
  unit?: string;
  /** What a house is called that has no number. */
  name?: string;
  postcode?: string;
  town?: string;
  /** What is written between the street and the town. */
  district?: string;
  /** What is written behind a town, and is no region that is known. */
  county?: string;
  /** Code or name of a region, as it is written. */
  region?: string;
}

/** Commas, semicolons, bars, line ends, and dashes with room on either side; what is in brackets is apart. */
const MARKS = /\s*[,;|\n()]\s*|\s+[-\u2013\u2014]\s+/;
/** A range with room around its dash is one number, but where a postcode is behind it. */
const RANGE = /(\d)\s*[-\u2010-\u2015]\s*(\d{1,3}(?:(?![ºª])\p{L})?)(?=$|[\s,;])/gu;
/** "s/n": a house without a number. */
const NO_NUMBER = /^(?:s\/n[°º]?|s\.n\.|snc|б\/н)\.?$/iu;

/**
 * A whole address from one text, with marks between the parts or without: "12b Mill Lane, Flat 2, Tidewell,
 * HT4 29", "Lindenweg 12 24799 Seebach".
 * @param isCountry true for what names the country of the row
 */
export function splitWhole(line: string, profile: CountryProfile, isCountry: (text: string) => boolean): WholeLine {
  const { stands: side } = profile.number;
  const words = lineWords(profile);
  const pieces = line
    .replace("〒", "")
    .replace(RANGE, "$1-$2")
    .split(MARKS)
    .map((piece) => piece.trim())
    .filter(Boolean);
  while (pieces.length > 1 && isCountry(pieces[pieces.length - 1])) pieces.pop();
  if (!pieces.length) return { street: line.trim() };
  const code = takeCode(pieces, profile, words);
  const at = streetIn(pieces, profile, code?.before === undefined ? code?.place : undefined);
  const isOwn = code?.place === at;
  const found: WholeLine = splitLine((isOwn ? code?.before : undefined) ?? pieces[at], side, words);
  if (code) found.postcode = code.postcode;
  const isOther = (_: string, i: number) => i !== code?.place;
  const around = {
    before: pieces.filter((piece, i) => i < at && isOther(piece, i)),
    after: pieces.filter(
      (piece, i) => i > at && isOther(piece, i) && !NO_NUMBER.test(piece) && !words.isBoxWord(piece),
    ),
  };
  takeNumber(found, around);
  const behind = isOwn && !code?.rest && side === "before" ? words.townBehindWay(found.street) : undefined;
  if (behind) found.street = found.street.slice(0, -behind.length).trim();
  const isInside = (piece: string) => /\d/.test(piece) || words.isUnit(piece);
  // beside the postcode is the town, or the region alone
  const rest = code?.rest ?? "";
  const isOfRegion = (piece: string) => isRegion(profile.code, piece);
  if (isOfRegion(rest)) found.region = rest;
  let town = isOfRegion(rest) ? undefined : rest || behind;
  const region = around.after.findLastIndex(isOfRegion);
  if (!found.region && region >= 0 && (town || region > 0)) [found.region] = around.after.splice(region, 1);
  const inside = around.after.filter(isInside);
  const names = around.after.filter((piece) => !isInside(piece));
  const called = around.before.findLast((piece) => words.isTown(piece));
  if (!town) town = called ?? townOf(names, profile) ?? (words.isBroadFirst ? around.before.at(-1) : undefined);
  if (town) Object.assign(found, townWith(words.withoutTownWord(town), profile, found.region));
  takeNames(found, names, town, pieces.indexOf(town ?? ""), pieces, code?.place ?? pieces.length);
  const outside = words.isBroadFirst || called ? around.before.filter(isInside) : around.before;
  takeInside(found, [...outside, ...inside]);
  return found;
}

/** Names beside the town: what is behind it lies around it, what is before it in it. */
function takeNames(
  found: WholeLine,
  names: readonly string[],
  town: string | undefined,
  place: number,
  pieces: readonly string[],
  code: number,
): void {
  const at = place < 0 ? code : place;
  const others = names.filter((name) => name !== town);
  const [behind] = others.filter((name) => pieces.indexOf(name) > at);
  const before = others.filter((name) => pieces.indexOf(name) < at).at(-1);
  if (behind) found.county ??= behind;
  if (before && town) found.district = before;
}

/** A postcode in one of the pieces, with what is around it there. */
interface FoundCode {
  place: number;
  postcode: string;
  /** The street in front of it, where one piece holds all. */
  before?: string;
  rest: string;
}

/** Finds the postcode, the last piece first: what looks like one in front may be a house's number. */
function takeCode(pieces: readonly string[], profile: CountryProfile, words: LineWords): FoundCode | undefined {
  for (let place = pieces.length - 1; place >= 0; place--) {
    const piece = pieces[place];
    if (!profile.postcode) {
      if (place === 0 && pieces.length > 2 && isCode(piece, profile)) return { place, postcode: piece, rest: "" };
      continue;
    }
    const end = endOf(piece, profile);
    // "77001 Mill Lane" begins with a house's number where those come first
    const isHouse = profile.number.stands === "before" && /^\d/.test(piece) && words.hasWay(piece);
    const isStreet = isHouse || /\d/.test(end?.rest ?? "");
    if (end && !isStreet && (pieces.length > 1 || end.rest)) return { place, ...end };
    // "100-0001 桜町1-1": the street and all around it
    if (end && pieces.length === 1 && piece.trim().startsWith(end.postcode))
      return { place, postcode: end.postcode, before: end.rest, rest: "" };
    const inner = codeWithin(piece, profile);
    if (inner) return { place, ...inner };
  }
  return undefined;
}

/** A postcode behind a street with its number, with the town behind it or nothing. */
function codeWithin(piece: string, profile: CountryProfile): Omit<FoundCode, "place"> | undefined {
  const words = piece.split(" ");
  for (let from = words.length - 1; from > 0; from--)
    for (const count of [2, 1]) {
      const code = words.slice(from, from + count).join(" ");
      const before = words.slice(0, from).join(" ");
      if (from + count > words.length || code.length < 4 || !/\d/.test(code) || !/\p{L}/u.test(before)) continue;
      // a number of digits alone behind a street without one is the house's
      const isLast = from + count === words.length;
      if (isLast && !/\d/.test(before) && !/\p{L}.*\d|\d.*\p{L}/u.test(code)) continue;
      const postcode = codeOf(profile, code);
      if (postcode === undefined || (count === 2 && /^\p{L}{3,}$/u.test(words[from + 1]))) continue;
      return { postcode, before, rest: words.slice(from + count).join(" ") };
    }
  return undefined;
}

/**
 * The piece that holds the street: the one with a word for it, or with a number beside a name.
 * @param code the piece that holds the postcode and no street
 */
function streetIn(pieces: readonly string[], profile: CountryProfile, code: number | undefined): number {
  if (pieces.length === 1) return 0;
  const words = lineWords(profile);
  let [best, most] = [0, Number.NEGATIVE_INFINITY];
  pieces.forEach((piece, i) => {
    if (i === code) return;
    const hasDigit = /\d/.test(piece);
    const house = hasDigit ? splitLine(piece, profile.number.stands, words).house : undefined;
    const number = hasDigit && !house ? readHouse(piece) : {};
    const isAlone = number.house !== undefined && (number.unit === undefined || words.isUnit(number.unit));
    // a box of the post is instead of a street, where there is none
    const isBox = words.boxIn(piece) === 0;
    const worth = isBox
      ? 0.5
      : (house ? 2 : 0) + (words.hasWay(piece) ? 2 : 0) - (words.isUnit(piece) || isAlone ? 4 : 0);
    const value = worth - (words.isTown(piece) ? 3 : 0) - i / 100;
    if (value > most) [best, most] = [i, value];
  });
  return best;
}

/** A number alone behind the street or in front of it: "Calle Olmo, 12", "12, rue des Lilas". */
function takeNumber(found: WholeLine, around: { before: string[]; after: string[] }): void {
  if (found.house) return;
  const isNumber = (piece: string | undefined) =>
    piece !== undefined && /^[^\s\d]{0,4}\.?\s*\d{1,5}(?!\d)/u.test(piece);
  for (const [list, place] of [
    [around.after, 0],
    [around.before, around.before.length - 1],
  ] as const) {
    const piece = list[place];
    const { house, unit } = isNumber(piece) ? readHouse(piece) : {};
    if (!house) continue;
    found.house = house;
    if (unit) found.unit = unit;
    list.splice(place, 1);
    return;
  }
}

/** Counties of Great Britain and Ireland whose names do not say that they are some. */
const COUNTIES: ReadonlySet<string> = new Set(
  `kent|essex|surrey|devon|dorset|cornwall|norfolk|suffolk|cumbria|somerset|rutland|sussex|east sussex|west sussex|merseyside|
  greater manchester|west midlands|tyne and wear|isle of wight|northumberland|middlesex|greater london|gwynedd|powys|dyfed|clwyd|gwent|
  west glamorgan|south glamorgan|mid glamorgan|anglesey|ceredigion|fife|highland|angus|moray|midlothian|east lothian|west lothian|
  antrim|armagh|down|fermanagh|londonderry|tyrone|carlow|cavan|clare|donegal|kerry|kildare|kilkenny|laois|leitrim|longford|louth|mayo|
  meath|monaghan|offaly|roscommon|sligo|tipperary|westmeath|wexford|wicklow`
    .split("|")
    .map((name) => name.trim()),
);

/** The town among names: the last, but for a county behind it. */
function townOf(names: readonly string[], { code }: CountryProfile): string | undefined {
  const isCounty = (name: string) =>
    /^(?:co\.?|county) |(?:shire|county)$/i.test(name) || COUNTIES.has(name.toLowerCase());
  const most = names.length - 1;
  return most > 0 && (code === "GB" || code === "IE") && isCounty(names[most]) ? names[most - 1] : names[most];
}

/** A town with what is written behind it: "Tidewell TX", "Boa Vista/SP", "Montebello (MI)", "Montclair Cedex 3". */
function townWith(text: string, profile: CountryProfile, known: string | undefined): Partial<WholeLine> {
  const plain = text
    .replace(/\s+cedex(?:\s+\d+)?$/i, "")
    .replace(/^(?:nr|near)\.?\s+/i, "")
    .replace(/[.\s]+$/, "");
  const [, name, behind] = /^(.*\S)[\s/]+\(?(\p{Lu}{2,3})\)?$/u.exec(plain) ?? [];
  if (!known && behind && regionOf(profile.code, behind)) return { town: name, region: behind };
  if (behind && profile.code === "IT" && behind.length === 2) return { town: name, county: behind };
  return plain ? { town: plain } : {};
}

/** Flats, floors and houses by name: a house without a number is known by what it is called. */
function takeInside(found: WholeLine, pieces: readonly string[]): void {
  if (!pieces.length) return;
  const isName = !found.house && pieces.every((piece) => !/\d/.test(piece));
  if (isName) found.name = pieces.join(", ");
  else found.unit = [found.unit, ...pieces].filter(Boolean).join(", ");
}

/** True for what is a postcode and nothing else; digits enough for one where the country's are not known. */
function isCode(text: string, profile: CountryProfile): boolean {
  return profile.postcode ? endOf(text, profile)?.rest === "" : /^\d{4,7}$/.test(text);
}

/** Characters of the shortest postcodes: three in some countries; fewer than four are a house's number elsewhere. */
const shortestCode = ({ postcode }: CountryProfile) =>
  Math.min(4, ...(postcode?.examples ?? []).map((example) => example.length));

/** What was read lately of each country: rows of one place have the same few postcodes. */
const read = new Map<string, Map<string, string | undefined>>();
const MOST_READ = 10_000;

function codeOf(profile: CountryProfile, text: string): string | undefined {
  let codes = read.get(profile.code);
  if (!codes || codes.size >= MOST_READ) {
    codes = new Map();
    read.set(profile.code, codes);
  }
  if (!codes.has(text)) codes.set(text, postcodeAsWritten(profile, text));
  return codes.get(text);
}

/** A postcode at the beginning or at the end of a text, and what is left of it: "6013 Seebach", "Springvale IL 62701". */
export function endOf(text: string, profile: CountryProfile): { postcode: string; rest: string } | undefined {
  const words = text.split(" ");
  for (const count of [2, 1]) {
    if (words.length < count) continue;
    for (const isFirst of [true, false]) {
      const code = (isFirst ? words.slice(0, count) : words.slice(-count)).join(" ");
      if (code.length < shortestCode(profile) || !/\d/.test(code)) continue;
      const postcode = codeOf(profile, code);
      // "IL 62701" is a region and a postcode
      const isMore = count === 2 && code.split(" ").some((word) => codeOf(profile, word) === postcode);
      if (
        postcode === undefined ||
        isMore ||
        (count === 2 && /^\p{L}{3,}$/u.test(words[isFirst ? 1 : words.length - 1]))
      )
        continue;
      const rest = (isFirst ? words.slice(count) : words.slice(0, -count)).join(" ");
      return { postcode, rest };
    }
  }
  return undefined;
}
