import type { PartName } from "./kinds.ts";

/** How a country writes its addresses. Data, not code: a country is added by adding one of these. */
export interface CountryProfile {
  /** ISO 3166-1 alpha-2. */
  code: string;
  /** Languages of the names, BCP 47, the usual one first. */
  langs: readonly string[];
  /** Pattern for the lines of an envelope, one to a line, without the country. */
  lines: string;
  /** Pattern of the one-line form. */
  line: string;
  /** Pattern of a suggestion's line, and of what is beside it. */
  suggestion: string;
  within: string;
  /** Pattern of what HTML autofill calls address-line1. */
  addressLine: string;
  /** Parts that are HTML's address-level1 to 4, broadest first. */
  levels: readonly PartName[];
  /** What the country calls its parts, by language. */
  labels: Readonly<Partial<Record<PartName, string>>>;
  /** The part that carries a building's number, and whether it comes before or after the street. */
  number: { part: "house" | "building"; stands: "before" | "after" };
  postcode?: { shape: string; examples: readonly string[]; note?: string };
}

const shapes = new Map<string, RegExp>();

/**
 * A postcode as its country writes it, whatever is between its letters and digits: "1012ab" is "1012 AB", "01310100"
 * is "01310-100". Zeros that a spreadsheet has taken from the front come back.
 * @returns undefined for what has not the country's shape in any way of writing
 */
export function postcodeAsWritten(profile: CountryProfile, text: string): string | undefined {
  const shape = postcodeShape(profile);
  if (!shape) return undefined;
  const upper = text.trim().toUpperCase();
  const bare = upper.replace(/[\s.\u2010-\u2015-]/gu, "");
  // "D-10115" of the days before country codes, "SE-111 22"
  const codes = /^\d+$/.test(bare) ? [bare, `0${bare}`, `00${bare}`] : [bare, bare.replace(/^[A-Z]{1,2}(?=\d)/u, "")];
  for (const code of codes)
    for (const example of profile.postcode?.examples ?? []) {
      // what parts a code is as far from the end, however long the rest is: "M1 1AE", "SW1A 1AA"
      const [, mark = "", behind = ""] = /^[^\s-]+([\s-])([^\s-]+)$/u.exec(example) ?? [];
      const cut = code.length - behind.length;
      const written = mark && cut > 0 ? code.slice(0, cut) + mark + code.slice(cut) : code;
      if (shape.test(written)) return written;
    }
  return shape.test(upper) ? upper : undefined;
}

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
