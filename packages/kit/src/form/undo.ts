import { type Control, writeValue } from "./controls.ts";

/**
 * Undo in a field that was filled: the browser's own knows only what was typed. Ctrl or Cmd with Z brings back what stood
 * there before the filling, with Shift (or Ctrl with Y) what was filled.
 */
export class FieldUndo {
  readonly #steps = new WeakMap<Element, { before: string; after: string }>();

  /** @param changed what was brought back is the person's doing */
  constructor(form: HTMLFormElement, signal: AbortSignal, changed: (control: Control) => void) {
    form.addEventListener(
      "keydown",
      (event) => {
        const { target, key, altKey, shiftKey } = event;
        if (!(target instanceof Element) || altKey || !(event.ctrlKey || event.metaKey)) return;
        const isRedo = (key.toLowerCase() === "z" && shiftKey) || key.toLowerCase() === "y";
        if (!isRedo && key.toLowerCase() !== "z") return;
        const step = this.#steps.get(target);
        const control = target as Control;
        // what was typed since is the browser's to undo
        if (!step || control.value !== (isRedo ? step.before : step.after)) return;
        event.preventDefault();
        writeValue(control, isRedo ? step.after : step.before);
        changed(control);
      },
      { signal },
    );
  }

  /** A control is about to be filled. */
  note(control: Control, after: string): void {
    if (control.value !== after) this.#steps.set(control, { before: control.value, after });
  }
}
