import {
  type AddressState,
  addressesOf,
  addressOf,
  addressState,
  agree,
  clearFilled,
  confirmByRegister,
  correct,
  EMPTY_STATE,
  type Filling,
  type FormAnswer,
  type FormDefinition,
  type FormState,
  fill,
  fillableFields,
  filledAddressOf,
  forget,
  giveBack,
  goBack,
  type Happening,
  isLookUp,
  keepTyped,
  lineFor,
  opened,
  type Question,
  questionFor,
  questionOf,
  ruleOf,
  type Step,
  shortLine,
  startingField,
  startOf,
  statedValues,
  statingFields,
  takesValues,
  type Values,
  visibilityOf,
  writtenBy,
  writtenValues,
} from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { Difference } from "@bibliotope/core/place";
import type { RecordFeature } from "@bibliotope/wire";
import type { TraceEvent } from "../trace.ts";
import { say } from "../words/say.ts";
import { AddressLookups, type FilledBy } from "./address.ts";
import type { Binding, BindOptions } from "./binding.ts";
import { type Control, controlOf, frameOf, isByPerson, writeValue } from "./controls.ts";
import { formLacks } from "./form-lacks.ts";
import { definitionFrom, firstLineOf } from "./plain-form.ts";
import { FieldUndo } from "./undo.ts";

/**
 * Makes a form's search field search, and fills the other fields from what is chosen.
 *
 * @example
 * bind(document.querySelector("form"), { client: new Client({ key: "bt_web_…" }) });
 */
export function bind(form: HTMLFormElement, options: BindOptions): Binding {
  const { definition } = options;
  if (!definition?.services?.length) {
    const binding = new FormBinding(form, options);
    checkKey(binding, options);
    return binding;
  }
  // few forms ask services: those that do bring what it takes
  const services = import("./services.ts").then(
    ({ FormServices }) =>
      new FormServices(form, {
        ...options,
        definition,
        values: () => binding.values(),
        registered: (address, official) => binding.registered(address, official),
      }),
  );
  const binding: FormBinding = new FormBinding(form, {
    ...options,
    filled: (answer, why, address) => {
      options.filled?.(answer, why, address);
      void services.then((all) => all.filled(answer, address));
    },
    cleared: (address) => {
      options.cleared?.(address);
      void services.then((all) => all.cleared(address));
    },
  });
  binding.ending.push(() => void services.then((all) => all.destroy()));
  checkKey(binding, options);
  return binding;
}

/** Warns at the start about what the page's key may not do, rather than leave a list empty later. */
function checkKey(binding: FormBinding, { client, definition, trace }: BindOptions): void {
  if (!definition) return;
  void formLacks(client, definition, trace).then((words) => binding.lacks(words));
}

/** Whether fields of an address are filled with what no answer has: see `more-facts`. */
const wantsFacts = (definition: FormDefinition, address: string) =>
  fillableFields(definition, address).some(({ binding }) => /\{(height|nearby|away)/.test(binding ?? ""));

/** What was taken out of an address when another country was chosen. */
interface Emptied {
  state: FormState;
  answer: FormAnswer | undefined;
  stood: Filling[];
  country: { field: string; value: string };
}

class FormBinding implements Binding {
  state: FormState = EMPTY_STATE;
  readonly #definition: FormDefinition;
  readonly #addresses = new Map<string, AddressLookups>();
  /** Addresses that were looked up, or are taken as typed. */
  readonly #asked = new Set<string>();
  /** What each address was filled from last. */
  readonly #answers = new Map<string, FormAnswer>();
  /** For each address how often something came that makes an answer under way stale. */
  readonly #turns = new Map<string, number>();
  /** What stood in each country field last. */
  readonly #countries = new Map<string, string>();
  /** What was taken out of each address with the country. */
  readonly #emptiedBefore = new Map<string, Emptied>();
  readonly #stop = new AbortController();
  readonly #undo: FieldUndo;
  #isFilling = false;
  /** What ends with it. */
  readonly ending: (() => void)[] = [];

  constructor(
    private readonly form: HTMLFormElement,
    private readonly options: BindOptions,
  ) {
    this.#definition = options.definition ?? definitionFrom(form);
    for (const name of addressesOf(this.#definition)) this.#addresses.set(name, this.#lookups(name));
    for (const [field, value] of Object.entries(options.record ?? {})) this.#put(field, value ?? "");
    if (options.record)
      for (const name of this.#addresses.keys()) this.state = opened(this.#definition, this.state, this.values(), name);
    const { signal } = this.#stop;
    this.#undo = new FieldUndo(form, signal, (control) => this.#correct(control));
    form.addEventListener("input", (event) => this.#changed(event), { signal });
    form.addEventListener("change", (event) => this.#changed(event), { signal });
    form.addEventListener("click", (event) => this.#pressed(event), { signal });
    form.addEventListener("reset", (event) => this.#wasReset(event), { signal });
    this.#noteCountries();
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
    const found = this.#definition.fields.find(({ name }) => name === field);
    if (found?.kind === "search") this.#of(addressOf(found)).box?.setText(value);
    this.#put(field, value);
    this.#correct(control);
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
    this.#restep(giveBack(this.#definition, this.state, field, this.values()), field);
  }

  addressState(address = this.#first()): AddressState {
    return addressState(this.#definition, this.state, this.values(), address);
  }

  locate(address = this.#first()): void {
    void this.#of(address).locate();
  }

  exchange(): void {
    const [from, to] = this.#addresses.keys();
    if (to === undefined) return;
    const [first, second] = [from, to].map((name) => ({
      text: this.#of(name).box?.text ?? "",
      answer: filledAddressOf(this.state, name)?.state === "chosen" ? this.#answers.get(name) : undefined,
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
    for (const end of this.ending) end();
  }

  /** Shows what cannot be looked up, at each address that it concerns. */
  lacks(words: ReadonlyMap<string, string>): void {
    for (const [address, text] of words) if (!this.#stop.signal.aborted) this.#of(address).say(text);
  }

  /** A register has confirmed an address; with an answer, that form of it takes the place of what is there. */
  registered(address: string, official?: FormAnswer): void {
    const filled = filledAddressOf(this.state, address);
    if (filled?.state !== "chosen") return;
    if (official) {
      this.#answers.set(address, official);
      const text = this.#of(address).box?.text;
      this.#write(
        this.#took(fill(this.#definition, this.state, official, address, { isConfirmed: filled.confirmed, text })),
      );
      this.#of(address).noteAsked(this.#questionOf(address));
    }
    this.state = confirmByRegister(this.state, address);
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
        fill: (answer, why, differences) => void this.#fill(answer, why, name, differences),
        cleared: () => this.#clear(name),
        useTyped: () => this.#useTyped(name),
        look: () => this.#look(name),
        back: () => this.#back(name),
        agree: () => this.#write(this.#took(agree(this.#definition, this.state, name))),
        restore: () => this.#restore(name),
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

  /** The address that a field is of; the first for one that the form does not have. */
  #addressOf(field: string): string {
    const found = this.#definition.fields.find(({ name }) => name === field);
    return found ? addressOf(found) : "";
  }

  #of(address: string): AddressLookups {
    return this.#addresses.get(address) ?? this.#addresses.get(this.#first())!;
  }

  #first(): string {
    return this.#addresses.keys().next().value!;
  }

  #countryOf(address: string): string | undefined {
    if (!ruleOf(this.#definition, address).countryFirst) return undefined;
    const field = this.#definition.fields.find(
      (existing) => existing.kind === "country" && addressOf(existing) === address,
    );
    return (field && controlOf(this.form, field.name)?.value) || undefined;
  }

  async #fill(
    found: FormAnswer,
    why: FilledBy,
    address: string,
    differences: readonly Difference[] = [],
  ): Promise<void> {
    const turn = this.#turn(address);
    // few forms want more than an answer has
    const facts = wantsFacts(this.#definition, address)
      ? await import("./more-facts.ts").catch(() => undefined)
      : undefined;
    const answer = (await facts?.withFacts(found, this.#definition, address, this.options.client)) ?? found;
    // the person, or another answer, came in between
    if (turn !== this.#turns.get(address)) return;
    this.#answers.set(address, answer);
    const isAsked = why === "asked";
    const { box } = this.#of(address);
    const how = { isAsked, isConfirmed: !differences.length, text: isAsked ? answer.line : (box?.text ?? answer.line) };
    const write = this.#took(fill(this.#definition, this.state, answer, address, how));
    this.#write(write);
    // where nothing else shows which place it is, the text of the search field does
    if (isAsked && statingFields(this.#definition, address).some(({ kind }) => kind === "search"))
      box?.setText(answer.line);
    this.#noteCountries();
    this.#traceFields(why, address, write, { line: lineFor(answer), place: answer.at });
    this.#of(address).noteAsked(this.#questionOf(address));
    this.options.filled?.(answer, why, address);
  }

  /** From now on, an answer to what stood in an address before comes too late. */
  #turn(address: string): number {
    const turn = (this.#turns.get(address) ?? 0) + 1;
    this.#turns.set(address, turn);
    return turn;
  }

  /** Takes over the state of a step. @returns what it writes */
  #took({ state, write }: Step): Filling[] {
    this.state = state;
    return write;
  }

  /** Takes a step after which an address may state another place, or its own again. */
  #restep(step: Step, field: string): void {
    const address = this.#addressOf(field);
    const before = filledAddressOf(this.state, address)?.state;
    this.#write(this.#took(step));
    const now = filledAddressOf(this.state, address)?.state;
    if (before === now) return;
    const answer = this.#answers.get(address);
    if (now === "changed") {
      this.#turn(address);
      const values = statedValues(this.#definition, this.state, this.values(), address);
      this.#of(address).changed(
        answer ? shortLine(answer) : say("the stored place"),
        questionOf(this.#definition, values, address) !== undefined,
      );
      this.options.cleared?.(address);
    } else if (now === "chosen") {
      this.#of(address).restated();
      if (answer) this.options.filled?.(answer, "chosen", address);
    }
  }

  /** Looks up what the fields of a changed address state. */
  #look(address: string): void {
    const values = statedValues(this.#definition, this.state, this.values(), address);
    const question = questionOf(this.#definition, values, address);
    if (question) void this.#of(address).ask(question);
  }

  /** The record is there again. */
  #back(address: string): void {
    const write = this.#took(goBack(this.#definition, this.state, address));
    this.#write(write);
    this.#of(address).restated();
    const answer = this.#answers.get(address);
    if (!answer) return;
    const search = this.#definition.fields.find((field) => field.kind === "search" && addressOf(field) === address);
    this.#of(address).box?.setText(write.find(({ field }) => field === search?.name)?.value ?? answer.line);
    this.#traceFields("chosen", address, write, { line: lineFor(answer), place: answer.at });
    this.options.filled?.(answer, "chosen", address);
  }

  /** What a lookup of an address is called with: what the person wrote. */
  #questionOf(address: string): Question | undefined {
    return questionOf(this.#definition, this.#written(), address);
  }

  #written(): Values {
    return [...this.#addresses.keys()].reduce(
      (values, name) => writtenValues(this.#definition, this.state, values, name),
      this.values(),
    );
  }

  /** The starting field was cleared: what it filled goes, but for the fields that start the lookup themselves. */
  #clear(address: string): void {
    this.#of(address).forget();
    this.#answers.delete(address);
    const start = startOf(this.#definition, address);
    const kept = start.on === "complete" ? start.fields : [];
    const names = fillableFields(this.#definition, address).flatMap(({ name }) => (kept.includes(name) ? [] : [name]));
    this.#turn(address);
    const write = this.#took(clearFilled(this.state, address, names));
    this.#write(write);
    if (write.length) this.#traceFields("cleared", address, write);
    this.options.cleared?.(address);
  }

  #useTyped(address: string): void {
    this.#asked.add(address);
    this.#turn(address);
    const fillings = this.#took(keepTyped(this.#definition, this.state, address));
    this.#write(fillings);
    this.#traceFields("typed", address, fillings);
    this.options.cleared?.(address);
  }

  /** A control changed: by the person, by the browser, or by the page. */
  #changed(event: Event): void {
    const control = event.target;
    if (this.#isFilling || !(control instanceof Element) || !("name" in control) || !control.name) return;
    const existing = controlOf(this.form, String(control.name));
    if (!existing) return;
    if ((this.options.isByPerson ?? isByPerson)(event)) {
      if (this.#decidesCountry(existing.name)) {
        if (event.type === "change") this.#countryChanged(existing.name);
        this.#arrange();
        return;
      }
      this.#correct(existing);
      if (event.type === "input" && existing.value === "") this.#emptied(existing.name);
      if (event.type === "change") this.#start({ did: "left", field: existing.name });
    }
    this.#arrange();
  }

  #correct(control: Control): void {
    const before = this.state.corrected.includes(control.name);
    const found = this.#definition.fields.find(({ name }) => name === control.name);
    // an answer that is under way is to what stood there before
    if (found && statingFields(this.#definition, addressOf(found)).includes(found)) {
      this.#of(addressOf(found)).drop();
      this.#turn(addressOf(found));
    }
    this.#restep(correct(this.#definition, this.state, control.name, this.values()), control.name);
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

  /** True for the field of a country that is chosen first: all others of the address are of that country. */
  #decidesCountry(field: string): boolean {
    const found = this.#definition.fields.find(({ name }) => name === field);
    return found?.kind === "country" && ruleOf(this.#definition, addressOf(found)).countryFirst === true;
  }

  #noteCountries(): void {
    for (const { kind, name } of this.#definition.fields)
      if (kind === "country") this.#countries.set(name, controlOf(this.form, name)?.value ?? "");
  }

  /** Another country: what stood there of the one before goes, what the person wrote too; it can be brought back. */
  #countryChanged(field: string): void {
    const value = this.#countries.get(field) ?? "";
    const chosen = controlOf(this.form, field)?.value ?? "";
    if (chosen === value) return;
    const address = this.#addressOf(field);
    const others = this.#definition.fields.flatMap((other) =>
      other.name !== field && addressOf(other) === address && (takesValues(other) || other.kind === "search")
        ? [other.name]
        : [],
    );
    const values = this.values();
    const stood = others.map((name) => ({ field: name, value: values[name] ?? "" }));
    const before = { state: this.state, answer: this.#answers.get(address), stood, country: { field, value } };
    this.#clear(address);
    for (const name of others) this.#put(name, "");
    this.state = forget(this.state, [...others, field]);
    if (chosen) {
      this.#put(field, chosen);
      this.state = { ...this.state, written: { ...this.state.written, [field]: chosen } };
    }
    this.#noteCountries();
    if (!stood.some((one) => one.value)) return;
    this.#emptiedBefore.set(address, before);
    this.#of(address).emptied();
  }

  /** Brings back what was taken out with a country, the country too. */
  #restore(address: string): void {
    const before = this.#emptiedBefore.get(address);
    if (!before) return;
    this.#emptiedBefore.delete(address);
    const { field, value } = before.country;
    const country = controlOf(this.form, field);
    if (country) this.#put(field, value);
    this.#noteCountries();
    this.#write(before.stood);
    this.state = before.state;
    this.#showAll();
    if (!before.answer) return;
    this.#answers.set(address, before.answer);
    if (filledAddressOf(this.state, address)?.state === "chosen")
      this.options.filled?.(before.answer, "chosen", address);
  }

  #start(happening: Happening): void {
    const question = questionFor(this.#definition, this.#written(), happening);
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

  /** What is found after it belongs to the form as it is then: all that is known is forgotten at once. */
  #wasReset({ defaultPrevented }: Event): void {
    if (defaultPrevented) return;
    this.state = EMPTY_STATE;
    this.#asked.clear();
    this.#answers.clear();
    this.#emptiedBefore.clear();
    for (const [name, lookups] of this.#addresses) {
      this.#turn(name);
      lookups.forget();
      lookups.box?.setText("");
      // browsers leave alone what nobody sees
      for (const { name: field, kind } of fillableFields(this.#definition, name))
        if (kind === "hidden" || kind === "shown") this.#put(field, "");
      this.options.cleared?.(name);
    }
    // the other values are put back after the event
    setTimeout(() => {
      this.#showAll();
      this.#noteCountries();
      this.#arrange();
    });
  }

  /** Shows, hides and locks fields by their rules; a button waits until there is something to ask. */
  #arrange(): void {
    const values = this.values();
    const written = this.#written();
    for (const field of this.#definition.fields) {
      const element = this.form.elements.namedItem(field.name);
      if (element instanceof HTMLButtonElement && isLookUp(field))
        element.disabled = !questionFor(this.#definition, written, { did: "pressed", field: field.name });
      // what is not known leaves no label behind
      if (field.kind === "shown" && !field.show && element instanceof HTMLElement)
        frameOf(element).hidden = !values[field.name];
      if (!field.show || !(element instanceof HTMLElement)) continue;
      const visibility = visibilityOf(field, values, { wasAsked: this.#asked.has(addressOf(field)) });
      frameOf(element).hidden = visibility === "hidden";
      if ("disabled" in element) element.disabled = visibility !== "shown";
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

  #showAll(): void {
    for (const { name } of this.#definition.fields) {
      const control = controlOf(this.form, name);
      if (control) this.#show(control);
    }
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
