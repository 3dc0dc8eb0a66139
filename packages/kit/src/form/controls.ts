/**
 * What a form's values stand in; an output is seen and never sent. A custom element that takes part in forms and has a
 * text as its value is one too.
 */
export type Control =
  | HTMLInputElement
  | HTMLSelectElement
  | HTMLTextAreaElement
  | HTMLOutputElement
  | (HTMLElement & { name: string; value: string; disabled?: boolean });

/** True for what a value can be read from and written into. */
export function isControl(element: unknown): element is Control {
  if (
    element instanceof HTMLInputElement ||
    element instanceof HTMLSelectElement ||
    element instanceof HTMLTextAreaElement ||
    element instanceof HTMLOutputElement
  )
    return true;
  return (
    element instanceof HTMLElement &&
    element.localName.includes("-") &&
    "value" in element &&
    typeof element.value === "string"
  );
}

/** The control of a form with a name; undefined for buttons and groups. */
export function controlOf(form: HTMLFormElement, name: string): Control | undefined {
  const control = form.elements.namedItem(name);
  return isControl(control) ? control : undefined;
}

/** Sets a value past the setter that a framework put in front of it, and fires what any framework listens to. */
export function writeValue(control: Control, value: string): void {
  const setter = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(control), "value")?.set;
  if (setter) setter.call(control, value);
  else control.value = value;
  if (control instanceof HTMLOutputElement) return;
  control.dispatchEvent(new Event("input", { bubbles: true }));
  control.dispatchEvent(new Event("change", { bubbles: true }));
}

/**
 * True for what the person did to a control: not what a script, the browser's autofill, a password manager or the back
 * button did.
 */
export function isByPerson(event: Event): boolean {
  const { target, isTrusted } = event;
  if (!isTrusted || !(target instanceof Element)) return false;
  // what the browser puts back into a form comes before anybody touched the page
  if (navigator.userActivation && !navigator.userActivation.hasBeenActive) return false;
  return !isAutofilled(target);
}

function isAutofilled(element: Element): boolean {
  try {
    return element.matches(":autofill");
  } catch {
    return false;
  }
}

/** What is around a control with the label: our own frame, the label around it, or the control itself. */
export function frameOf(control: Element): HTMLElement {
  return (control.closest(".bt-field") ?? control.closest("label") ?? control) as HTMLElement;
}
