import { addressOf, type Field, tokenOf } from "@bibliotope/core/form";
import type { RecordFeature } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { type Control, isControl, writeValue } from "../form/controls.ts";
import { SearchBox } from "../search/box.ts";

/** A form's controls that carry a token of an address, with the field that each represents. */
function controlsOf(form: HTMLFormElement): { control: Control; field: Field }[] {
  return [...form.elements].flatMap((control) => {
    const autofill = control.getAttribute("data-autofill") ?? control.getAttribute("autocomplete");
    return isControl(control) && autofill
      ? [{ control, field: { name: control.name, kind: "text" as const, label: "", autofill } }]
      : [];
  });
}

/**
 * Fills a form's controls by their autofill tokens (HTML standard), all those of one address: what the record lacks is
 * emptied, so that nothing of an address before is left.
 *
 * @param address name of the section, or `billing` or `shipping`; empty for controls without one
 * @returns the controls that were filled
 */
export function fillByTokens(form: HTMLFormElement, record: RecordFeature, address = ""): Control[] {
  const { autofill } = record.properties;
  return controlsOf(form).flatMap(({ control, field }) => {
    const token = tokenOf(field);
    if (!token || !TOKENS.has(token) || addressOf(field) !== address) return [];
    const value = valueFor(control, autofill[token] ?? "");
    if (control.value !== value) writeValue(control, value);
    return value ? [control] : [];
  });
}

const TOKENS: ReadonlySet<string> = new Set([
  "street-address",
  ...[1, 2, 3].map((line) => `address-line${line}`),
  ...[1, 2, 3, 4].map((level) => `address-level${level}`),
  "postal-code",
  "country",
  "country-name",
]);

/** What a control can hold of a value: of a select, the option of that value or of those words. */
function valueFor(control: Control, value: string): string {
  if (!(control instanceof HTMLSelectElement)) return value;
  const wanted = value.toLowerCase();
  const options = [...control.options];
  const found =
    options.find((option) => option.value.toLowerCase() === wanted) ??
    options.find((option) => option.text.trim().toLowerCase() === wanted);
  return found?.value ?? "";
}

export interface BindTokensOptions {
  client: Client;
  /** Narrowing for every question, such as `{ countries: "QR" }`. */
  narrow?: () => Record<string, string | undefined>;
  /** An address was chosen and has filled the form. */
  filled?: (record: RecordFeature, address: string) => void;
}

/**
 * Makes the first line of each address of a plain form search, and fills the rest by autofill tokens. Has no rules of
 * its own: where a form has some, see `bind`.
 *
 * @returns what takes the search away again
 */
export function bindTokens(form: HTMLFormElement, { client, narrow, filled }: BindTokensOptions): () => void {
  const boxes = new Map<string, SearchBox>();
  for (const { control, field } of controlsOf(form)) {
    const address = addressOf(field);
    if (boxes.has(address) || !(control instanceof HTMLInputElement)) continue;
    if (!["street-address", "address-line1"].includes(tokenOf(field) ?? "")) continue;
    // the box switches the browser's own list off, and with it the token
    control.dataset.autofill = field.autofill;
    let latest = 0;
    const box = new SearchBox(control, {
      client,
      ...(narrow ? { narrow } : {}),
      chosen: async ({ ref }, typed) => {
        const mine = ++latest;
        try {
          const record = await client.record(ref, { typed });
          if (mine !== latest) return;
          fillByTokens(form, record, address);
          box.setText(control.value);
          filled?.(record, address);
        } catch (error) {
          if (mine === latest) box.say(error instanceof LookupError ? error.message : String(error));
        }
      },
    });
    boxes.set(address, box);
  }
  return () => {
    for (const box of boxes.values()) box.destroy();
  };
}
