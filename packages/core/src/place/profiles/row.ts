import type { CountryProfile } from "../profile.ts";
import type { Family } from "./families.ts";

/** A row of the tables of countries: what is a country's own. Anything else comes from the family. */
export interface Row {
  code: string;
  langs: string[];
  family: Family;
  /** What the country calls its areas, where an address names them. */
  areas: Partial<CountryProfile["labels"]>;
  /** HTML levels, broadest first; region and town when not given. */
  levels?: CountryProfile["levels"];
  postcode?: { label?: string; shape: string; examples: string[] };
}
