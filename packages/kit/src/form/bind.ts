import {
  clearFilled,
  correct,
  EMPTY_STATE,
  type Field,
  type Filling,
  type FormAnswer,
  type FormDefinition,
  type FormState,
  fill,
  fillingsFor,
  giveBack,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { RecordFeature, RecordProperties, Suggestion } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { SearchBox } from "../search/box.ts";
import type { TraceEvent, Tracer } from "../trace.ts";

export interface BindOptions {
  client: Client;
  /** The form's definition; without one the form is filled by its inputs' autofill tokens. */
  definition?: FormDefinition;
  trace?: Tracer;
  /** The form was filled from an address: one chosen from the list, pressed on the map, or come to by moving. */
  filled?: (answer: FormAnswer, why: FilledBy) => void;
  /** What was filled was cleared. */
  cleared?: () => void;
}

export type FilledBy = "chosen" | "pressed" | "moved";

/** A form whose address fields fill themselves. */
export interface Binding {
  /** Fills from the nearest address to a position, as when the map is pressed. @returns the answer, if there is one near */
  fillFrom(at: Position): Promise<FormAnswer | undefined>;
  /** Fills from an address that was found already, as when a marker was moved to it. */
  fillWith(address: RecordFeature): FormAnswer;
  /** Says something at the search field; nothing with an empty text. */
  say(words: string): void;
  /** Gives a corrected field back to the lookup. */
  giveBack(field: string): void;
  readonly state: FormState;
  destroy(): void;
}

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

/**
 * Makes a form's search field search, and fills the other fields from what is chosen.
 *
 * @example
 * bind(document.querySelector("form"), { client: new Client({ key: "bt_web_…" }) });
 */
export function bind(form: HTMLFormElement, options: BindOptions): Binding {
  return new FormBinding(form, options);
}

class FormBinding implements Binding {
  state: FormState = EMPTY_STATE;
  readonly #definition: FormDefinition;
  readonly #box: SearchBox | undefined;
  readonly #stop = new AbortController();
  #underWay: AbortController | undefined;
  #filling = false;

  constructor(
    private readonly form: HTMLFormElement,
    private readonly options: BindOptions,
  ) {
    this.#definition = options.definition ?? definitionFrom(form);
    const { client, trace } = options;
    const search =
      this.#definition.fields.find((field) => field.kind === "search") ??
      (options.definition ? undefined : startOf(this.#definition));
    const input = search && this.#control(search.name);
    if (input instanceof HTMLInputElement) {
      this.#box = new SearchBox(input, {
        client,
        trace,
        chosen: (suggestion) => void this.#fillByRef(suggestion),
        cleared: () => this.#clear(),
      });
    }
    form.addEventListener("input", (event) => this.#corrected(event), { signal: this.#stop.signal });
    form.addEventListener("change", (event) => this.#corrected(event), { signal: this.#stop.signal });
  }

  async fillFrom(at: Position): Promise<FormAnswer | undefined> {
    const found = await this.#ask((signal) => this.options.client.reverse(at, {}, signal));
    const nearest = found?.features.find(({ properties }) => properties.kind === "address");
    if (found && !nearest) this.#box?.say(["No address lies near this spot.", ...found.advice].join(" "));
    return nearest && this.#take(nearest, "pressed");
  }

  fillWith(address: RecordFeature): FormAnswer {
    this.#underWay?.abort();
    this.say("");
    return this.#take(address, "moved");
  }

  say(words: string): void {
    this.#box?.say(words);
  }

  giveBack(field: string): void {
    const step = giveBack(this.state, field);
    this.state = step.state;
    this.#write(step.write);
  }

  destroy(): void {
    this.#underWay?.abort();
    this.#stop.abort();
    this.#box?.destroy();
  }

  #take(address: RecordFeature, why: FilledBy): FormAnswer {
    const answer = answerOf(address.id, address.properties);
    this.#box?.setText(answer.line);
    this.#apply(answer, why);
    return answer;
  }

  /** A choice is resolved by its ref, never by its text. */
  async #fillByRef({ ref }: Suggestion): Promise<void> {
    const record: RecordFeature | undefined = await this.#ask((signal) => this.options.client.record(ref, {}, signal));
    if (record) this.#apply(answerOf(record.id, record.properties), "chosen");
  }

  /** Asks; a later question makes an earlier one stale, and what goes wrong is said at the search field. */
  async #ask<T>(question: (signal: AbortSignal) => Promise<T>): Promise<T | undefined> {
    this.#underWay?.abort();
    const controller = new AbortController();
    this.#underWay = controller;
    try {
      this.#box?.say("");
      return await question(controller.signal);
    } catch (error) {
      if (!controller.signal.aborted)
        this.#box?.say(
          error instanceof LookupError ? error.message : "The address search does not work at the moment.",
        );
      return undefined;
    }
  }

  #apply(answer: FormAnswer, why: FilledBy): void {
    const step = fill(this.state, fillingsFor(this.#definition, answer));
    this.state = step.state;
    this.#write(step.write);
    this.#trace({ row: "fields", at: performance.now(), why, fillings: step.write });
    this.options.filled?.(answer, why);
  }

  #clear(): void {
    this.#underWay?.abort();
    const step = clearFilled(this.state);
    this.state = step.state;
    this.#write(step.write);
    if (step.write.length) this.#trace({ row: "fields", at: performance.now(), why: "cleared", fillings: step.write });
    this.options.cleared?.();
  }

  #corrected(event: Event): void {
    const control = event.target as Control;
    if (this.#filling || !control.name) return;
    const before = this.state.corrected.includes(control.name);
    this.state = correct(this.state, control.name, control.value);
    this.#show(control);
    if (!before && this.state.corrected.includes(control.name)) {
      this.#trace({
        row: "fields",
        at: performance.now(),
        why: "corrected",
        fillings: [{ field: control.name, value: control.value }],
      });
    }
  }

  /** Writes values, and fires what any framework listens to. */
  #write(fillings: readonly Filling[]): void {
    this.#filling = true;
    for (const { field, value } of fillings) {
      const control = this.#control(field);
      if (!control) continue;
      if (control.value !== value) {
        setValue(control, value);
        control.dispatchEvent(new Event("input", { bubbles: true }));
        control.dispatchEvent(new Event("change", { bubbles: true }));
      }
      this.#show(control);
    }
    this.#filling = false;
  }

  #show(control: Control): void {
    const { filled, corrected } = this.state;
    const how = corrected.includes(control.name) ? "corrected" : filled[control.name] ? "filled" : undefined;
    if (how) control.dataset.bt = how;
    else delete control.dataset.bt;
  }

  #control(name: string): Control | undefined {
    const control = this.form.elements.namedItem(name);
    return control instanceof HTMLInputElement ||
      control instanceof HTMLSelectElement ||
      control instanceof HTMLTextAreaElement
      ? control
      : undefined;
  }

  #trace(event: TraceEvent): void {
    this.options.trace?.(event);
  }
}

/** Sets a value past the setter that a framework put in front of it. */
function setValue(control: Control, value: string): void {
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(control), "value")?.set?.call(control, value);
}

function answerOf(ref: string, { kind, exactness, at, line, parts, autofill }: RecordProperties): FormAnswer {
  return { ref, kind, exactness, at, line, parts, autofill };
}

/** A definition from a plain form: its controls with a name, and their autofill tokens. */
function definitionFrom(form: HTMLFormElement): FormDefinition {
  const fields = [...form.elements].flatMap((element): Field[] => {
    if (
      !(
        element instanceof HTMLInputElement ||
        element instanceof HTMLSelectElement ||
        element instanceof HTMLTextAreaElement
      ) ||
      !element.name
    )
      return [];
    const autofill = element.getAttribute("autocomplete") ?? undefined;
    const isSearch = element.dataset.btSearch !== undefined || element.type === "search";
    return [
      {
        name: element.name,
        kind: isSearch ? "search" : "text",
        label: element.name,
        ...(autofill ? { autofill } : {}),
      },
    ];
  });
  return { title: "", fields };
}

/** With no search field given, the first line of the address starts the lookup. */
function startOf({ fields }: FormDefinition): Field | undefined {
  return fields.find(({ autofill }) => /(^|\s)(street-address|address-line1)$/.test(autofill ?? ""));
}
