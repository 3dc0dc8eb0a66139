import { isFillable } from "./binding.ts";
import { addressesOf, addressOf, type Field, type FormDefinition, isOfServices } from "./definition.ts";
import { shownAddresses } from "./shows.ts";
import type { Values } from "./starts.ts";
import { type AddressState, addressState, type FormState, filledAddressOf } from "./state.ts";

/**
 * Where a value comes from: nothing is there; the person wrote it; they wrote it over what a lookup filled; the
 * record in hand; a record that the fields have since left; what was stored; an outside service; a choice of the form, or the page's
 * code.
 */
export type Origin = "empty" | "typed" | "corrected" | "record" | "left" | "stored" | "service" | "form";

/** A value as the form would send it. */
export interface GoingOut {
  field: string;
  value: string;
  origin: Origin;
  /** What a lookup had filled, where the person wrote over it. */
  was?: string;
  /** True for a field of an address that nobody sees at the moment: it is not to be stored. */
  isUnseen: boolean;
}

/** An address as the form would send it. */
export interface AddressGoingOut {
  /** Its name; empty for the first. */
  address: string;
  state: AddressState;
  isConfirmed: boolean;
  /** True for one that nobody sees at the moment: it is not to be stored. */
  isUnseen: boolean;
}

/**
 * What a form would send just now, each value with where it comes from.
 * @param values of the form
 * @param sent names and values as the browser would send them, in the order
 */
export function goingOut(
  definition: FormDefinition,
  state: FormState,
  values: Values,
  sent: Iterable<readonly [name: string, value: string]>,
): { values: GoingOut[]; addresses: AddressGoingOut[] } {
  const shown = new Set(shownAddresses(definition, values));
  const fields = new Map(definition.fields.map((field) => [field.name, field]));
  return {
    values: [...sent].map(([name, value]): GoingOut => {
      const field = fields.get(name);
      const isOfAddress = field !== undefined && (isFillable(field) || field.kind === "search");
      const origin = originOf(state, value, name, field);
      return {
        field: name,
        value,
        origin,
        ...(origin === "corrected" ? { was: state.filled[name] } : {}),
        isUnseen: isOfAddress && !shown.has(addressOf(field)),
      };
    }),
    addresses: addressesOf(definition).map((address) => ({
      address,
      state: addressState(definition, state, values, address),
      isConfirmed:
        filledAddressOf(state, address)?.state === "chosen" && filledAddressOf(state, address)?.confirmed === true,
      isUnseen: !shown.has(address),
    })),
  };
}

function originOf(state: FormState, value: string, name: string, field: Field | undefined): Origin {
  if (value.trim() === "") return "empty";
  if (state.corrected.includes(name)) return "corrected";
  if (state.written[name] === value) return "typed";
  if (field && isOfServices(field)) return "service";
  const filled = field && filledAddressOf(state, addressOf(field));
  // what a search field shows after a choice is the line of the record, not a part of what is stated
  if (filled && (filled.stated[name] === value || field.kind === "search"))
    return filled.state === "changed" ? "left" : filled.isStored ? "stored" : "record";
  return field && field.kind !== "hidden" && state.filled[name] === value ? "left" : "form";
}
