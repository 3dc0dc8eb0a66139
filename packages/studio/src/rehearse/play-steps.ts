import type { RehearsalStep } from "@bibliotope/core/form";
import { controlOf, isByPerson, POINT, type RenderedForm, type TraceEvent } from "@bibliotope/kit";

/** Milliseconds from letter to letter. */
const LETTER = 35;
/** Milliseconds without a request after which nothing is under way any more: a search field waits up to 250 before it asks. */
const QUIET = 300;
/** Milliseconds for what a step waits for: longer than the slowest answer that is played. */
const PATIENCE = 15_000;

/** The same when nothing is under way. */
const SOON = 3000;

/** A step that could not be done. */
export class StepFailed extends Error {}

/** Plays a person: does the steps of a rehearsal to a form that is bound by the kit. */
export class Player {
  readonly #played = new WeakSet<Event>();
  readonly #underWay = new Set<number>();
  #lastAt = 0;

  /** What counts as the person's doing: what is played, and what a person does meanwhile. */
  readonly isByPerson = (event: Event): boolean => this.#played.has(event) || isByPerson(event);

  /** Hears requests and responses, to know when nothing is under way. */
  readonly heard = (event: TraceEvent): void => {
    if (event.row === "requests") this.#underWay.add(event.id);
    if (event.row === "answered" || event.row === "dropped") this.#underWay.delete(event.id);
    this.#lastAt = performance.now();
  };

  /**
   * @param told the step that is being done, by place
   * @throws StepFailed with words, when a step waits for something in vain
   */
  async play(
    { form, map }: RenderedForm,
    steps: readonly RehearsalStep[],
    signal: AbortSignal,
    told: (step: number) => void = () => undefined,
  ): Promise<void> {
    for (const [place, step] of steps.entries()) {
      signal.throwIfAborted();
      told(place);
      await this.#do(step, form, map?.element, signal);
    }
    await this.#quiet(signal);
  }

  async #do(step: RehearsalStep, form: HTMLFormElement, map: HTMLElement | undefined, signal: AbortSignal) {
    switch (step.do) {
      case "type":
        return this.#type(controlNamed(form, step.field), step.text, signal);
      case "leave": {
        const control = controlNamed(form, step.field);
        // the person has seen what came of the typing
        await this.#quiet(signal);
        this.#fire(control, new Event("change", { bubbles: true }));
        control.blur();
        return this.#quiet(signal);
      }
      case "select": {
        const control = controlNamed(form, step.field);
        control.value = step.value;
        if (control.value !== step.value) throw new StepFailed(`there is no option “${step.value}”`);
        this.#fire(control, new Event("input", { bubbles: true }));
        this.#fire(control, new Event("change", { bubbles: true }));
        return this.#quiet(signal);
      }
      case "take": {
        const box = controlNamed(form, step.field).closest(".bt-search");
        const line = () => withLine(box, ".bt-list:not([hidden]) > [role=option]", step.line);
        return this.#pressWhenThere(line, `“${step.line}” did not appear in the list`, signal);
      }
      case "choose": {
        const choice = () => withLine(placeOf(form, step.address), ".bt-choice", step.line);
        return this.#pressWhenThere(choice, `“${step.line}” is not among the matches`, signal);
      }
      case "keep": {
        const offered = () => placeOf(form, step.address)?.querySelector<HTMLElement>(".bt-typed:not([hidden])");
        return this.#pressWhenThere(offered, "the typed text was not offered", signal);
      }
      case "press": {
        const button = () => form.querySelector<HTMLElement>(`button[name="${CSS.escape(step.field)}"]:enabled`);
        return this.#pressWhenThere(button, `the button ${step.field} cannot be clicked`, signal);
      }
      case "point":
        if (!map) throw new StepFailed("the form has no map");
        map.dispatchEvent(new CustomEvent(POINT, { detail: { ...step.at, address: step.address } }));
        return this.#quiet(signal);
    }
  }

  /** Types letter by letter what is new, after taking away what is not; what is wholly new replaces all at once. */
  async #type(control: Typed, text: string, signal: AbortSignal): Promise<void> {
    if (!(control instanceof HTMLInputElement || control instanceof HTMLTextAreaElement))
      throw new StepFailed(`${control.name} cannot be typed into`);
    control.focus({ preventScroll: true });
    let common = 0;
    while (common < text.length && control.value[common] === text[common]) common++;
    if (common || !text)
      while (control.value.length > common) {
        this.#write(control, control.value.slice(0, -1), { inputType: "deleteContentBackward", data: null });
        await pause(LETTER, signal);
      }
    const letters = [...text.slice(common)];
    for (const [i, data] of letters.entries()) {
      this.#write(control, text.slice(0, common) + letters.slice(0, i + 1).join(""), { inputType: "insertText", data });
      await pause(LETTER, signal);
    }
  }

  #write(control: HTMLInputElement | HTMLTextAreaElement, value: string, init: InputEventInit): void {
    control.value = value;
    this.#fire(control, new InputEvent("input", { ...init, bubbles: true }));
  }

  #fire(target: EventTarget, event: Event): void {
    this.#played.add(event);
    target.dispatchEvent(event);
  }

  async #pressWhenThere(find: () => HTMLElement | null | undefined, missing: string, signal: AbortSignal) {
    const began = performance.now();
    for (;;) {
      const found = find();
      if (found) {
        found.click();
        return this.#quiet(signal);
      }
      const waited = performance.now() - began;
      // what can come only with an answer will not come when none is under way
      if (waited > PATIENCE || (waited > SOON && this.#isQuiet())) throw new StepFailed(missing);
      await pause(QUIET / 10, signal);
    }
  }

  #isQuiet(): boolean {
    return !this.#underWay.size && performance.now() - this.#lastAt > QUIET;
  }

  async #quiet(signal: AbortSignal): Promise<void> {
    const began = performance.now();
    do await pause(QUIET / 10, signal);
    while (performance.now() - began < QUIET || (!this.#isQuiet() && performance.now() - began < PATIENCE));
  }
}

type Typed = NonNullable<ReturnType<typeof controlOf>>;

function controlNamed(form: HTMLFormElement, name: string): Exclude<Typed, HTMLOutputElement> {
  const control = controlOf(form, name);
  if (!control || control instanceof HTMLOutputElement) throw new StepFailed(`the form has no field ${name}`);
  return control;
}

function placeOf(form: HTMLFormElement, address: string): Element | null {
  return form.querySelector(`.bt-outcome[data-address="${CSS.escape(address)}"]`);
}

/** The entry of a list whose line has these words. */
function withLine(within: Element | null, entries: string, line: string): HTMLElement | undefined {
  return [...(within?.querySelectorAll<HTMLElement>(entries) ?? [])].find(
    (entry) => entry.querySelector(".bt-line")?.textContent === line,
  );
}

function pause(milliseconds: number, signal: AbortSignal): Promise<void> {
  signal.throwIfAborted();
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}
