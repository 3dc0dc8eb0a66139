import type { FactKind } from "../place/index.ts";

/** What a column of an imported table may mean. */
export const MEANINGS = [
  "street",
  "way",
  "block",
  "house",
  "suffix",
  "line",
  "unit",
  "name",
  "place",
  "kinds",
  "postcode",
  "district",
  "town",
  "county",
  "region",
  "country",
  "lat",
  "lon",
  "position",
  "lonlat",
  "east",
  "north",
  "id",
  "importance",
  "phone",
  "url",
  "hours",
  "languages",
  "stepfree",
  "fact",
  "text",
] as const;
export type Meaning = (typeof MEANINGS)[number];

/** Meanings that several columns may have, joined in their order: "12", "A" and "2" are one number, lines of an address are one address. */
export const JOINED: ReadonlySet<Meaning> = new Set<Meaning>(["suffix", "line"]);

/** Meanings that hold a position in one column: latitude first, and longitude first. */
export const POINTS: ReadonlySet<Meaning> = new Set<Meaning>(["position", "lonlat"]);

/** Meanings that say where something is. */
export const PLACED: ReadonlySet<Meaning> = new Set<Meaning>([...POINTS, "lat", "lon", "east", "north"]);

/** Meanings that are facts of a place. Each fact beyond the common ones has a name, a label and a kind of its own. */
export const OF_FACTS: ReadonlySet<Meaning> = new Set<Meaning>([
  "phone",
  "url",
  "hours",
  "languages",
  "stepfree",
  "fact",
]);

/** Meanings that carry a name, which may be there in several languages and short. */
export const NAMED: ReadonlySet<Meaning> = new Set<Meaning>([
  "street",
  "block",
  "place",
  "district",
  "town",
  "county",
  "region",
]);

/** What one column is taken for. */
export interface ColumnUse {
  meaning: Meaning;
  /** Language of the names in it (BCP 47). */
  lang?: string;
  /** Whether it holds something else of what is named elsewhere. */
  form?: ColumnForm;
  /** Of a fact: its name, which patterns use, what people know it as, and what its values are. */
  fact?: { name: string; label: string; kind: FactKind };
}

/**
 * What a column holds of something that another one names: its short form, how the source writes it, its code, the developer's own
 * name for it (which tells areas of one name apart), its importance (0 to 1).
 */
export const NAME_FORMS = ["abbr", "written", "code", "id", "importance"] as const;
/** What comes to the degrees of another column: minutes, seconds, and which way they run. */
export const ANGLE_FORMS = ["minutes", "seconds", "direction"] as const;
export const COLUMN_FORMS = [...NAME_FORMS, ...ANGLE_FORMS] as const;
export type ColumnForm = (typeof COLUMN_FORMS)[number];
/** The form that some word names, if any does. */
export const formOf = (word: string) => COLUMN_FORMS.find((form) => form === word);

/** How the positions of a table are written. */
export interface Projection {
  system: "degrees" | "utm" | "web-mercator" | "epsg";
  /** That of UTM: 1 to 60, `N` or `S` behind it. */
  zone?: string;
  /** Of a national grid, its number in the EPSG dataset. */
  epsg?: number;
}

/** How a table is read: what each of the columns means (null: not imported), and what no column contains. */
export interface Reading {
  columns: readonly (ColumnUse | null)[];
  /** ISO 3166-1 alpha-2 code of the country where no column names one. */
  country?: string;
  /** Language of names that carry none (BCP 47); the country's usual one where not given. */
  lang?: string;
  projection?: Projection;
  /** Writes names that stand in capitals as people write them, by the rules of their language. */
  recases?: boolean;
}

/** True when two columns hold the same: of those there is one in a table, but for what is joined. */
export function sameUse(a: ColumnUse, b: ColumnUse): boolean {
  const isSame = a.meaning === b.meaning && a.lang === b.lang && a.form === b.form && a.fact?.name === b.fact?.name;
  return !JOINED.has(a.meaning) && isSame;
}
