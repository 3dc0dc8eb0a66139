import { addressesOf, addressOf, type Field, type FormDefinition, isFillable } from "@bibliotope/core/form";
import { type Control, isControl } from "./controls.ts";

/** A definition from a plain form: its controls with a name, and their autofill tokens. */
export function definitionFrom(form: HTMLFormElement): FormDefinition {
  const fields = [...form.elements].flatMap((element): Field[] => {
    if (!isControl(element) || element instanceof HTMLOutputElement || !nameOf(element)) return [];
    const name = nameOf(element);
    const autofill = element.getAttribute("autocomplete") ?? undefined;
    const isSearch = element.dataset.btSearch !== undefined || ("type" in element && element.type === "search");
    return [
      {
        name,
        kind: isSearch ? "search" : "text",
        label: name,
        ...(autofill ? { autofill } : {}),
      },
    ];
  });
  const definition: FormDefinition = { title: "", fields };
  // its first line searches, so that no request is made when it is left
  const addresses = addressesOf(definition).map((name) => ({ name, start: { on: "choice" as const } }));
  return { ...definition, fields: fields.filter((field) => isFillable(field) || field.kind === "search"), addresses };
}

/** A custom element may have its name as an attribute alone. */
const nameOf = (element: Control) => element.name || element.getAttribute("name") || "";

/** With no search field given, the first line of an address starts its lookups. */
export function firstLineOf({ fields }: FormDefinition, address: string): Field | undefined {
  return fields.find(
    (field) => addressOf(field) === address && /(^|\s)(street-address|address-line1)$/.test(field.autofill ?? ""),
  );
}
