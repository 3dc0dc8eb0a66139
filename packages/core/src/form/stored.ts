import { isPosition, type Position } from "../geo/index.ts";
import { fillableFields } from "./binding.ts";
import type { FormDefinition } from "./definition.ts";
import type { Values } from "./starts.ts";

/**
 * Where a stored record says that its address lies: by the field filled with `{position}`, or those with `{lat}` and
 * `{lon}`. A position that was never set is none, and never 0°, 0°.
 */
export function storedPosition(definition: FormDefinition, values: Values, address = ""): Position | undefined {
  const fields = fillableFields(definition, address);
  const of = (binding: string) => {
    const field = fields.find((existing) => existing.binding?.trim() === binding);
    return (field && values[field.name]?.trim()) || "";
  };
  const both = of("{position}");
  const [lat, lon] = both ? both.split(",") : [of("{lat}"), of("{lon}")];
  if (!lat?.trim() || !lon?.trim()) return undefined;
  const at = { lat: Number(lat), lon: Number(lon) };
  return isPosition(at.lat, at.lon) ? at : undefined;
}
