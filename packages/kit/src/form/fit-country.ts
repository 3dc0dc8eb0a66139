import { type FormCountry, type FormDefinition, fieldsFor, fillableFields, hasShape } from "@bibliotope/core/form";
import { afterPress } from "../after-press.ts";
import { make } from "../map/make.ts";
import { controlOf, frameOf, writeValue } from "./controls.ts";

/** Hides the fields of an address until its country is chosen. */
export function hideUntilCountry(form: HTMLFormElement, definition: FormDefinition, address: string): void {
  for (const { name, kind } of fillableFields(definition, address)) {
    const control = controlOf(form, name);
    if (kind !== "text" || !control) continue;
    frameOf(control).hidden = true;
    if (!(control instanceof HTMLOutputElement)) control.disabled = true;
  }
}

/** Gives the fields of an address the labels, the order and the postcode's shape of a country; hides what it has not. */
export function fitCountry(
  form: HTMLFormElement,
  definition: FormDefinition,
  address: string,
  country: FormCountry,
): void {
  let before: Element | undefined;
  for (const field of fieldsFor(definition, address, country)) {
    const control = controlOf(form, field.name);
    const frame = control && frameOf(control);
    if (!control || !frame?.dataset.field) continue;
    const label = frame.querySelector(".bt-label > span");
    if (label) label.textContent = field.label;
    frame.hidden = !field.fits;
    if (!(control instanceof HTMLOutputElement)) control.disabled = !field.fits;
    if (control instanceof HTMLInputElement) control.placeholder = field.placeholder ?? "";
    if (!field.fits && control.value) writeValue(control, "");
    if (field.shape !== undefined && control instanceof HTMLInputElement)
      checkShape(control, frame, { ...field, shape: field.shape });
    // the order of the page is the order of the keyboard; a focused field is never moved
    if (before && before.nextElementSibling !== frame) before.after(frame);
    before = frame;
  }
}

/** Warns, when a field is left, that its value does not match the country's postcode format. */
function checkShape(
  control: HTMLInputElement,
  frame: HTMLElement,
  { label, placeholder, shape }: { label: string; placeholder?: string; shape: string },
): void {
  let words = frame.querySelector<HTMLElement>(".bt-shape");
  if (!words) {
    words = make("p", "bt-help bt-shape");
    words.setAttribute("role", "status");
    frame.append(words);
  }
  const said = words;
  const check = () => {
    const wrong = !hasShape(control.value, shape) ? `${label} looks like ${placeholder ?? "another one"}.` : "";
    control.setCustomValidity(wrong);
    afterPress(() => {
      said.textContent = wrong;
    });
  };
  control.onchange = check;
  control.oninput = () => {
    if (said.textContent) check();
  };
  check();
}
