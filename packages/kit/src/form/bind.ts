import {
  addressesOf,
  addressOf,
  clearFilled,
  correct,
  EMPTY_STATE,
  type Filling,
  type FormAnswer,
  type FormDefinition,
  type FormState,
  fill,
  fillableFields,
  fillingsFor,
  giveBack,
  type Happening,
  isLookUp,
  lineFor,
  questionFor,
  questionOf,
  ruleOf,
  standingOf,
  startingField,
  startOf,
  typedFillings,
  type Values,
  writtenBy,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { RecordFeature } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import type { TraceEvent, Tracer } from "../trace.ts";
import { AddressLookups, type FilledBy } from "./address.ts";
import { type Control, controlOf, frameOf, isByPerson, writeValue } from "./controls.ts";
import { withFacts } from "./more-facts.ts";
import { definitionFrom, firstLineOf } from "./plain-form.ts";
import { FieldUndo } from "./undo.ts";

export interface BindOptions {
  client: Client;
  /** The form's definition; without one the form is filled by its inputs' autofill tokens. */
  definition?: FormDefinition;
  /** Values by field of a stored record: nothing is asked, and nothing counts as filled or corrected. */
  record?: Values;
  trace?: Tracer;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation | undefined;
  /**
   * Which events count as the person's doing. When not given, those of the browser that no script, autofill or back
   * button caused; a rehearsal plays the person.
   */
  isByPerson?: (event: Event) => boolean;
  /** An address of the form was filled. @param address name of the address, empty for the first */
  filled?: (answer: FormAnswer, why: FilledBy, address: string) => void;
  /** What was filled was cleared. */
  cleared?: (address: string) => void;
  /** Several addresses fit and the person is to choose; none when the choice is over. */
  several?: (candidates: readonly FormAnswer[], address: string) => void;
}

/** A form whose address fields fill themselves. An address is named where a form has several; the first one else. */
export interface Binding {
  /** Fills from the nearest address to a position, as when the map is pressed. @returns the answer, if there is one near */
  fillFrom(at: Position, address?: string): Promise<FormAnswer | undefined>;
  /** Fills from an address that was found already, as when a marker was moved to it. */
  fillWith(record: RecordFeature, address?: string): FormAnswer;
  /** Sets a field's value from the page's own code; starts a lookup where the field does. */
  set(field: string, value: string): void;
  /** Takes one of several candidates. */
  choose(place: number, address?: string): void;
  /** Says something at the search field; nothing with an empty text. */
  say(words: string, address?: string): void;
  /** Gives a corrected field back to the lookup. */
  giveBack(field: string): void;
  /** Asks where the device is, and offers the address there. */
  locate(address?: string): void;
  /** Exchanges the form's two addresses. */
  exchange(): void;
  /** What stands in the fields now, by name. */
  values(): Values;
  readonly state: FormState;
  destroy(): void;
}

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
  readonly #addresses = new Map<string, AddressLookups>();
  /** Addresses that were looked up, or are taken as typed. */
  readonly #asked = new Set<string>();
  /** What each address was filled from last. */
  readonly #answers = new Map<string, FormAnswer>();
  readonly #stop = new AbortController();
  readonly #undo: FieldUndo;
  #isFilling = false;

  constructor(
    private readonly form: HTMLFormElement,
    private readonly options: BindOptions,
  ) {
    this.#definition = options.definition ?? definitionFrom(form);
    for (const name of addressesOf(this.#definition)) this.#addresses.set(name, this.#lookups(name));
    for (const [field, value] of Object.entries(options.record ?? {})) this.#put(field, value ?? "");
    const { signal } = this.#stop;
    this.#undo = new FieldUndo(form, signal, (control) => this.#correct(control));
    form.addEventListener("input", (event) => this.#changed(event), { signal });
    form.addEventListener("change", (event) => this.#changed(event), { signal });
    form.addEventListener("click", (event) => this.#pressed(event), { signal });
    // values are put back after the event
    form.addEventListener("reset", () => setTimeout(() => this.#wasReset()), { signal });
    this.#arrange();
  }

  fillFrom(at: Position, address = this.#first()): Promise<FormAnswer | undefined> {
    this.options.trace?.({ row: "keys", at: performance.now(), text: `${at.lat}, ${at.lon}`, key: "⌖", place: at });
    return this.#of(address).fillFrom(at);
  }

  fillWith(record: RecordFeature, address = this.#first()): FormAnswer {
    return this.#of(address).fillWith(record, "moved");
  }

  set(field: string, value: string): void {
    const control = controlOf(this.form, field);
    if (!control || control.value === value) return;
    const held = this.#definition.fields.find(({ name }) => name === field);
    if (held?.kind === "search") this.#of(addressOf(held)).box?.setText(value);
    this.#put(field, value);
    this.state = correct(this.state, field, value);
    this.#show(control);
    this.#arrange();
    this.#start({ did: "set", field });
  }

  choose(place: number, address = this.#first()): void {
    this.#of(address).choose(place);
  }

  say(words: string, address = this.#first()): void {
    this.#of(address).say(words);
  }

  giveBack(field: string): void {
    const step = giveBack(this.state, field);
    this.state = step.state;
    this.#write(step.write);
  }

  locate(address = this.#first()): void {
    void this.#of(address).locate();
  }

  exchange(): void {
    const [from, to] = this.#addresses.keys();
    if (to === undefined) return;
    const [first, second] = [from, to].map((name) => ({
      text: this.#of(name).box?.text ?? "",
      answer: this.#answers.get(name),
    }));
    this.#take(from, second);
    this.#take(to, first);
  }

  /** Puts an address where another stood. */
  #take(address: string, { text, answer }: { text: string; answer: FormAnswer | undefined }): void {
    this.#clear(address);
    this.#of(address).box?.setText(text);
    if (answer) void this.#fill(answer, "exchanged", address);
    else this.#arrange();
  }

  values(): Values {
    return Object.fromEntries(
      this.#definition.fields.map(({ name }) => [name, controlOf(this.form, name)?.value] as const),
    );
  }

  destroy(): void {
    this.#stop.abort();
    for (const lookups of this.#addresses.values()) lookups.destroy();
  }

  #lookups(name: string): AddressLookups {
    const { client, trace } = this.options;
    const definition = this.#definition;
    const { fields } = definition;
    const search =
      fields.find((field) => field.kind === "search" && addressOf(field) === name) ??
      (this.options.definition ? undefined : firstLineOf(definition, name));
    const input = search && controlOf(this.form, search.name);
    const starting = this.options.definition ? startingField(definition, name) : search?.name;
    const element = starting === undefined ? undefined : this.form.elements.namedItem(starting);
    return new AddressLookups(
      name,
      {
        client,
        trace,
        definition,
        geolocation: this.options.geolocation,
        country: () => this.#countryOf(name),
        fill: (answer, why) => void this.#fill(answer, why, name),
        cleared: () => this.#clear(name),
        useTyped: () => this.#useTyped(name),
        asked: () => {
          this.#asked.add(name);
          this.#arrange();
        },
        several: (candidates) => this.options.several?.(candidates, name),
      },
      input instanceof HTMLInputElement ? input : undefined,
      element instanceof Element ? frameOf(element) : undefined,
    );
  }

  #of(address: string): AddressLookups {
    return this.#addresses.get(address) ?? this.#addresses.get(this.#first())!;
  }

  #first(): string {
    return this.#addresses.keys().next().value!;
  }

  #countryOf(address: string): string | undefined {
    if (!ruleOf(this.#definition, address).countryFirst) return undefined;
    const field = this.#definition.fields.find((held) => held.kind === "country" && addressOf(held) === address);
    return (field && controlOf(this.form, field.name)?.value) || undefined;
  }

  async #fill(found: FormAnswer, why: FilledBy, address: string): Promise<void> {
    const answer = await withFacts(found, this.#definition, address, this.options.client);
    this.#answers.set(address, found);
    const step = fill(this.state, fillingsFor(this.#definition, answer, address));
    this.state = step.state;
    this.#write(step.write);
    this.#traceFields(why, address, step.write, { line: lineFor(answer), place: answer.at });
    this.#of(address).noteAsked(questionOf(this.#definition, this.values(), address));
    this.options.filled?.(answer, why, address);
  }

  /** The starting field was cleared: what it filled goes, but for the fields that start the lookup themselves. */
  #clear(address: string): void {
    this.#of(address).forget();
    this.#answers.delete(address);
    const start = startOf(this.#definition, address);
    const kept = start.on === "complete" ? start.fields : [];
    const names = fillableFields(this.#definition, address).flatMap(({ name }) => (kept.includes(name) ? [] : [name]));
    const step = clearFilled(this.state, names);
    this.state = step.state;
    this.#write(step.write);
    if (step.write.length) this.#traceFields("cleared", address, step.write);
    this.options.cleared?.(address);
  }

  #useTyped(address: string): void {
    this.#asked.add(address);
    const fillings = typedFillings(this.#definition, address);
    this.#write(fillings);
    this.#traceFields("typed", address, fillings);
    this.options.cleared?.(address);
  }

  /** A control changed: by the person, by the browser, or by the page. */
  #changed(event: Event): void {
    const control = event.target;
    if (this.#isFilling || !(control instanceof Element) || !("name" in control) || !control.name) return;
    const held = controlOf(this.form, String(control.name));
    if (!held) return;
    if ((this.options.isByPerson ?? isByPerson)(event)) {
      this.#correct(held);
      if (event.type === "input" && held.value === "") this.#emptied(held.name);
      if (event.type === "change") {
        this.#countryChanged(held.name);
        this.#start({ did: "left", field: held.name });
      }
    }
    this.#arrange();
  }

  #correct(control: Control): void {
    const before = this.state.corrected.includes(control.name);
    this.state = correct(this.state, control.name, control.value);
    this.#show(control);
    if (before || !this.state.corrected.includes(control.name)) return;
    this.#traceFields("corrected", undefined, [{ field: control.name, value: control.value }]);
  }

  #emptied(field: string): void {
    for (const address of this.#addresses.keys()) {
      const start = startOf(this.#definition, address);
      const isIts = start.on === "complete" ? start.fields.includes(field) : "field" in start && start.field === field;
      if (isIts) this.#clear(address);
    }
  }

  /** Another country: what was filled of the one before goes. */
  #countryChanged(field: string): void {
    const held = this.#definition.fields.find(({ name }) => name === field);
    if (held?.kind !== "country" || !ruleOf(this.#definition, addressOf(held)).countryFirst) return;
    const chosen = controlOf(this.form, field)?.value;
    this.#clear(addressOf(held));
    if (chosen) this.#put(field, chosen);
  }

  #start(happening: Happening): void {
    const question = questionFor(this.#definition, this.values(), happening);
    if (question) void this.#of(question.address).ask(question);
  }

  #pressed(event: Event): void {
    const button = event.target instanceof Element ? event.target.closest("button") : null;
    const field = this.#definition.fields.find(({ kind, name }) => kind === "button" && name === button?.name);
    if (!field) return;
    if (field.task === "locate") this.locate(addressOf(field));
    else if (field.task === "exchange") this.exchange();
    else this.#start({ did: "pressed", field: field.name });
  }

  #wasReset(): void {
    this.state = EMPTY_STATE;
    this.#asked.clear();
    this.#answers.clear();
    for (const [name, lookups] of this.#addresses) {
      lookups.forget();
      lookups.box?.setText("");
      this.options.cleared?.(name);
    }
    for (const { name } of this.#definition.fields) {
      const control = controlOf(this.form, name);
      if (control) this.#show(control);
    }
    this.#arrange();
  }

  /** Shows, hides and locks fields by their rules; a button waits until there is something to ask. */
  #arrange(): void {
    const values = this.values();
    for (const field of this.#definition.fields) {
      const element = this.form.elements.namedItem(field.name);
      if (element instanceof HTMLButtonElement && isLookUp(field))
        element.disabled = !questionFor(this.#definition, values, { did: "pressed", field: field.name });
      if (!field.show || !(element instanceof HTMLElement)) continue;
      const standing = standingOf(field, values, { wasAsked: this.#asked.has(addressOf(field)) });
      frameOf(element).hidden = standing === "hidden";
      if ("disabled" in element) element.disabled = standing !== "shown";
    }
  }

  #put(field: string, value: string): void {
    const control = controlOf(this.form, field);
    if (!control || control.value === value) return;
    // what this sets off is not the person's doing
    this.#isFilling = true;
    try {
      writeValue(control, value);
    } finally {
      this.#isFilling = false;
    }
  }

  /** Writes values. */
  #write(fillings: readonly Filling[]): void {
    for (const { field, value } of fillings) {
      const control = controlOf(this.form, field);
      if (!control) continue;
      this.#undo.note(control, value);
      this.#put(field, value);
      this.#show(control);
    }
    this.#arrange();
  }

  #show(control: Control): void {
    const { filled, corrected } = this.state;
    const how = corrected.includes(control.name) ? "corrected" : filled[control.name] ? "filled" : undefined;
    if (how) control.dataset.bt = how;
    else delete control.dataset.bt;
  }

  #traceFields(
    why: (TraceEvent & { row: "fields" })["why"],
    address: string | undefined,
    fillings: readonly Filling[],
    found: { line?: string; place?: Position } = {},
  ): void {
    const traced = fillings.map((filling) => ({
      ...filling,
      ...(why === "corrected" ? {} : { by: writtenBy(this.#definition, filling.field) }),
    }));
    this.options.trace?.({ row: "fields", at: performance.now(), why, address, ...found, fillings: traced });
  }
}
