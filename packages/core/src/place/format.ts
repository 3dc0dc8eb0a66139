import { formatPattern, knownPattern, type Lookup, namesIn } from "../pattern/index.ts";
import type { PartName, Parts } from "./kinds.ts";
import type { CountryProfile } from "./profile.ts";

/** Values of the HTML standard's autofill tokens. */
export type AutofillValues = Partial<
  Record<
    | "address-line1"
    | "address-line2"
    | "address-level1"
    | "address-level2"
    | "address-level3"
    | "address-level4"
    | "street-address"
    | "postal-code"
    | "country"
    | "country-name",
    string
  >
>;

/** Reads parts by name: `street`, or `country.code`, `town.abbr`. */
export function partLookup(parts: Parts): Lookup {
  return (name) => {
    const dot = name.indexOf(".");
    const part = (dot < 0 ? name : name.slice(0, dot)) as PartName;
    const form = (dot < 0 ? "name" : name.slice(dot + 1)) as "name" | "abbr" | "code" | "ref";
    return Object.hasOwn(parts, part) ? parts[part]?.[form] : undefined;
  };
}

/** The address in one line, in the country's order. */
export function formatLine(parts: Parts, profile: CountryProfile): string {
  return formatPattern(knownPattern(profile.line), partLookup(parts)) || (parts.country?.name ?? "");
}

/** The lines of an envelope; the country last, in capitals. */
export function envelopeLines(parts: Parts, profile: CountryProfile): string[] {
  const lines = formatPattern(knownPattern(profile.lines), partLookup(parts));
  const country = parts.country ? [parts.country.name.toLocaleUpperCase()] : [];
  return [...lines.split("\n").filter(Boolean), ...country];
}

/** What the HTML autofill tokens take from the parts, absent ones left out. */
export function autofillValues(parts: Parts, profile: CountryProfile): AutofillValues {
  const lookup = partLookup(parts);
  const values: AutofillValues = {};
  const put = (token: keyof AutofillValues, value: string | undefined) => {
    if (value) values[token] = value;
  };
  const line = formatPattern(knownPattern(profile.addressLine), lookup);
  put("address-line1", line);
  put("postal-code", parts.postcode?.name);
  put("country", parts.country?.code);
  put("country-name", parts.country?.name);
  for (const [i, part] of profile.levels.entries()) put(LEVELS[i], parts[part]?.name);
  put("street-address", line);
  return values;
}

const LEVELS = ["address-level1", "address-level2", "address-level3", "address-level4"] as const;

/** The parts that an HTML autofill token takes in a country; none for a token that is not of an address. */
export function autofillParts(token: string, profile: CountryProfile): PartName[] {
  if (token === "address-line1" || token === "street-address")
    return namesIn(knownPattern(profile.addressLine)) as PartName[];
  if (token === "postal-code") return ["postcode"];
  if (token === "country" || token === "country-name") return ["country"];
  const level = /^address-level([1-4])$/.exec(token);
  const part = level && profile.levels[Number(level[1]) - 1];
  return part ? [part] : [];
}
