import { namesIn, parsePattern } from "../pattern/index.ts";
import { type CountryProfile, PARTS, type PartName } from "../place/index.ts";
import { tokenOf } from "./binding.ts";
import { addressOf, type Field, type FormDefinition, ruleOf } from "./definition.ts";
import { partOf } from "./starts.ts";

/** What of a country's profile a form goes by. */
export type FormCountry = Pick<CountryProfile, "line" | "labels" | "levels" | "postcode">;

/** A field as a country wants it. */
export interface FittedField extends Field {
  /** False where the country's addresses have nothing for it. */
  fits: boolean;
  /** Shape of the value, as a regular expression; of postcodes. */
  shape?: string;
}

/**
 * The fields of a form whose address asks for the country first, as that country wants them: labels in the words, in
 * its order, the postcode with the example and shape, and without what its addresses have not.
 */
export function fieldsFor(definition: FormDefinition, address: string, country: FormCountry): FittedField[] {
  const { fields } = definition;
  if (!ruleOf(definition, address).countryFirst) return fields.map((field) => ({ ...field, fits: true }));
  const order = partsOfLine(country.line);
  const own = fields
    .filter((field) => addressOf(field) === address && partsOf(field, country).length)
    .map((field) => fitted(field, country, order));
  const sorted = own.toSorted((a, b) => placeOf(a, country, order) - placeOf(b, country, order));
  // they take each other's places; whatever is between them stays
  let next = 0;
  return fields.map((field) =>
    own.some(({ name }) => name === field.name) ? sorted[next++] : { ...field, fits: true },
  );
}

function fitted(field: Field, country: FormCountry, order: readonly PartName[]): FittedField {
  const parts = partsOf(field, country);
  const [part] = parts;
  const fits = parts.some((one) => order.includes(one));
  if (parts.length > 1) return { ...field, fits };
  const label = country.labels[part] ?? field.label;
  if (part !== "postcode" || !country.postcode) return { ...field, fits: part === "postcode" ? false : fits, label };
  const { examples, shape, note } = country.postcode;
  const help = note ? { help: note } : {};
  return { ...field, label, fits: true, placeholder: examples.join(", "), shape, ...help };
}

const placeOf = (field: Field, country: FormCountry, order: readonly PartName[]) => {
  const places = partsOf(field, country).map((part) => order.indexOf(part));
  return Math.min(...places.map((place) => (place < 0 ? order.length : place)));
};

/** Parts of a field that a country may order and name; none for the country itself. */
function partsOf(field: Field, { levels }: FormCountry): PartName[] {
  if (field.kind === "country" || field.kind === "search" || field.kind === "hidden") return [];
  const token = tokenOf(field) ?? "";
  if (field.binding === undefined) {
    if (/^(street-address|address-line1)$/.test(token)) return ["house", "street", "block", "place"];
    const level = levels[Number(/^address-level([1-4])$/.exec(token)?.[1]) - 1];
    const part = level ?? partOf(field);
    return part ? [part] : [];
  }
  const parsed = parsePattern(field.binding);
  const names = parsed.ok ? namesIn(parsed.pattern).map((name) => name.split(".")[0] as PartName) : [];
  return [...new Set(names)].filter((name) => PARTS.includes(name) && name !== "country");
}

/** The parts of a country's one-line form, in the order. */
function partsOfLine(line: string): PartName[] {
  const parsed = parsePattern(line);
  return parsed.ok ? (namesIn(parsed.pattern) as PartName[]) : [];
}

/** True when a value has the shape that a country's postcodes have, whatever the case; and where it has no shape. */
export function hasShape(value: string, shape: string | undefined): boolean {
  return !shape || value.trim() === "" || new RegExp(shape, "iu").test(value.trim());
}
