import { type CountryProfile, type PartName, type Parts, parseHouseNumber } from "../place/index.ts";
import { fold, type Lexicon, NOTHING, tokenize } from "../text/index.ts";
import type { Gloss } from "./gloss.ts";

/** Parts of a text that nothing in the data answers to, by the shape of the words alone. */
export interface Reading {
  /** ISO 3166 code of the country whose profile split it. */
  country: string;
  parts: Parts;
  /** Words that stand in no name in the data: what broke it. */
  unknown: string[];
  /** Each piece with the part it was taken for. */
  gloss: Gloss[];
}

interface Piece {
  text: string;
  start: number;
}

/** Areas that stand behind the street, in the order in which they are tried. */
const AREAS: readonly PartName[] = ["town", "county", "region", "district"];

/**
 * Splits an address that was not found into its parts, by a country's profile: the postcode by its shape, the number
 * by where it is, the street by kind or its number, the rest by commas and the order of a line.
 * @param written the same as it was typed, of the same length
 */
export function splitByProfile(
  text: string,
  profile: CountryProfile,
  lexicon: Lexicon,
  written = text,
): Omit<Reading, "unknown"> {
  const parts: Parts = {};
  const gloss: Gloss[] = [];
  const take = (part: PartName, piece: Piece) => {
    const [from, to] = [piece.text.search(CONTENT), piece.text.search(AROUND_END)];
    const name = piece.text.slice(from, to).replaceAll(NOTHING, "").replace(/\s+/gu, " ");
    if (from < 0 || parts[part]) return false;
    parts[part] = { name };
    const span: [number, number] = [piece.start + from, piece.start + to];
    gloss.push({ typed: written.slice(...span).replace(/\s+/gu, " "), span, how: "ignored", part, as: name });
    return true;
  };
  // from the end: where a house number has the same shape, the postcode is the later of the two
  const pieces = cutAtCommas(text)
    .reverse()
    .map((piece) => takePostcode(piece, profile, take))
    .reverse();
  const lines = pieces.flatMap((piece) => cutBehindWay(piece, lexicon)).filter(({ text: line }) => CONTENT.test(line));
  const unit = lines.findIndex((line) => isUnit(line.text, lexicon));
  if (unit >= 0) take("unit", lines.splice(unit, 1)[0]);
  const number = lines.findIndex(({ text: line }) => isNumber(line));
  const isStreetAt = (i: number) => lines[i] !== undefined && hasWay(lines[i].text, lexicon);
  const usual = profile.number.stands === "after" ? number - 1 : number + 1;
  const beside = [usual, 2 * number - usual].find(isStreetAt) ?? usual;
  const street = lines.findIndex((line) => /\d/u.test(line.text) || hasWay(line.text, lexicon));
  if (number >= 0 && lines[beside]) {
    // "Via Vuxxel, 12": the number is a piece of its own, beside the street
    const [house, way] = [lines[number], lines[beside]];
    lines.splice(Math.min(number, beside), 2);
    take(profile.number.part, house);
    take(profile.number.part === "building" ? "block" : "street", way);
  } else if (street >= 0) takeStreet(lines.splice(street, 1)[0], profile, take);
  else if (lines.length > 1) take(lines.length > 2 ? "street" : "place", lines.shift()!);
  const areas = AREAS.filter((part) => profile.labels[part]);
  for (const line of profile.levels[0] === "region" && profile.number.part === "building" ? lines.reverse() : lines) {
    const part = areas.find((area) => !parts[area]);
    if (part) take(part, line);
  }
  gloss.sort((a, b) => a.span[0] - b.span[0]);
  return { country: profile.code, parts, gloss };
}

/** Content, and what surrounds it where a text was copied from a program. */
const CONTENT = /[^\s\u2060"'{}[\]«»„“”<>]/u;
const AROUND_END = /[\s\u2060"'{}[\]«»„“”<>]*$/u;

function cutAtCommas(text: string): Piece[] {
  return [...text.matchAll(/[^,;\n]+/gu)].flatMap(({ 0: piece, index }) => {
    const from = piece.search(CONTENT);
    return from < 0 ? [] : [{ text: piece.slice(from, piece.search(AROUND_END)), start: index + from }];
  });
}

/** Finds a country's postcodes within a longer text, where nothing goes on beside them. */
function postcodeWithin({ postcode }: CountryProfile): RegExp | undefined {
  const shape = postcode?.shape.replace(/^\^|\$$/gu, "");
  return shape === undefined ? undefined : new RegExp(`(?<![\\p{L}\\p{N}])${shape}(?![\\p{L}\\p{N}])`, "giu");
}

/** Takes the postcode out of a piece, where something in it has the country's shape. */
function takePostcode(piece: Piece, profile: CountryProfile, take: (part: PartName, piece: Piece) => boolean): Piece {
  const shape = postcodeWithin(profile);
  if (!shape) return piece;
  const match = [...piece.text.matchAll(shape)].at(-1);
  if (!match || !take("postcode", { text: match[0], start: piece.start + match.index })) return piece;
  const behind = piece.text.slice(match.index + match[0].length);
  const before = piece.text.slice(0, match.index);
  if (before.trim() && behind.trim())
    return { text: `${before}${" ".repeat(match[0].length)}${behind}`, start: piece.start };
  return before.trim()
    ? { text: before, start: piece.start }
    : { text: behind, start: piece.start + match.index + match[0].length };
}

/** "12 mill lane tidewell" is two pieces: the kind of street ends the street. */
function cutBehindWay(piece: Piece, lexicon: Lexicon): Piece[] {
  const words = tokenize(piece.text);
  const way = words.findIndex(({ text }) => lexicon.isWay(text));
  if (way < 1) return [piece];
  let end = words[way].end;
  if (words[way + 1]?.kind === "number") end = words[way + 1].end;
  return [
    { text: piece.text.slice(0, end), start: piece.start },
    { text: piece.text.slice(end), start: piece.start + end },
  ];
}

function isUnit(text: string, lexicon: Lexicon): boolean {
  const [first] = tokenize(text);
  return first?.kind === "word" && lexicon.roleBefore(first.text) === "unit" && /\d/u.test(text);
}

const isNumber = (text: string) => parseHouseNumber(text) !== undefined;
const hasWay = (text: string, lexicon: Lexicon) => tokenize(text).some((word) => lexicon.isWay(word.text));

/** The number at either end of a street's line, and the street. */
function takeStreet(piece: Piece, profile: CountryProfile, take: (part: PartName, piece: Piece) => boolean): void {
  const words = tokenize(piece.text);
  const isNumberAt = (i: number) => words[i]?.kind === "number" && isNumber(words[i].text);
  const last = words.length - 1;
  const letter = last > 0 && words[last].text.length === 1 && isNumberAt(last - 1) ? last - 1 : last;
  const first = isNumberAt(0) ? 0 : -1;
  const at = profile.number.stands === "before" && first === 0 ? 0 : isNumberAt(letter) ? letter : first;
  const name = profile.number.part === "building" ? "block" : "street";
  if (at < 0 || words.length === 1) {
    take(at === 0 && words.length === 1 ? profile.number.part : name, piece);
    return;
  }
  const [from, to] = at === 0 ? [words[0].start, words[0].end] : [words[at].start, words[last].end];
  take(profile.number.part, { text: piece.text.slice(from, to), start: piece.start + from });
  const rest =
    at === 0
      ? { text: piece.text.slice(to), start: piece.start + to }
      : { text: piece.text.slice(0, from), start: piece.start };
  const named = /[\p{L}\p{N}].*$/su.exec(rest.text);
  if (named) take(name, { text: named[0], start: rest.start + named.index });
}

/** Which profile splits a text: of the country it names, else the one whose postcode it has, else the first. */
export function profileFor(
  text: string,
  profiles: readonly { profile: CountryProfile; names: readonly string[] }[],
): CountryProfile {
  const words = ` ${tokenize(text)
    .map((token) => token.text)
    .join(" ")} `;
  const named = profiles.find(({ names }) => names.some((name) => words.includes(` ${fold(name).text} `)));
  if (named) return named.profile;
  const shaped = profiles.find(({ profile }) => postcodeWithin(profile)?.test(text));
  return (shaped ?? profiles[0]).profile;
}
