import type { Parts } from "../place/index.ts";
import { fold } from "../text/index.ts";

/** Text as it is compared: folded as the search folds it, without punctuation and doubled spaces. */
const plain = (text: string) =>
  fold(text)
    .text.replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** What a unit looks like behind an address: "Flat 3", "3b", "Apt B"; or nothing. */
const UNIT = /^(\p{L}+ )?(\p{L}|\d+ ?\p{L}?)$|^$/u;

/**
 * True when a field still states what was filled into it: case, signs and accents aside, with the short forms of
 * the names that the record has, and whatever the unit.
 * @param mayHaveUnit whether the field has the unit beside what tells the place
 */
export function isSameStatement(filled: string, now: string, parts: Parts = {}, mayHaveUnit = false): boolean {
  const typed = plain(now);
  return formsOf(filled, parts, mayHaveUnit).some(
    (form) =>
      form === typed ||
      // behind nothing at all, what looks like a unit is a house
      (mayHaveUnit && form !== "" && typed.startsWith(form) && UNIT.test(typed.slice(form.length).trim())),
  );
}

/** What was filled, in all ways it may be written. */
function formsOf(filled: string, parts: Parts, mayHaveUnit: boolean): string[] {
  let forms = [plain(filled)];
  const { unit } = parts;
  if (mayHaveUnit && unit) forms = forms.map((form) => without(form, plain(unit.name)));
  for (const part of Object.values(parts))
    if (part?.abbr) {
      const [name, abbr] = [plain(part.name), plain(part.abbr)];
      forms = forms.flatMap((form) => (form.includes(name) ? [form, form.replace(name, abbr)] : [form]));
    }
  return forms;
}

const without = (form: string, word: string) => form.replace(word, " ").replace(/ +/g, " ").trim();
