import type { OpeningHours } from "./kinds.ts";

/** What the value of a named fact is. */
export const FACT_KINDS = ["text", "number", "yes-no", "link", "date"] as const;
export type FactKind = (typeof FACT_KINDS)[number];

/** What the name of a fact looks like, as a pattern names it: `{fact.rating}`. */
export const FACT_NAME = /^[a-z][a-z0-9_]{0,39}$/;

/** A fact that somebody's own data has of a place, beyond the common ones. */
export interface OwnFact {
  /** What people know it as. */
  label: string;
  kind: FactKind;
  value: string | number | boolean;
}

/** Facts of a place; absent ones are absent. */
export interface Facts {
  phone?: string;
  url?: string;
  languages?: string[];
  stepFree?: boolean;
  openingHours?: OpeningHours[];
  /** Hours as they were written, where that could not be read. */
  hoursText?: string;
  /** Further facts, by name. */
  own?: Record<string, OwnFact>;
}

/** A named fact as text: `yes` and `no` for one that is so or is not. */
export const factText = ({ value }: OwnFact): string =>
  typeof value === "boolean" ? (value ? "yes" : "no") : String(value);

/** Some of a place's facts, the common ones and others by their names; those that it has not are left out. */
export function chosenFacts(facts: Facts, names: readonly string[]): Facts {
  const { own = {}, ...common } = facts;
  const wanted = new Set(names);
  // hours that could not be parsed are shown as they are written
  if (wanted.has("openingHours")) wanted.add("hoursText");
  const chosen = Object.fromEntries(Object.entries(common).filter(([name]) => wanted.has(name))) as Facts;
  const others = Object.entries(own).filter(([name]) => wanted.has(name));
  return others.length ? { ...chosen, own: Object.fromEntries(others) } : chosen;
}
