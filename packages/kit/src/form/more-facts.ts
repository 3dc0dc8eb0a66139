import { type FormAnswer, type FormDefinition, fillableFields, ruleOf, shortLine } from "@bibliotope/core/form";
import { sphereDistance } from "@bibliotope/core/geo";
import type { Client } from "../client/client.ts";
import { metresBetween } from "./metres.ts";

/** Kinds of place of which the nearest is filled in. */
const LOOKED_AT = 5;

/** An answer with what a form wants to know beside it: how high the spot lies, and the nearest of some places. */
export async function withFacts(
  found: FormAnswer,
  definition: FormDefinition,
  address: string,
  client: Client,
): Promise<FormAnswer> {
  const asks = (...facts: string[]) =>
    fillableFields(definition, address).some(({ binding }) => facts.some((fact) => binding?.includes(`{${fact}`)));
  const { nearby: words } = ruleOf(definition, address);
  // what is not known leaves its fields empty, and everything else is filled
  const [height, nearby] = await Promise.all([
    asks("height") ? client.height(found.at).catch(() => undefined) : undefined,
    words && asks("nearby", "away") ? nearestOf(words, found, client).catch(() => undefined) : undefined,
  ]);
  return {
    ...found,
    ...(typeof height?.metres === "number" ? { height: height.metres } : {}),
    ...(nearby ? { nearby } : {}),
  };
}

async function nearestOf(q: string, { at }: FormAnswer, client: Client): Promise<FormAnswer["nearby"]> {
  const params = { q, near: `${at.lat},${at.lon}`, kinds: "place", limit: LOOKED_AT };
  const { features } = await client.forward(params);
  const [nearest] = features
    .map(({ properties }) => properties)
    .sort((a, b) => sphereDistance(at, a.at) - sphereDistance(at, b.at));
  if (!nearest) return undefined;
  return { name: shortLine(nearest), metres: await metresBetween(at, nearest.at) };
}
