import { type Field, freeName } from "@bibliotope/core/form";
import {
  type HeadUse,
  langsOfHeads,
  levelOfLabel,
  type Meaning,
  meaningOfLabel,
  namesSeveral,
} from "@bibliotope/core/import";
import { BESIDE_WORDS, CALLED, OTHER_WORDS, type Purpose, SECTIONS } from "./words.ts";

/** A control that was read from HTML, and what is around it. */
export interface FoundControl {
  /** Its name, else its id; empty when it has neither. */
  name: string;
  tag: "input" | "select" | "textarea";
  type: string;
  autocomplete: string;
  /** Words of the label. */
  label: string;
  /** What explains it. */
  help: string;
  placeholder: string;
  /** Words of the headings and legends it is under, the nearest first. */
  groups: string[];
  options: { value: string; label: string }[];
  required: boolean;
}

/** What a control could be bound to. */
export interface Proposal {
  control: FoundControl;
  field: Field;
  /** Of an address; other fields are taken over as they are. */
  isAddress: boolean;
  /** Why, in words. */
  reason: string;
  /** 0 to 1. */
  sureness: number;
}

/** Phrases of a list between commas, each as its words. */
function phrasesOf(list: string): string[][] {
  return list.split(",").map((phrase) => phrase.trim().split(" "));
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
/** Below this a control is left alone: in any form, and in one that surely asks for an address. */
const [LEAST, LEAST_AMONG] = [0.45, 0.3];
/** The most that words of columns tell by themselves, however many there are. */
const BY_WORDS_ALONE = 0.44;
/** Parts that nothing but an address has. */
const TELLING: readonly Purpose[] = ["town", "postcode", "street"];
/** Single words that are said of many things. */
const GENERIC = new Set([
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
/** Types of input that no part of an address is typed into, or that no field of ours can be. */
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
const NO_FIELD = new Set(["password", "file", "checkbox", "radio", "submit", "button", "reset", "image"]);

const PATTERNS: Readonly<Record<Purpose, Partial<Field>>> = {
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

interface Guess {
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
/** What is asked for in many forms, of other things than addresses. */
const OF_OTHERS: ReadonlySet<Purpose> = new Set(["unit", "floor", "building", "house", "district", "county", "region"]);
/** Two of these in one label are a line for all that is behind the number. */
const INSIDE: ReadonlySet<Purpose> = new Set(["building", "floor", "unit"]);
/** Parts that a label may name together, to be typed into one field. */
const TOGETHER: ReadonlySet<Purpose> = new Set(["postcode", "town", "region"]);
/** Between them: one or the other is wanted, not both. */
const OR = new Set("or oder ou o eller of lub tai vagy".split(" "));

/** Reads what the controls of a form are for. Those that only look like an address are taken over as they are. */
export function propose(controls: readonly FoundControl[]): Proposal[] {
  // one that has neither name nor words cannot be told from others
  const usable = controls.filter((one) => (one.name || one.label || one.placeholder) && !NO_FIELD.has(one.type));
  const langs = langsOfHeads(usable.map(({ label, placeholder }) => label || placeholder));
  const guesses = usable.map((control) => guess(control, langs));
  const telling = guesses.flatMap((found) => (found && TELLING.includes(found.purpose) ? [found] : []));
  const kinds = (of: readonly (Guess | undefined)[]) => new Set(of.flatMap((found) => found?.purpose ?? [])).size;
  const isOfAddress =
    kinds(telling) > 1 ||
    telling.filter(({ sureness }) => sureness >= LEAST).length > 1 ||
    // words of one language that are of so many parts are of an address, whatever each alone may mean
    (langs.size > 0 && kinds(guesses) > 2);
  guesses.forEach((found, i) => {
    const isOther = !isOfAddress && !telling.length && usable.length > 2 && found?.sureness !== 1;
    if (found && isOther && OF_OTHERS.has(found.purpose)) guesses[i] = undefined;
    if (found && found.sureness < (isOfAddress ? LEAST_AMONG : LEAST)) guesses[i] = undefined;
  });
  const sections = usable.map((control, i) => (guesses[i] ? sectionOf(control) : ""));
  partRepeated(usable, guesses, sections);
  settleTowns(guesses, sections);
  settleLines(usable, guesses, sections);
  const several = new Set(sections.filter((_, i) => guesses[i])).size > 1;
  const taken = new Set<string>();
  return usable.map((control, i) => {
    const found = guesses[i];
    const field = fieldOf(control, found, several ? sections[i] : "", taken);
    return {
      control,
      field,
      isAddress: found !== undefined,
      reason: found?.reason ?? "nothing suggests an address",
      sureness: found?.sureness ?? 0,
    };
  });
}

/** The proposals that one form has room for: those of addresses, and as many others as fit, in their order. */
export function fitting(proposals: readonly Proposal[], room: number): Proposal[] {
  let others = room - proposals.filter(({ isAddress }) => isAddress).length;
  return proposals.filter(({ isAddress }) => isAddress || others-- > 0).slice(0, room);
}

/** @param langs of the form, as far as its labels tell */
function guess(control: FoundControl, langs: ReadonlySet<string>): Guess | undefined {
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
  const together = namesSeveral(control.label) ? partsTogether(texts.label) : undefined;
  // "Area, Street, Sector, Village" may be anything: then its name tells
  const isList = together && !together.purpose && control.label.split(",").length > 2;
  if (isList) texts.label = [];
  if ([texts.label, texts.name].some((words) => OTHER.some((phrase) => holds(words, phrase)))) return undefined;
  if (together?.purpose)
    return { ...together, purpose: together.purpose, reason: "label contains several parts", sureness: SOURCES[0][1] };
  let best: Guess | undefined;
  for (const [source, clear, weak, weakest] of SOURCES) {
    const hit = purposeIn(texts[source]);
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

/**
 * Parts what asks for several addresses without saying so in words that are known: where two parts and more are asked for again
 * and again, by what they are under, by the number in their names, or by where the first of them comes again.
 */
function partRepeated(
  controls: readonly FoundControl[],
  guesses: readonly (Guess | undefined)[],
  sections: string[],
): void {
  for (const section of new Set(sections)) {
    const own = controls.flatMap((_, i) => (guesses[i] && sections[i] === section ? [i] : []));
    const times = (purpose: Purpose) => own.filter((i) => guesses[i]?.purpose === purpose).length;
    if (TELLING.filter((purpose) => times(purpose) > 1).length + (times("line1") > 1 ? 1 : 0) < 2) continue;
    const keys = [
      (i: number) => controls[i].groups.find((group) => own.some((j) => !controls[j].groups.includes(group))) ?? "",
      (i: number) => controls[i].name.match(/\d+/g)?.join(" ") ?? "",
    ].map((keyOf) => own.map(keyOf));
    // one that parts no address in two, and no two addresses less than all
    const isParting = (found: readonly string[]) =>
      new Set(found).size > 1 &&
      [...new Set(found)].every((key) => {
        const purposes = own.flatMap((i, k) => (found[k] === key ? [guesses[i]?.purpose] : []));
        return new Set(purposes).size === purposes.length && purposes.length > 1;
      });
    const parting = keys.find(isParting) ?? byTurns(own.map((i) => guesses[i]?.purpose));
    const names = [...new Set(parting)].map((key, n) => slugOf(key) || `${section || "address"}-${n + 1}`);
    own.forEach((i, k) => {
      sections[i] = names[[...new Set(parting)].indexOf(parting[k])];
    });
  }
}

/** For each purpose in which turn it is: a new one begins with what has been in this one already. */
function byTurns(purposes: readonly (Purpose | undefined)[]): string[] {
  let turn = 0;
  let seen = new Set<Purpose | undefined>();
  return purposes.map((purpose) => {
    if (seen.has(purpose)) {
      turn++;
      seen = new Set();
    }
    seen.add(purpose);
    return String(turn);
  });
}

/** A heading as the name of an address; empty where it has no letters that names have. */
const slugOf = (heading: string) =>
  wordsOf(heading)
    .join("-")
    .replace(/[^a-z-]/g, "")
    .replace(/^-+|-+$/g, "")
    .slice(0, 24);

/** Of several towns one is the town; what lies in it is its district, and what holds several nothing that a field of ours has. */
function settleTowns(guesses: (Guess | undefined)[], sections: readonly string[]): void {
  const LEVELS = [undefined, "village", "municipality"];
  const towns = guesses.map((found) => (found?.purpose === "town" ? LEVELS.indexOf(found.level) : -1));
  guesses.forEach((found, i) => {
    const own = sections[i];
    const near = towns.filter((level, j) => level >= 0 && sections[j] === own);
    const isOther = near.some((level) => level < towns[i]);
    if (found && towns[i] === 1 && isOther) guesses[i] = { ...found, purpose: "district" };
    if (towns[i] === 2 && isOther) guesses[i] = undefined;
    // a suburb is the town where nothing else is
    if (found?.purpose === "district" && found.level === "village" && !near.length)
      guesses[i] = { ...found, purpose: "town" };
    // of two for one part the surer has it
    const isSurer = (other: Guess | undefined, j: number) =>
      other?.purpose === found?.purpose && sections[j] === own && !other?.isByWords;
    if (found?.isByWords && guesses.some(isSurer)) guesses[i] = undefined;
  });
}

/** A first line is a street where a number is next to it; a number alone is none. */
function settleLines(
  controls: readonly FoundControl[],
  guesses: (Guess | undefined)[],
  sections: readonly string[],
): void {
  guesses.forEach((found, i) => {
    const near = guesses.filter((_, j) => sections[j] === sections[i] && j !== i);
    const has = (purpose: Purpose) => near.some((other) => other?.purpose === purpose);
    if (found?.purpose === "street" && !has("house")) guesses[i] = { ...found, purpose: "line1" };
    if (found?.purpose === "line1" && has("house") && !has("street")) guesses[i] = { ...found, purpose: "street" };
    if (found?.purpose === "house" && !has("street") && !has("line1") && !has("postcode")) guesses[i] = undefined;
    // of a form's second lines the first is the one of the flat
    if (found?.purpose === "lines" && has("town") && controls[i].tag !== "textarea")
      guesses[i] = { ...found, purpose: "line1" };
  });
}

function fieldOf(control: FoundControl, found: Guess | undefined, section: string, taken: Set<string>): Field {
  const { tag, type, label, placeholder, required, options, autocomplete } = control;
  const words = (label || placeholder || control.name).replace(/\s*[*:]+\s*$/, "").slice(0, 80) || control.name;
  const base = {
    name: nameFor(control.name || label || placeholder, taken),
    label: words,
    ...(required ? { required } : {}),
    ...(control.help ? { help: control.help } : {}),
    ...(placeholder && tag !== "select" ? { placeholder: placeholder.slice(0, 80) } : {}),
  };
  if (!found) {
    const token = autocomplete && autocomplete !== "off" && autocomplete !== "on" ? { autofill: autocomplete } : {};
    if (tag === "select" && options.length)
      return { ...base, kind: "choice", options: options.slice(0, 200), ...token };
    return { ...base, kind: type === "hidden" ? "hidden" : "text", ...token };
  }
  const { autofill, binding } = found.binding ? { binding: found.binding } : PATTERNS[found.purpose];
  const fills = {
    ...(autofill ? { autofill: section ? `section-${section} ${autofill}` : autofill } : {}),
    ...(binding ? { binding } : {}),
    ...(section ? { address: section } : {}),
  };
  if (found.purpose === "search") return { ...base, kind: "search", ...(section ? { address: section } : {}) };
  if (found.purpose === "country" && tag === "select") return { ...base, kind: "country", ...fills };
  if (found.purpose === "country") return { ...base, kind: "text", ...fills, binding: "{country}" };
  if (tag === "select" && options.length) return { ...base, kind: "choice", options: options.slice(0, 200), ...fills };
  return { ...base, kind: type === "hidden" ? "hidden" : "text", ...fills };
}

/** A name as ours have to be: what a server calls `user[address][city]` becomes `user-address-city`. */
function nameFor(name: string, taken: Set<string>): string {
  const cleaned =
    name
      .replace(/[^\w-]+/g, "-")
      .replace(/^[^A-Za-z]+|-+$/g, "")
      .slice(0, 36) || "field";
  const free = freeName(taken, cleaned);
  taken.add(free);
  return free;
}

/** Which of a form's addresses a control is of: by its token, its name, or what it is under. */
function sectionOf({ autocomplete, name, groups, label }: FoundControl): string {
  const tokens = autocomplete.trim().toLowerCase().split(/\s+/);
  const section = tokens.find((token) => token.startsWith("section-"))?.slice("section-".length);
  if (section) return section.replace(/[^\w-]/g, "").slice(0, 40);
  for (const token of ["billing", "shipping"]) if (tokens.includes(token)) return token;
  for (const text of [name, label, ...groups]) {
    const words = wordsOf(text);
    const found = SECTION_PHRASES.find(({ phrases }) => phrases.some((phrase) => holds(words, phrase)));
    if (found) return found.name;
  }
  return "";
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

const PURPOSES = CALLED.map(([phrase, purpose]) => ({ purpose, phrase: wordsOf(phrase) }));
const BESIDE = new Set([...BESIDE_WORDS.split(", "), ...SECTIONS.flatMap(([words]) => phrasesOf(words).flat())]);
const OTHER = phrasesOf(OTHER_WORDS);
const SECTION_PHRASES = SECTIONS.map(([words, name]) => ({ name, phrases: phrasesOf(words) }));

/** Words in lower case without accents: of text, and of names like `billingAddress_street1`. */
export function wordsOf(text: string): string[] {
  return text
    .replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2")
    .replace(/(\p{L})(\d)/gu, "$1 $2")
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
    .filter(Boolean);
}

const holds = (words: readonly string[], phrase: readonly string[]) => placeOf(words, phrase) >= 0;

function placeOf(words: readonly string[], phrase: readonly string[]): number {
  for (let at = words.length - phrase.length; at >= 0; at--)
    if (phrase.every((word, i) => words[at + i] === word)) return at;
  return -1;
}

/** True for options of which most are ISO 3166's codes of countries; those of states are countries' only by chance. */
function looksLikeCountries(options: readonly { value: string; label: string }[]): boolean {
  const names = new Intl.DisplayNames("en", { type: "region", fallback: "none" });
  const isCountry = ({ value, label }: { value: string; label: string }) =>
    /^[A-Z]{2}$/.test(value) && label.length > 3 && names.of(value) !== undefined;
  return options.filter(isCountry).length > options.length * 0.8;
}
