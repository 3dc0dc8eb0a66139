import { addressesOf, type FormDefinition, type FormUse, usesOf, usesOfAddress } from "@bibliotope/core/form";
import type { Client } from "../client/client.ts";
import { lacking } from "../client/lacking.ts";
import type { Tracer } from "../trace.ts";
import { say } from "../words/say.ts";

/** What of a form cannot work with the page's key, in words for the person, by the name of the address. */
export async function formLacks(
  client: Client,
  definition: FormDefinition,
  trace: Tracer | undefined,
): Promise<ReadonlyMap<string, string>> {
  const lacks = await lacking(client, usesOf(definition));
  if (lacks.length) trace?.({ row: "key", at: performance.now(), lacks });
  const isAmong = (uses: readonly FormUse[]) => uses.some((use) => lacks.includes(use));
  const words = new Map<string, string>();
  for (const address of addressesOf(definition)) {
    const needed = usesOfAddress(definition, address);
    if (isAmong(needed.words)) words.set(address, say("Address search is not allowed on this page."));
    else if (isAmong(needed.map))
      words.set(address, say("The map cannot look up addresses on this page. Type the address by hand."));
  }
  return words;
}
