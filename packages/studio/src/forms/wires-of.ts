import {
  effectiveBinding,
  type FormAnswer,
  type FormDefinition,
  lookupIn,
  serviceNamesOf,
} from "@bibliotope/core/form";
import { autofillParts, profileOf } from "@bibliotope/core/place";
import type { Wire } from "./Wires.tsx";

/** The wires of a form for the address in hand: lit where a part has a value that fills the field. */
export function wiresOf(definition: FormDefinition, answer: FormAnswer | undefined): Wire[] {
  const profile = profileOf(answer?.parts.country?.code ?? "QR");
  const ofServices = definition.fields.flatMap((field) =>
    serviceNamesOf(field).map((part) => ({ field: field.name, part, lit: true })),
  );
  const ofParts = definition.fields.flatMap((field) =>
    effectiveBinding(field, (token) => autofillParts(token, profile)).map((part) => ({
      field: field.name,
      part,
      lit: answer !== undefined && lookupIn(answer)(part) !== undefined,
    })),
  );
  return [...ofParts, ...ofServices];
}
