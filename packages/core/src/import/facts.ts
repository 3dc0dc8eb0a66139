import { FACT_NAME, type FactKind, type Facts, type OwnFact, readHours } from "../place/index.ts";
import { fold } from "../text/index.ts";
import { parseNumber } from "./numbers.ts";
import type { ColumnUse } from "./parts.ts";

/** Characters of an attribute; a longer one is left out with a warning. */
export const LONGEST_FACT = 1000;

/** Attributes from a row's cell, and a warning about it. */
export interface ReadFact {
  facts: Facts;
  odd?: string;
}

const YES = /^(?:yes|y|true|1|ja|oui|si|sim|tak|vrai|wahr|ano|ναι|x|✓)$/i;
const NO = /^(?:no|n|false|0|nein|non|nao|nie|faux|falsch|nee|nej|nei|ne|οχι|-)$/i;

/** Reads a cell that holds a fact. What cannot be read as what it should be is kept as the text that it is. */
export function readFact(use: ColumnUse, text: string, langs: readonly string[]): ReadFact {
  if (text.length > LONGEST_FACT) return { facts: {}, odd: `${text.length} characters, left out` };
  const asText = (label: string): Facts => ({ own: { [use.meaning]: { label, kind: "text", value: text } } });
  switch (use.meaning) {
    case "phone":
      return { facts: { phone: text } };
    case "url":
      return { facts: { url: text } };
    case "hours": {
      const { hours, why } = readHours(text, langs) as { hours?: Facts["openingHours"]; why?: string };
      if (hours) return { facts: { openingHours: hours } };
      return { facts: { hoursText: text }, ...(why ? { odd: why } : {}) };
    }
    case "languages": {
      const named = text.split(/[;,/|]/).map((one) => languageOf(one.trim(), langs));
      if (named.every((one) => one !== undefined)) return { facts: { languages: named } };
      return { facts: asText("Languages") };
    }
    case "stepfree": {
      const is = yesOrNo(text);
      return { facts: is === undefined ? asText("Step-free access") : { stepFree: is } };
    }
    default: {
      const { name, label, kind } = use.fact ?? { name: "fact", label: "Fact", kind: "text" };
      return { facts: { own: { [name]: { label, ...valueAs(kind, text) } } } };
    }
  }
}

const valueAs = (kind: FactKind, text: string): Pick<OwnFact, "kind" | "value"> => {
  const is = kind === "yes-no" ? yesOrNo(text) : undefined;
  if (is !== undefined) return { kind, value: is };
  const number = kind === "number" ? parseNumber(text) : Number.NaN;
  if (Number.isFinite(number)) return { kind, value: number };
  if ((kind === "link" && isLink(text)) || (kind === "date" && isDate(text))) return { kind, value: text };
  return { kind: "text", value: text };
};

function yesOrNo(text: string): boolean | undefined {
  const plain = fold(text).text.trim() || text.trim();
  return YES.test(plain) ? true : NO.test(plain) ? false : undefined;
}

const isLink = (text: string) => /^https?:\/\/[^\s/?#]+\.[^\s/?#]+\S*$/i.test(text);
const isDate = (text: string) => /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text));
/** A number as people write one; with noughts before it, it is a code. */
const isNumber = (text: string) => Number.isFinite(parseNumber(text)) && !/^[+-]?0\d/.test(text) && text.length < 16;

/** What the values of a column are, where nearly all of them are that. */
export function kindOfValues(values: readonly string[]): FactKind {
  const all = (fits: (text: string) => boolean) => values.length > 0 && values.every(fits);
  if (all((text) => yesOrNo(text) !== undefined) && !all((text) => /^[01]$/.test(text))) return "yes-no";
  if (all(isNumber)) return "number";
  if (all(isLink)) return "link";
  return all(isDate) ? "date" : "text";
}

/** A head as the name of a fact; undefined where nothing of it can stand in one. */
export function factNameOf(head: string): string | undefined {
  const plain = fold(head)
    .text.replace(/[^a-z0-9]+/g, "_")
    .replace(/^[_0-9]+|_$/g, "")
    .slice(0, 40);
  return FACT_NAME.test(plain) ? plain : undefined;
}

/** Languages that people of places speak, each with the names in English and in itself. */
const LANGUAGES =
  "en de fr es it pt nl pl sv da nb no fi cs sk hu ro bg hr sr sl et lv lt el tr ru uk ar he fa hi ur bn zh ja ko vi th id ms sw am ca eu gl ga cy mt is sq mk bs lb";
let names: ReadonlyMap<string, string> | undefined;

/** The tag of a language (BCP 47) that is written as a tag or by name. */
function languageOf(text: string, langs: readonly string[]): string | undefined {
  if (/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(text)) return text;
  names ??= new Map(LANGUAGES.split(" ").flatMap((tag) => namesOf(tag, [...langs, "en", tag])));
  return names.get(text.toLowerCase()) ?? (/^[A-Z]{2}$/.test(text) ? text.toLowerCase() : undefined);
}

const namesOf = (tag: string, shown: readonly string[]): [string, string][] =>
  shown.flatMap((lang): [string, string][] => {
    try {
      const name = new Intl.DisplayNames(lang, { type: "language", fallback: "none" }).of(tag);
      return name ? [[name.toLowerCase(), tag]] : [];
    } catch {
      return [];
    }
  });

/** Facts of several cells together. */
export function joinFacts(all: readonly Facts[]): Facts | undefined {
  if (!all.length) return undefined;
  const own = Object.assign({}, ...all.map((facts) => facts.own)) as Facts["own"];
  const facts = Object.assign({}, ...all) as Facts;
  return own && Object.keys(own).length ? { ...facts, own } : facts;
}
