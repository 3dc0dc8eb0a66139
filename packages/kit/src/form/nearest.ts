import type { AddressRule } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { RecordFeature } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";

/** Metres of an hour's walk. */
export const WALK = 5000;

/**
 * What an address of a form takes from a position: the nearest record of the kinds and countries, a house where it names
 * no kind. One that is wherever the position is takes what lies beside it within an hour's walk, an area if need be.
 * @param radius metres; as near as one means what is pressed when not given
 */
export async function nearestFor(
  client: Client,
  { kinds, countries, anywhere }: AddressRule,
  at: Position,
  signal?: AbortSignal,
  radius = anywhere ? WALK : undefined,
): Promise<RecordFeature | undefined> {
  const wanted: readonly string[] = kinds?.length ? kinds : ["address"];
  const narrow = countries?.length ? { countries: countries.join(",") } : {};
  const params = { ...narrow, radius, ...(anywhere ? {} : { kinds: wanted.join(",") }) };
  const { features } = await client.reverse(at, params, signal);
  const nearest = features.find(({ properties }) => wanted.includes(properties.kind));
  return nearest ?? (anywhere ? features[0] : undefined);
}
