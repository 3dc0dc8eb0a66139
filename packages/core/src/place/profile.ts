import type { PartName } from "./kinds.ts";

/** How a country writes its addresses. Data, not code: a country is added by adding one of these. */
export interface CountryProfile {
  /** ISO 3166-1 alpha-2. */
  code: string;
  /** Languages of its names, BCP 47, the usual one first. */
  langs: readonly string[];
  /** Pattern for the lines of an envelope, one to a line, without the country. */
  lines: string;
  /** Pattern of the one-line form. */
  line: string;
  /** Pattern of a suggestion's line, and of what stands beside it. */
  suggestion: string;
  within: string;
  /** Pattern of what HTML autofill calls address-line1. */
  addressLine: string;
  /** Parts that are HTML's address-level1 to 4, broadest first. */
  levels: readonly PartName[];
  /** What the country calls its parts, by language. */
  labels: Readonly<Partial<Record<PartName, string>>>;
  /** The part that carries a building's number, and whether it stands before or after the street. */
  number: { part: "house" | "building"; stands: "before" | "after" };
  postcode?: { shape: string; examples: readonly string[]; note?: string };
}

const shapes = new Map<string, RegExp>();

/** The shape of a country's postcodes, whatever the case; undefined where it has none. */
export function postcodeShape({ postcode }: CountryProfile): RegExp | undefined {
  if (!postcode) return undefined;
  let shape = shapes.get(postcode.shape);
  if (!shape) {
    shape = new RegExp(postcode.shape, "iu");
    shapes.set(postcode.shape, shape);
  }
  return shape;
}
