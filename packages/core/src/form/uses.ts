import { namesOf } from "./binding.ts";
import { addressesOf, addressOf, type Field, type FormDefinition, ruleOf } from "./definition.ts";
import { startOf } from "./starts.ts";
import { statingFields } from "./state.ts";

/** Kinds of lookup that a form may use, by the words of the wire. */
export const FORM_USES = [
  "suggest",
  "forward",
  "reverse",
  "records",
  "height",
  "countries",
  "tiles",
  "still",
  "links",
  "services",
] as const;
export type FormUse = (typeof FORM_USES)[number];

/** The kinds of lookup that a form uses, and no others: what its key needs. */
export function usesOf(definition: FormDefinition): FormUse[] {
  const { fields, services } = definition;
  const addresses = addressesOf(definition);
  const isSome = (kind: Field["kind"]) => fields.some((field) => field.kind === kind);
  const names = new Set(fields.flatMap((field) => namesOf(field)));
  const rules = addresses.map((address) => ruleOf(definition, address));
  const uses: Readonly<Record<FormUse, boolean>> = {
    // where the country comes first, its postcodes are offered while one is typed
    suggest: isSome("search") || rules.some(({ countryFirst }) => countryFirst),
    forward:
      rules.some(({ nearby }) => nearby) ||
      addresses.some((address) => isAskedFor(definition, address) || statingFields(definition, address).length > 0),
    reverse: isSome("map") || fields.some(({ kind, task }) => kind === "button" && task === "locate"),
    // a chosen line is resolved by ref, and a stored ref is looked at again
    records: isSome("search") || names.has("ref"),
    height: names.has("height"),
    countries: true,
    tiles: isSome("map"),
    // the card of a place on a map has a picture too
    still: isSome("still") || isSome("map"),
    // a picture opens its place
    links: isSome("still"),
    services: Boolean(services?.length),
  };
  return FORM_USES.filter((use) => uses[use]);
}

/** The kinds of lookup without which one address of a form cannot be found: by words, and by its map. */
export function usesOfAddress(definition: FormDefinition, address: string): { words: FormUse[]; map: FormUse[] } {
  const fields = definition.fields.filter((field) => addressOf(field) === address);
  const hasSearch = fields.some(({ kind }) => kind === "search");
  const onMap = definition.fields.find(({ kind }) => kind === "map");
  const isPlaced =
    (onMap && addressOf(onMap) === address) || fields.some(({ kind, task }) => kind === "button" && task === "locate");
  return {
    words: hasSearch ? ["suggest", "records"] : isAskedFor(definition, address) ? ["forward"] : [],
    map: isPlaced ? ["reverse"] : [],
  };
}

/** True where something other than a choice from a list looks an address up. */
function isAskedFor(definition: FormDefinition, address: string): boolean {
  const { on } = startOf(definition, address);
  return on === "button" || on === "leaving" || on === "complete";
}
