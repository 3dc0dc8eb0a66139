import type { Field } from "@bibliotope/core/form";
import { type HeadUse, levelOfLabel, type Meaning, meaningOfLabel, namesSeveral } from "@bibliotope/core/import";
import { holds, phrasesOf, placeOf, wordsOf } from "./phrases.ts";
import type { FoundControl } from "./read-html.ts";
import { BESIDE_WORDS, CALLED, OTHER_WORDS, type Purpose, SECTIONS } from "./words.ts";

/** What one control is taken for by itself. */
export interface Guess {
  purpose: Purpose;
  reason: string;
  sureness: number;
  /** Of a town: whether it is rather what lies in one, or what several lie in. */
  level?: HeadUse["level"];
  /** In place of the one of the purpose. */
  binding?: string;
  /** By words of columns alone. */
  isByWords?: boolean;
}

/**
 * Where words were found, and how strong that evidence is: of a phrase of forms, of one that is used of many things, and of
 * words by which columns of files are known, which is believed only in a form that surely asks for an address.
 */
const SOURCES = [
  ["label", 0.85, 0.6, 0.4],
  ["name", 0.75, 0.5, 0.35],
  ["placeholder", 0.5, 0.3, 0.3],
] as const;
/** The most that words of columns tell by themselves, however many there are. */
const BY_WORDS_ALONE = 0.44;
/** Single words that are said of many things. */
const GENERIC = new Set([
  "level",
  "altura",
  "numeracion",
  "број",
  "broj",
  "numri",
  "cpa",
  "number",
  "nr",
  "num",
  "numero",
  "state",
  "pin",
  "by",
  "str",
  "long",
  "stat",
  "via",
  "line 1",
  "line 2",
  "address",
  "adresse",
  "adres",
  "adress",
  "adresa",
  "addr",
  "land",
  "ort",
  "numer",
  "numar",
  "номер",
  "מספר",
  "lokal",
  "cim",
  "naslov",
  "adresas",
  "adrese",
  "aadress",
  "alamat",
  "tara",
  "poli",
  "bus",
  "app",
  "ap",
  "bl",
  "prov",
  "il",
  "line 3",
]);
/** Types of input that no part of an address is typed into. */
const NO_ADDRESS = new Set([
  "email",
  "tel",
  "url",
  "date",
  "datetime-local",
  "month",
  "time",
  "week",
  "color",
  "range",
]);

/** What a field for a purpose is filled with. */
export const PATTERNS: Readonly<Record<Purpose, Partial<Field>>> = {
  search: {},
  lines: { autofill: "street-address", binding: "{lines}" },
  line1: { autofill: "address-line1" },
  street: { binding: "{street or block or place}" },
  house: { binding: "{house or building}" },
  unit: { autofill: "address-line2", binding: "{unit}" },
  floor: { binding: "{floor}" },
  building: { binding: "{building}" },
  district: { binding: "{district}" },
  town: { autofill: "address-level2", binding: "{town}" },
  county: { binding: "{county or region}" },
  region: { autofill: "address-level1", binding: "{region or county}" },
  postcode: { autofill: "postal-code", binding: "{postcode}" },
  country: { autofill: "country", binding: "{country.code}" },
  lat: { binding: "{lat}" },
  lon: { binding: "{lon}" },
};

/** Purposes of the HTML standard's tokens. */
const TOKENS: Readonly<Record<string, Purpose>> = {
  "street-address": "lines",
  "address-line1": "line1",
  "address-line2": "unit",
  "address-line3": "district",
  "address-level1": "region",
  "address-level2": "town",
  "address-level3": "district",
  "postal-code": "postcode",
  country: "country",
  "country-name": "country",
};

/** Purposes of what columns of files are for. */
const OF_COLUMNS: Readonly<Partial<Record<Meaning | "floor", Purpose>>> = {
  street: "street",
  house: "house",
  suffix: "unit",
  unit: "unit",
  floor: "floor",
  line: "line1",
  district: "district",
  town: "town",
  county: "county",
  region: "region",
  postcode: "postcode",
  country: "country",
};
/** Purposes whose own names do not say what they are. */
const IN_WORDS: Readonly<Partial<Record<Purpose, string>>> = { line1: "street and number", house: "house number" };
/** Two of these in one label are a line for all that is behind the number. */
const INSIDE: ReadonlySet<Purpose> = new Set(["building", "floor", "unit"]);
/** Parts that a label may name together, to be typed into one field. */
const TOGETHER: ReadonlySet<Purpose> = new Set(["postcode", "town", "region"]);
/** Between them: one or the other is wanted, not both. */
const OR = new Set("or oder ou o eller of lub tai vagy".split(" "));

const PURPOSES = CALLED.map(([phrase, purpose]) => ({ purpose, phrase: wordsOf(phrase) }));
const BESIDE = new Set([...BESIDE_WORDS.split(", "), ...SECTIONS.flatMap(([words]) => phrasesOf(words).flat())]);
const OTHER = phrasesOf(OTHER_WORDS);

/**
 * What a control is for, as far as it tells by itself.
 * @param langs of the form, as far as its labels tell
 */
export function guess(control: FoundControl, langs: ReadonlySet<string>): Guess | undefined {
  const { tag, type, autocomplete, options } = control;
  const token = autocomplete.trim().toLowerCase().split(/\s+/).at(-1) ?? "";
  if (Object.hasOwn(TOKENS, token)) return { purpose: TOKENS[token], reason: `token ${token}`, sureness: 1 };
  // a token for another thing means that it is no address
  if (/^(name|given-name|family-name|email|tel|organization|cc-|bday|url|username|new-password)/.test(token))
    return undefined;
  if (NO_ADDRESS.has(type)) return undefined;
  const texts = {
    label: wordsOf(control.label),
    name: wordsOf(control.name),
    placeholder: wordsOf(control.placeholder),
  };
  const [named, words] = control.label ? [control.label, texts.label] : [control.placeholder, texts.placeholder];
  const together = namesSeveral(named) ? partsTogether(words) : undefined;
  // "Area, Street, Sector, Village" may be anything: then its name tells
  const isList = together && !together.purpose && control.label.split(",").length > 2;
  if (isList) texts.label = [];
  if ([texts.label, texts.name].some(isOfOther)) return undefined;
  if (together?.purpose) {
    const [, sureness] = control.label ? SOURCES[0] : SOURCES[2];
    const reason = `${control.label ? "label" : "placeholder"} contains several parts`;
    return { ...together, purpose: together.purpose, reason, sureness };
  }
  let best: Guess | undefined;
  for (const [source, clear, weak, weakest] of SOURCES) {
    const hit = source === "name" && !best ? nameIn(texts) : purposeIn(texts[source]);
    const isWeak = !hit || GENERIC.has(hit.phrase);
    const use = control[source] && !(isList && source === "label") ? meaningOfLabel(control[source], langs) : undefined;
    // "Type de voie" is a kind of street, which no field of ours holds alone
    if (use?.meaning === "way") return undefined;
    const byWords = use && isWeak ? OF_COLUMNS[use.meaning] : undefined;
    // a word that is said of many things means what it means in the form's language
    const isOwn = byWords && (!hit || byWords !== hit.purpose);
    // "N° de rue" is no street
    if (hit?.purpose === "street" && use?.meaning === "house") hit.purpose = "house";
    const found: Guess | undefined = isOwn
      ? {
          purpose: byWords,
          reason: `${source} means ${IN_WORDS[byWords] ?? byWords}`,
          sureness: weakest,
          isByWords: true,
        }
      : hit && { purpose: hit.purpose, reason: `${source} contains “${hit.phrase}”`, sureness: isWeak ? weak : clear };
    if (!found) continue;
    const most = best?.isByWords && found.isByWords ? BY_WORDS_ALONE : 0.97;
    if (best && best.purpose === found.purpose) best.sureness = Math.min(most, best.sureness + 0.1);
    else if (!best || found.sureness > best.sureness) best = { ...found, level: levelOfLabel(control[source]) };
  }
  if (!best && tag === "select" && options.length > 5 && looksLikeCountries(options))
    best = { purpose: "country", reason: "options are country codes", sureness: 0.6 };
  if (!best) return undefined;
  if (best.purpose === "line1" && tag === "textarea") return { ...best, purpose: "lines" };
  return best;
}

/** True for words of something else; those of a telephone's country are of an address where it is named. */
const isOfOther = (words: readonly string[]) =>
  OTHER.some(
    (phrase) => holds(words, phrase) && !(phrase[0] === "country" && words.some((word) => OF_ADDRESS.has(word))),
  );
const OF_ADDRESS = new Set("shipping billing delivery address addr postal invoice".split(" "));
/** Names no longer than this may be short for anything. */
const FEW_LETTERS = 4;

/** The purpose that a control's name tells, but for one that only shortens what the label says: "cap" of "Capacity" is no postcode. */
function nameIn({ name, label }: Readonly<Record<"name" | "label", readonly string[]>>) {
  const hit = purposeIn(name);
  if (!hit || hit.phrase.length > FEW_LETTERS) return hit;
  const isShortFor = (word: string) => {
    let at = 0;
    for (const letter of word) if (letter === hit.phrase[at]) at++;
    return word.length > hit.phrase.length + 1 && word[0] === hit.phrase[0] && at === hit.phrase.length;
  };
  return label.some(isShortFor) ? undefined : hit;
}

/** The purpose that some words tell: the longest phrase, and of equals the one that comes last. */
function purposeIn(words: readonly string[]): { purpose: Purpose; phrase: string } | undefined {
  let best: { purpose: Purpose; phrase: string; length: number; at: number } | undefined;
  for (const { purpose, phrase } of PURPOSES) {
    const at = placeOf(words, phrase);
    if (at < 0) continue;
    const isGeneric = GENERIC.has(phrase.join(" "));
    if (isGeneric && !words.every((word, i) => (i >= at && i < at + phrase.length) || BESIDE.has(word))) continue;
    const length = isGeneric ? 0 : phrase.length;
    if (!best || length > best.length || (length === best.length && at > best.at))
      best = { purpose, phrase: phrase.join(" "), length, at };
  }
  return best;
}

/** What a label means that names several parts: "PLZ / Ort", "Building, floor, flat"; without a purpose where no field of ours holds them. */
function partsTogether(words: readonly string[]): Partial<Pick<Guess, "purpose" | "binding">> | undefined {
  const named: Purpose[] = [];
  let isEither = false;
  for (let at = 0; at < words.length; ) {
    const here = PURPOSES.filter(({ phrase }) => phrase.every((word, i) => words[at + i] === word));
    const length = Math.max(0, ...here.map(({ phrase }) => phrase.length));
    const longest = here.find(({ phrase }) => phrase.length === length);
    if (longest) named.push(longest.purpose);
    else if (OR.has(words[at])) isEither = true;
    at += Math.max(1, length);
  }
  const parts = [...new Set(named)];
  if (parts.length < 2) return undefined;
  if (parts.every((part) => INSIDE.has(part))) return { purpose: "unit" };
  const isStreet = (part: Purpose) => part === "street" || part === "line1";
  if (parts.some(isStreet) && parts.every((part) => isStreet(part) || part === "house" || INSIDE.has(part)))
    return { purpose: "line1" };
  if (isEither || !parts.every((part) => TOGETHER.has(part)) || !parts.includes("town")) return {};
  return { purpose: "town", binding: parts.map((part) => PATTERNS[part].binding).join(" ") };
}

/** True for options of which most are ISO 3166's codes of countries; those of states are countries' only by chance. */
function looksLikeCountries(options: readonly { value: string; label: string }[]): boolean {
  const names = new Intl.DisplayNames("en", { type: "region", fallback: "none" });
  const isCountry = ({ value, label }: { value: string; label: string }) =>
    /^[A-Z]{2}$/.test(value) && label.length > 3 && names.of(value) !== undefined;
  return options.filter(isCountry).length > options.length * 0.8;
}
