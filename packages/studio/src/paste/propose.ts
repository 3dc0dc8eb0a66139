import { type Field, freeName } from "@bibliotope/core/form";
import { langsOfHeads } from "@bibliotope/core/import";
import { type Guess, guess, PATTERNS } from "./purpose.ts";
import type { FoundControl } from "./read-html.ts";
import { partRepeated, sectionOf, settleDepartments, settleLines, settleTowns, TELLING } from "./settle.ts";
import type { Purpose } from "./words.ts";

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

/** Below this a control is left alone: in any form, and in one that surely asks for an address. */
const [LEAST, LEAST_AMONG] = [0.45, 0.3];
/** Types of input that no field of ours can be. */
const NO_FIELD = new Set(["password", "file", "checkbox", "radio", "submit", "button", "reset", "image"]);
/** What is asked for in many forms, of other things than addresses. */
const OF_OTHERS: ReadonlySet<Purpose> = new Set([
  "unit",
  "floor",
  "building",
  "house",
  "district",
  "county",
  "region",
  "country",
]);
/** What is asked for of an address alone, in one field or several. */
const ASKING: ReadonlySet<Purpose> = new Set([...TELLING, "line1", "lines", "search"]);

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
  const isAsked = isOfAddress || guesses.some((found) => found && ASKING.has(found.purpose));
  guesses.forEach((found, i) => {
    const isOther = !isAsked && usable.length > 2 && found?.sureness !== 1;
    if (found && isOther && OF_OTHERS.has(found.purpose)) guesses[i] = undefined;
    if (found && found.sureness < (isOfAddress ? LEAST_AMONG : LEAST)) guesses[i] = undefined;
  });
  const sections = usable.map((control, i) => (guesses[i] ? sectionOf(control) : ""));
  settleDepartments(usable, guesses, sections);
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
