import {
  type FormAnswer,
  type FormDefinition,
  isOfServices,
  officialAnswer,
  registersOf,
  type ServiceAnswers,
  type ServiceRule,
  serviceFillings,
  serviceInputs,
  serviceLine,
  type Values,
} from "@bibliotope/core/form";
import type { ServiceAnswer } from "@bibliotope/wire";
import { afterPress } from "../after-press.ts";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { make } from "../map/make.ts";
import type { TraceEvent } from "../trace.ts";
import { say } from "../words/say.ts";
import type { BindOptions } from "./binding.ts";
import { controlOf, frameOf, isByPerson, writeValue } from "./controls.ts";

/** What of the form a rule may use. */
export interface ServicesTarget {
  client: Client;
  definition: FormDefinition;
  trace?: BindOptions["trace"];
  isByPerson?: BindOptions["isByPerson"];
  drawn?: BindOptions["drawn"];
  values(): Values;
  /** A register has confirmed the address; with an answer, that form of it takes the place of what is there. */
  registered(address: string, official?: FormAnswer): void;
}

/** Milliseconds after which it is said that a service is called. */
const SAY_AFTER = 400;

/** The outside services that a form asks: when its rules say so, with what is in it then; their values fall with the address. */
export class FormServices {
  readonly #rules: Rule[];
  readonly #found = new Map<string, FormAnswer>();
  readonly #answers: Record<string, ServiceAnswers[string]> = {};
  readonly #stop = new AbortController();

  constructor(
    private readonly form: HTMLFormElement,
    private readonly target: ServicesTarget,
  ) {
    const { services = [] } = target.definition;
    this.#rules = services.map((rule) => new Rule(rule, this.#placeFor(rule)));
    const { signal } = this.#stop;
    form.addEventListener("change", (event) => this.#changed(event), { signal });
    form.addEventListener("click", (event) => this.#pressed(event), { signal });
    form.addEventListener("reset", () => this.#forget(() => true), { signal });
  }

  /** An address was found. */
  filled(answer: FormAnswer, address: string): void {
    this.#forget((rule) => (rule.address ?? "") === address);
    this.#found.set(address, answer);
    this.#start((rule) => rule.when.on === "chosen" && (rule.address ?? "") === address);
    this.#complete();
  }

  /** What stood in an address is not known any more. */
  cleared(address: string): void {
    this.#found.delete(address);
    this.#forget((rule) => (rule.address ?? "") === address);
    this.#complete();
  }

  destroy(): void {
    this.#stop.abort();
    for (const rule of this.#rules) {
      rule.drop();
      rule.place.remove();
    }
  }

  /** Where a rule shows its outcome: behind the last field that it fills, else behind what starts it, else at the end. */
  #placeFor(rule: ServiceRule): HTMLElement {
    const place = make("div", "bt-service");
    place.dataset.service = rule.ask;
    const { fields } = this.target.definition;
    const filled = fields.filter((field) => isOfServices(field) && field.binding?.includes(`{${rule.ask}.`));
    const starting =
      "field" in rule.when ? rule.when.field : "fields" in rule.when ? rule.when.fields.at(-1) : undefined;
    const ofAddress = fields.filter(
      ({ address = "", kind, binding }) => address === (rule.address ?? "") && kind !== "hidden" && binding,
    );
    const behind = [
      ...filled
        .filter(({ kind }) => kind !== "hidden")
        .map(({ name }) => name)
        .reverse(),
      starting,
      ofAddress.at(-1)?.name,
    ];
    const element = behind
      .map((name) => name && this.form.elements.namedItem(name))
      .find((one) => one instanceof Element);
    if (element instanceof Element) frameOf(element).after(place);
    else this.form.append(place);
    return place;
  }

  #changed(event: Event): void {
    const { target } = event;
    if (!(target instanceof Element) || !("name" in target)) return;
    if (!(this.target.isByPerson ?? isByPerson)(event)) return;
    this.#start(({ when }) => when.on === "leaving" && when.field === target.name);
    this.#complete();
  }

  #pressed({ target }: Event): void {
    const button = target instanceof Element ? target.closest("button") : null;
    if (button?.name) this.#start(({ when }) => when.on === "button" && when.field === button.name, true);
  }

  /** Asks what waits for fields that are complete now, and were not asked with just these. */
  #complete(): void {
    const values = this.target.values();
    for (const rule of this.#rules) {
      const { when } = rule.rule;
      if (when.on !== "complete") continue;
      const isComplete = when.fields.every((field) => values[field]?.trim());
      if (isComplete && !this.#isBehind(rule)) void this.#ask(rule, false);
      else if (isComplete) continue;
      else this.#takeOut(rule);
    }
  }

  /** @param again whether the same may be sent once more */
  #start(isMeant: (rule: ServiceRule) => boolean, again = false): void {
    for (const rule of this.#rules) if (isMeant(rule.rule) && !this.#isBehind(rule)) void this.#ask(rule, again);
  }

  /** Registers of one address that start alike, in their order: each is called where those before do not cover the address. */
  #chainOf({ rule }: Rule): readonly Rule[] {
    if (!rule.register) return [];
    const start = JSON.stringify(rule.when);
    const registers = registersOf(this.target.definition, rule.address);
    return this.#rules.filter((one) => registers.includes(one.rule) && JSON.stringify(one.rule.when) === start);
  }

  #isBehind = (rule: Rule) => this.#chainOf(rule).indexOf(rule) > 0;

  #after(rule: Rule): readonly Rule[] {
    const chain = this.#chainOf(rule);
    return chain.slice(chain.indexOf(rule) + 1);
  }

  async #ask(rule: Rule, again: boolean): Promise<void> {
    const { ask, address = "", when } = rule.rule;
    const inputs = serviceInputs(rule.rule, this.target.values(), this.#found.get(address), this.#answers);
    const question = JSON.stringify(inputs);
    // a service that is called with nothing has nothing to say
    if (!Object.keys(inputs).length && Object.keys(rule.rule.with).length) return this.#takeOut(rule);
    if (!again && when.on !== "chosen" && question === rule.lastInputs) return;
    // what a later one said was of what was asked before
    for (const later of this.#after(rule)) this.#takeOut(later);
    const signal = rule.begin(question, this.#called(rule));
    try {
      const answer = await this.target.client.ask(ask, inputs, signal);
      if (!signal.aborted) this.#take(rule, answer);
    } catch (error) {
      if (signal.aborted) return;
      this.#takeOut(rule);
      const words = error instanceof LookupError && error.trouble === "limit" ? "busy" : "down";
      rule.say(endWords(words, this.#called(rule)));
    }
  }

  #called = ({ rule }: Rule) => rule.called ?? rule.ask;

  /** No request is made of a service any more, and nothing of it is left: the same may be called anew. */
  #takeOut(rule: Rule): void {
    rule.drop();
    this.#take(rule, undefined);
  }

  /** Takes over what a service has answered; nothing takes its values out. */
  #take(rule: Rule, answer: ServiceAnswer | undefined): void {
    const { ask } = rule.rule;
    rule.end();
    const had = Object.hasOwn(this.#answers, ask);
    if (!answer && !had) return;
    if (answer?.outcome === "answered") {
      const { standing, values } = answer;
      this.#answers[ask] = { ...values, ...(standing && { standing, asked: new Date().toISOString() }) };
    } else delete this.#answers[ask];
    this.#write(ask);
    if (!answer) return;
    if (answer.outcome === "answered") {
      if (rule.rule.register) this.#registered(rule, answer);
      this.#start(({ when }) => when.on === "answered" && when.service === ask);
    } else if (answer.outcome !== "outside") rule.say(endWords(answer.outcome, this.#called(rule)));
    else for (const next of this.#after(rule).slice(0, 1)) void this.#ask(next, true);
  }

  #registered(rule: Rule, { standing, values }: ServiceAnswer): void {
    const { address = "", register } = rule.rule;
    const called = this.#called(rule);
    const found = this.#found.get(address);
    if (standing === "known") {
      this.target.registered(address);
      rule.say(say("{service} knows this address.", { service: capital(called) }));
    } else if (standing === "otherwise" && found) {
      const { answer, parts } = officialAnswer(found, values);
      const take = () => {
        this.#found.set(address, answer);
        this.target.registered(address, answer);
        rule.say(say("Spelled as in {service}.", { service: called }));
      };
      if (register === "take") take();
      else if (register === "note") {
        this.target.registered(address);
        rule.say(say("In {service} it is {line}.", { service: called, line: answer.line }));
      } else {
        const keep = () => {
          this.target.registered(address);
          rule.say("");
        };
        rule.compare({
          words: say("{service} spells this address differently.", { service: capital(called) }),
          mine: [
            say("as typed"),
            lineOf(
              found.line,
              parts.flatMap((part) => found.parts[part]?.name ?? []),
            ),
          ],
          own: [
            say("in {service}", { service: called }),
            lineOf(
              answer.line,
              parts.flatMap((part) => answer.parts[part]?.name ?? []),
            ),
          ],
          take,
          keep,
        });
      }
    } else if (standing === "unknown")
      rule.say(say("{service} does not know this address. You can continue with it.", { service: capital(called) }));
  }

  /** Writes what a service's values make of the fields that name them. */
  #write(service: string): void {
    const fillings = serviceFillings(this.target.definition, service, this.#answers);
    for (const { field, value, options } of fillings) {
      const control = controlOf(this.form, field);
      if (!control) continue;
      if (options && control instanceof HTMLSelectElement) offer(control, options);
      else if (control.value !== value) writeValue(control, value);
    }
    const event: TraceEvent = {
      row: "fields",
      at: performance.now(),
      why: "service",
      fillings: fillings.map((one) => ({ ...one, by: service })),
    };
    if (fillings.length) this.target.trace?.(event);
    this.target.drawn?.(this.#rules.flatMap(({ rule }) => serviceLine(rule, this.#answers) ?? []));
    // what is not known leaves no label behind
    for (const { field, value } of fillings) {
      const element = this.form.elements.namedItem(field);
      if (element instanceof HTMLOutputElement) frameOf(element).hidden = !value;
    }
  }

  #forget(isMeant: (rule: ServiceRule) => boolean): void {
    for (const rule of this.#rules) if (isMeant(rule.rule)) this.#takeOut(rule);
  }
}

/** One rule: its request under way, and where its outcome is shown. */
class Rule {
  lastInputs = "";
  readonly #words = make("p", "bt-said");
  #underWay: AbortController | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    readonly rule: ServiceRule,
    readonly place: HTMLElement,
  ) {
    this.#words.setAttribute("role", "status");
    place.append(this.#words);
  }

  /** Something newer is requested. */
  begin(question: string, called: string): AbortSignal {
    this.drop();
    this.lastInputs = question;
    this.#underWay = new AbortController();
    this.#timer = setTimeout(() => this.say(say("Checking with {service} …", { service: called })), SAY_AFTER);
    return this.#underWay.signal;
  }

  /** It has ended, however that was. */
  end(): void {
    clearTimeout(this.#timer);
    this.say("");
  }

  drop(): void {
    this.#underWay?.abort();
    this.lastInputs = "";
    clearTimeout(this.#timer);
    this.say("");
  }

  /** Shows a message, once no pointer is down on what it would move. */
  say(words: string): void {
    this.#put(words);
  }

  #put(words: string, ...more: Node[]): void {
    afterPress(() => {
      this.#words.textContent = words;
      this.place.replaceChildren(this.#words, ...more);
    });
  }

  /** Shows what was written beside what a register has, and lets the person choose. */
  compare(both: {
    words: string;
    mine: [string, HTMLElement];
    own: [string, HTMLElement];
    take: () => void;
    keep: () => void;
  }): void {
    const forms = make("dl", "bt-forms");
    for (const [title, line] of [both.mine, both.own]) {
      const one = make("div");
      const value = make("dd");
      value.append(line);
      one.append(make("dt", "", title), value);
      forms.append(one);
    }
    const take = make("button", "bt-take", say("Use the register's"));
    const keep = make("button", "bt-keep", say("Keep mine"));
    for (const [button, pressed] of [
      [take, both.take],
      [keep, both.keep],
    ] as const) {
      button.type = "button";
      button.addEventListener("click", pressed);
    }
    this.#put(both.words, forms, take, keep);
  }
}

/** What a person reads when a service did not answer; never more than they can use. */
function endWords(outcome: Exclude<ServiceAnswer["outcome"], "answered" | "outside"> | "busy", called: string): string {
  const service = capital(called);
  switch (outcome) {
    case "none":
      return say("{service} has nothing for this. You can continue without it.", { service });
    case "slow":
      return say("{service} did not respond in time. You can continue without it.", { service });
    case "busy":
      return say("{service} has too many requests right now. You can continue without it.", { service });
    default:
      return say("{service} is not responding at the moment. You can continue without it.", { service });
  }
}

const capital = (text: string) => text.charAt(0).toLocaleUpperCase() + text.slice(1);

/** A line in which some words are marked. */
function lineOf(line: string, marked: readonly string[]): HTMLElement {
  const element = make("span", "bt-line");
  let rest = line;
  for (const word of marked) {
    const at = word ? rest.indexOf(word) : -1;
    if (at < 0) continue;
    element.append(rest.slice(0, at), make("mark", "", word));
    rest = rest.slice(at + word.length);
  }
  element.append(rest);
  return element;
}

/** Puts a list into a choice; what was chosen stays so while it is in it. */
function offer(select: HTMLSelectElement, options: readonly string[]): void {
  const before = select.value;
  const choices = options.length ? ["", ...options] : [""];
  select.replaceChildren(
    ...choices.map((value) => {
      const option = make("option", "", value || say("Choose"));
      option.value = value;
      return option;
    }),
  );
  const value = choices.includes(before) ? before : "";
  select.value = value;
  if (value !== before) writeValue(select, value);
}
