import { holds, phrasesOf, wordsOf } from "./phrases.ts";
import type { Guess } from "./purpose.ts";
import type { FoundControl } from "./read-html.ts";
import { type Purpose, SECTIONS } from "./words.ts";

/** Parts that nothing but an address has. */
export const TELLING: readonly Purpose[] = ["town", "postcode", "street"];
const SECTION_PHRASES = SECTIONS.map(([words, name]) => ({ name, phrases: phrasesOf(words) }));

/** Which of a form's addresses a control is of: by its token, its name, or what it is under. */
export function sectionOf({ autocomplete, name, groups, label }: FoundControl): string {
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

/**
 * Parts what asks for several addresses without saying so in words that are known: where two parts and more are asked for again
 * and again, by what they are under, by the number in their names, or by where the first of them comes again.
 */
export function partRepeated(
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

/** Words of labels for what lies in a department, and for what stands beside the number of a flat. */
const [WITHIN_DEPARTMENT, BESIDE_FLAT] = [
  ["municipio", "municipalidad", "distrito", "corregimiento", "vereda"],
  ["piso", "torre", "interior", "planta"],
];
/** A list of more than these is none of flats. */
const MOST_FLATS = 5;

/** "Departamento" is a flat in Argentina and Mexico, and in Colombia or Peru what provinces and municipalities lie in. */
export function settleDepartments(
  controls: readonly FoundControl[],
  guesses: (Guess | undefined)[],
  sections: readonly string[],
): void {
  const words = controls.map(({ label, placeholder }) => wordsOf(label || placeholder));
  guesses.forEach((found, i) => {
    if (found?.purpose !== "unit" || words[i].join() !== "departamento") return;
    const near = words.filter((_, j) => j !== i && guesses[j] && sections[j] === sections[i]);
    const has = (some: readonly string[]) => near.some((label) => label.some((word) => some.includes(word)));
    const isList = controls[i].tag === "select" && controls[i].options.length > MOST_FLATS;
    const isFlat = (other: Guess | undefined, j: number) =>
      j !== i && other?.purpose === "unit" && sections[j] === sections[i];
    const isArea = has(WITHIN_DEPARTMENT) || guesses.some(isFlat);
    if (!isList && (!isArea || has(BESIDE_FLAT))) return;
    guesses[i] = { ...found, purpose: "region", reason: "label means region", isByWords: false };
    guesses.forEach((other, j) => {
      if (other?.purpose !== "region" || j === i || sections[j] !== sections[i]) return;
      if (words[j].includes("provincia")) guesses[j] = { ...other, purpose: "county" };
      if (words[j].includes("distrito")) guesses[j] = { ...other, purpose: "town" };
    });
  });
}

/** Of several towns one is the town; what lies in it is its district, and what holds several nothing that a field of ours has. */
export function settleTowns(guesses: (Guess | undefined)[], sections: readonly string[]): void {
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
export function settleLines(
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
