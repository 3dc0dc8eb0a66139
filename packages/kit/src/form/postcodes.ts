import { type FormDefinition, fillableFields, partOf } from "@bibliotope/core/form";
import type { Client } from "../client/client.ts";
import { SearchBox } from "../search/box.ts";
import type { Tracer } from "../trace.ts";
import type { Binding } from "./binding.ts";
import { controlOf } from "./controls.ts";

/** So many are offered that their list covers little of what follows. */
const MOST = "4";

export interface PostcodeOptions {
  client: Client;
  trace?: Tracer | undefined;
  binding: Binding;
  /** Code of the country that was chosen. */
  country: () => string | undefined;
}

/** Where the country is known first, its postcodes are offered while one is typed. @returns what ends it */
export function offerPostcodes(
  form: HTMLFormElement,
  definition: FormDefinition,
  address: string,
  { client, trace, binding, country }: PostcodeOptions,
): () => void {
  const boxes = fillableFields(definition, address).flatMap((field) => {
    const control = controlOf(form, field.name);
    if (partOf(field) !== "postcode" || !(control instanceof HTMLInputElement)) return [];
    const chosen = ({ line }: { line: string }) => {
      control.value = "";
      binding.set(field.name, line);
    };
    const narrow = () => ({ kinds: "postcode", countries: country(), limit: MOST });
    return [new SearchBox(control, { client, trace, narrow, chosen, isAside: true })];
  });
  return () => {
    for (const box of boxes) box.destroy();
  };
}
