import { type RehearsalStep, withStep } from "@bibliotope/core/form";
import { isByPerson, type TraceEvent } from "@bibliotope/kit";

/** Notes what a person does to a form, as steps that can be gone through again. */
export class StepRecorder {
  #steps: readonly RehearsalStep[] = [];
  #isMoving = false;

  /** @param changed the steps so far, whenever there is one more */
  constructor(private readonly changed: (steps: readonly RehearsalStep[]) => void) {}

  /** Listens to a form until the signal. */
  listen(form: HTMLFormElement, signal: AbortSignal): void {
    const options = { capture: true, signal };
    form.addEventListener("input", (event) => this.#typed(event), options);
    form.addEventListener("change", (event) => this.#left(event), options);
    form.addEventListener("click", (event) => this.#pressed(event), options);
    form.addEventListener("reset", () => this.forget(), options);
  }

  /** Hears what the kit tells: what was taken from lists and on the map is there, however it was done. */
  heard(event: TraceEvent): void {
    if (event.row === "keys" && event.key === "↵" && event.field)
      this.#add({ do: "take", field: event.field, line: event.text });
    if (event.row === "keys" && event.place) this.#add({ do: "point", at: event.place });
    if (event.row !== "fields" || event.line === undefined) return;
    const { why, address = "", line, place } = event;
    if (why === "moved" && place) this.#moved({ do: "point", at: place, ...(address ? { address } : {}) });
    // a suggestion that was taken has its step; what is chosen otherwise is one of several
    if (why === "located" || (why === "chosen" && !this.#hasJustTaken())) this.#add({ do: "choose", address, line });
  }

  forget(): void {
    this.#steps = [];
    this.changed(this.#steps);
  }

  #hasJustTaken(): boolean {
    return this.#steps.at(-1)?.do === "take";
  }

  /** While a marker is moved, only where it is last is a step. */
  #moved(step: RehearsalStep): void {
    if (this.#isMoving) this.#steps = this.#steps.slice(0, -1);
    this.#add(step);
    this.#isMoving = true;
  }

  #typed(event: Event): void {
    const { target } = event;
    if (!isByPerson(event)) return;
    if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)
      this.#add({ do: "type", field: target.name, text: target.value });
  }

  #left(event: Event): void {
    const { target } = event;
    if (!isByPerson(event)) return;
    if (target instanceof HTMLSelectElement) this.#add({ do: "select", field: target.name, value: target.value });
    else if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)
      this.#add({ do: "leave", field: target.name });
  }

  #pressed(event: Event): void {
    const button = event.target instanceof Element ? event.target.closest("button") : null;
    if (!button || !event.isTrusted) return;
    if (button.matches("[data-bibliotope=typed]"))
      this.#add({ do: "keep", address: button.closest<HTMLElement>("[data-address]")?.dataset.address ?? "" });
    else if (button.name && button.type === "button") this.#add({ do: "press", field: button.name });
  }

  #add(step: RehearsalStep): void {
    this.#isMoving = false;
    this.#steps = withStep(this.#steps, step);
    this.changed(this.#steps);
  }
}
