import { takesValues } from "./binding.ts";
import { addressesOf, addressOf, type Field, type FormDefinition } from "./definition.ts";
import { type Values, valueIn } from "./starts.ts";

/** How a field is in the form just now. */
export type FieldVisibility = "shown" | "hidden" | "locked";

/** What became of a field's address so far. */
export interface AddressSoFar {
  /** A lookup was made, whatever came of it, or the person wants what they typed: never a wall. */
  wasAsked: boolean;
}

/** The state of a field, by its rule and by what the fields hold. */
export function visibilityOf({ name, show }: Field, values: Values, { wasAsked }: AddressSoFar): FieldVisibility {
  if (show === undefined) return "shown";
  if (show === "filled") return wasAsked || valueIn(values, name) ? "shown" : "hidden";
  if (show === "locked") return wasAsked || valueIn(values, name) ? "shown" : "locked";
  const other = valueIn(values, show.field);
  return (show.is === undefined ? other !== "" : other === show.is) ? "shown" : "hidden";
}

/**
 * Addresses of a form that people see, with the current values: what is hidden by its rule is neither requested nor stored.
 */
export function shownAddresses(definition: FormDefinition, values: Values): string[] {
  return addressesOf(definition).filter((address) => {
    const fields = definition.fields.filter(
      (field) => addressOf(field) === address && (takesValues(field) || field.kind === "search"),
    );
    const seen = fields.filter(({ kind }) => kind !== "hidden" && kind !== "shown");
    return !seen.length || seen.some((field) => visibilityOf(field, values, { wasAsked: true }) !== "hidden");
  });
}
