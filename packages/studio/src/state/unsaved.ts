import type { FormDefinition } from "@bibliotope/core/form";

/** A draft that the server does not have yet, kept in the browser so that a reload does not lose it. */
interface Unsaved {
  revision: number;
  definition: FormDefinition;
}

const keyOf = (ref: string) => `bibliotope.unsaved.${ref}`;

export function keepUnsaved(ref: string, unsaved: Unsaved): void {
  try {
    localStorage.setItem(keyOf(ref), JSON.stringify(unsaved));
  } catch {
    // storage full or switched off: the draft lives on in this page
  }
}

export function forgetUnsaved(ref: string): void {
  localStorage.removeItem(keyOf(ref));
}

/** What could not be saved, if it was made on top of the revision that the server still has. */
export function takeUnsaved(ref: string, revision: number): FormDefinition | undefined {
  try {
    const stored = JSON.parse(localStorage.getItem(keyOf(ref)) ?? "null") as Unsaved | null;
    return stored?.revision === revision ? stored.definition : undefined;
  } catch {
    return undefined;
  }
}
