import { type Control, controlOf, isByPerson } from "../form/controls.ts";
import { POINT_EVENT, type PointedAt, partSelector } from "../form-parts.ts";
import type { TraceEvent } from "../trace.ts";

/** How a `FormDriver` does things; times in milliseconds. */
export interface FormDriverOptions {
  /** Between two letters that are typed; 35 by default. */
  letter?: number;
  /** Longest wait for something that comes with an answer; 15,000 by default. */
  patience?: number;
  /** Ends what is under way, with the signal's reason. */
  signal?: AbortSignal;
}

/** Without a request for this long nothing is pending: a search field waits up to 250 before it asks. */
const QUIET = 300;
/** Longest wait for something when nothing is pending. */
const SOON = 3000;

/** Something that cannot be done to a form; the message says what is missing. */
export class CannotDrive extends Error {}

/**
 * Does to a form what a person does: types, chooses, clicks, points at the map. It needs a DOM and no more, so it works in
 * a test runner's page as well as on a page of your own.
 *
 * @example
 * const driver = new FormDriver();
 * const { form } = renderForm(main, definition, { client, countries, isByPerson: driver.isByPerson, trace: driver.trace });
 * driver.attach(form);
 * await driver.type("find", "12 harb");
 * await driver.takeSuggestion("find", "12 Harbour Row, Tidewell");
 */
export class FormDriver {
  readonly #played = new WeakSet<Event>();
  readonly #pending = new Set<number>();
  #lastAt = 0;
  #form: HTMLFormElement | undefined;
  readonly #letter: number;
  readonly #patience: number;
  readonly #signal: AbortSignal | undefined;

  constructor({ letter = 35, patience = 15_000, signal }: FormDriverOptions = {}) {
    this.#letter = letter;
    this.#patience = patience;
    this.#signal = signal;
  }

  /** For the form's option of that name: what the driver does counts as done by a person. */
  readonly isByPerson = (event: Event): boolean => this.#played.has(event) || isByPerson(event);

  /** For the form's option of that name: by it the driver knows when nothing is pending. */
  readonly trace = (event: TraceEvent): void => {
    if (event.row === "requests") this.#pending.add(event.id);
    if (event.row === "answered" || event.row === "dropped") this.#pending.delete(event.id);
    this.#lastAt = performance.now();
  };

  /** Says which form is driven from now on. */
  attach(form: HTMLFormElement): void {
    this.#form = form;
  }

  /** The input, select or text area of a name. @throws CannotDrive when the form has none */
  field(name: string): Exclude<Control, HTMLOutputElement> {
    const control = controlOf(this.#attached(), name);
    if (!control || control instanceof HTMLOutputElement) throw new CannotDrive(`the form has no field ${name}`);
    return control;
  }

  /**
   * Types into a field, letter by letter. What the field and the text begin with in common stays; where that is nothing,
   * the text replaces what was there at once.
   */
  async type(name: string, text: string): Promise<void> {
    const control = this.field(name);
    if (!(control instanceof HTMLInputElement || control instanceof HTMLTextAreaElement))
      throw new CannotDrive(`${name} cannot be typed into`);
    control.focus({ preventScroll: true });
    let common = 0;
    while (common < text.length && control.value[common] === text[common]) common++;
    if (common || !text)
      while (control.value.length > common) {
        this.#write(control, control.value.slice(0, -1), { inputType: "deleteContentBackward", data: null });
        await this.#pause(this.#letter);
      }
    const letters = [...text.slice(common)];
    for (const [i, data] of letters.entries()) {
      this.#write(control, text.slice(0, common) + letters.slice(0, i + 1).join(""), { inputType: "insertText", data });
      await this.#pause(this.#letter);
    }
  }

  /** Leaves a field, after having seen what came of the typing. */
  async leave(name: string): Promise<void> {
    const control = this.field(name);
    await this.settled();
    this.#fire(control, new Event("change", { bubbles: true }));
    control.blur();
    await this.settled();
  }

  /** Selects an option by its value. @throws CannotDrive when there is none */
  async select(name: string, value: string): Promise<void> {
    const control = this.field(name);
    control.value = value;
    if (control.value !== value) throw new CannotDrive(`there is no option “${value}”`);
    this.#fire(control, new Event("input", { bubbles: true }));
    this.#fire(control, new Event("change", { bubbles: true }));
    await this.settled();
  }

  /** Clicks the suggestion with this line under a search field. @throws CannotDrive when it does not appear */
  takeSuggestion(name: string, line: string): Promise<void> {
    const box = this.field(name).closest(partSelector("search"));
    const find = () => withLine(box, `${partSelector("suggestions")}:not([hidden]) > [role=option]`, line);
    return this.#clickWhenThere(find, `“${line}” did not appear in the list`);
  }

  /** Clicks one of several matches of an address. @throws CannotDrive when it is not among them */
  chooseMatch(address: string, line: string): Promise<void> {
    const find = () => withLine(this.#outcome(address), partSelector("match"), line);
    return this.#clickWhenThere(find, `“${line}” is not among the matches`);
  }

  /** Keeps an address as it was typed, where that is offered. @throws CannotDrive when it is not */
  keepTyped(address: string): Promise<void> {
    const find = () => this.#outcome(address)?.querySelector<HTMLElement>(`${partSelector("typed")}:not([hidden])`);
    return this.#clickWhenThere(find, "the typed text was not offered");
  }

  /** Clicks a button of the form. @throws CannotDrive when it cannot be clicked */
  press(name: string): Promise<void> {
    const find = () => this.#attached().querySelector<HTMLElement>(`button[name="${CSS.escape(name)}"]:enabled`);
    return this.#clickWhenThere(find, `the button ${name} cannot be clicked`);
  }

  /** Clicks a position of the map, wherever on the screen it lies. */
  async pointAt(at: PointedAt): Promise<void> {
    this.#attached().dispatchEvent(new CustomEvent(POINT_EVENT, { detail: at }));
    await this.settled();
  }

  /** Waits until no request has been pending for a moment. */
  async settled(): Promise<void> {
    const began = performance.now();
    do await this.#pause(QUIET / 10);
    while (performance.now() - began < QUIET || (!this.#isQuiet() && performance.now() - began < this.#patience));
  }

  #attached(): HTMLFormElement {
    if (!this.#form) throw new CannotDrive("attach a form first");
    return this.#form;
  }

  #outcome(address: string): Element | null {
    return this.#attached().querySelector(`[data-address="${CSS.escape(address)}"]`);
  }

  #write(control: HTMLInputElement | HTMLTextAreaElement, value: string, init: InputEventInit): void {
    control.value = value;
    this.#fire(control, new InputEvent("input", { ...init, bubbles: true }));
  }

  #fire(target: EventTarget, event: Event): void {
    this.#played.add(event);
    target.dispatchEvent(event);
  }

  async #clickWhenThere(find: () => HTMLElement | null | undefined, missing: string): Promise<void> {
    const began = performance.now();
    for (;;) {
      const found = find();
      if (found) {
        found.click();
        return this.settled();
      }
      const waited = performance.now() - began;
      // what can come only with an answer will not come when none is pending
      if (waited > this.#patience || (waited > SOON && this.#isQuiet())) throw new CannotDrive(missing);
      await this.#pause(QUIET / 10);
    }
  }

  #isQuiet(): boolean {
    return !this.#pending.size && performance.now() - this.#lastAt > QUIET;
  }

  #pause(milliseconds: number): Promise<void> {
    this.#signal?.throwIfAborted();
    return new Promise((resolve) => setTimeout(resolve, milliseconds));
  }
}

/** The entry of a list whose line has these words: an element marked as the line, or else the last one. */
function withLine(within: Element | null, entries: string, line: string): HTMLElement | undefined {
  const lineOf = (entry: HTMLElement) =>
    (entry.querySelector(partSelector("line")) ?? entry.lastElementChild)?.textContent;
  return [...(within?.querySelectorAll<HTMLElement>(entries) ?? [])].find((entry) => lineOf(entry) === line);
}
