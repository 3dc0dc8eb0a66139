import type { Field } from "./definition.ts";
import { type Values, valueIn } from "./starts.ts";

/** How a field stands in the form just now. */
export type Standing = "shown" | "hidden" | "locked";

/** What became of a field's address so far. */
export interface AddressSoFar {
  /** A lookup was made, whatever came of it, or the person wants what they typed: never a wall. */
  wasAsked: boolean;
}

/** How a field stands, by its rule and by what the fields hold. */
export function standingOf({ name, show }: Field, values: Values, { wasAsked }: AddressSoFar): Standing {
  if (show === undefined) return "shown";
  if (show === "filled") return wasAsked || valueIn(values, name) ? "shown" : "hidden";
  if (show === "locked") return wasAsked || valueIn(values, name) ? "shown" : "locked";
  const other = valueIn(values, show.field);
  return (show.is === undefined ? other !== "" : other === show.is) ? "shown" : "hidden";
}
