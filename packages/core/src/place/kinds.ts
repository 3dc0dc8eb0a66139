/** Kinds of record, the areas from narrow to broad. */
export const KINDS = [
  "address",
  "street",
  "block",
  "postcode",
  "place",
  "district",
  "town",
  "county",
  "region",
  "country",
] as const;
export type Kind = (typeof KINDS)[number];

/** The areas, broad to narrow: the order in which they contain each other. */
export const AREA_KINDS = ["country", "region", "county", "town", "district"] as const;
export type AreaKind = (typeof AREA_KINDS)[number];

/** Parts of an address, from the house to the country. */
export const PARTS = [
  "house",
  "unit",
  "floor",
  "building",
  "block",
  "street",
  "place",
  "district",
  "town",
  "county",
  "region",
  "postcode",
  "country",
] as const;
export type PartName = (typeof PARTS)[number];

/** A part with the full form, and its short form, code (ISO 3166 or official) or ref where it has one. */
export interface Part {
  name: string;
  abbr?: string;
  code?: string;
  ref?: string;
}

/** Parts keyed by name; absent parts are absent. */
export type Parts = Partial<Record<PartName, Part>>;

/** How exact a position is: a known point, interpolated between neighbours, somewhere on the street, the middle of an area. */
export const EXACTNESS = ["surveyed", "between", "along", "centre"] as const;
export type Exactness = (typeof EXACTNESS)[number];

/** A name in a language (BCP 47, with script where it matters), with the short form if it has one. */
export interface Name {
  lang: string;
  name: string;
  abbr?: string;
  /** As the source writes it, where that is not how people do: in capitals. */
  written?: string;
}

/** One schema.org `OpeningHoursSpecification`. */
export interface OpeningHours {
  dayOfWeek: string[];
  opens: string;
  closes: string;
}

/** A house number: the number, what follows it ("b", "/3", "-14"), and what is within it. */
export interface HouseNumber {
  number: number;
  suffix: string;
}
