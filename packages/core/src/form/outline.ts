import { autofillParts, profileOf } from "../place/index.ts";
import { effectiveBinding } from "./binding.ts";
import { addressesOf, type Field, type FieldKind, type FormDefinition, type Start } from "./definition.ts";
import { startOf } from "./starts.ts";

/** A field as a small picture of its form shows it. */
export interface OutlineField {
  kind: FieldKind;
  /** Two half fields are side by side. */
  isHalf: boolean;
  /** The first part or attribute that fills it. */
  part?: string;
}

/** What a form looks like, and how it finds addresses, in short. */
export interface FormOutline {
  /** The fields that are visible, in order. */
  fields: OutlineField[];
  /** How many addresses the form has. */
  addresses: number;
  /** What starts their lookups, each once. */
  starts: Start["on"][];
  /** Names of the outside services that it calls. */
  services: string[];
}

/** Autofill tokens such as `address-line1` are read by the address format of countries that have none of their own. */
const NO_COUNTRY = "ZZ";

/** The outline of a form. */
export function outlineOf(definition: FormDefinition): FormOutline {
  const profile = profileOf(NO_COUNTRY);
  const addresses = addressesOf(definition);
  return {
    fields: definition.fields.filter(({ kind }) => kind !== "hidden").map((field) => shownAs(field)),
    addresses: addresses.length,
    starts: [...new Set(addresses.map((address) => startOf(definition, address).on))],
    services: [...new Set(definition.services?.map(({ ask }) => ask))],
  };

  function shownAs(field: Field): OutlineField {
    const [part] = effectiveBinding(field, (token) => autofillParts(token, profile));
    return { kind: field.kind, isHalf: field.half === true, ...(part ? { part } : {}) };
  }
}
