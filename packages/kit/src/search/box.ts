import type { Suggestion } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { markPart } from "../form-parts.ts";
import { adopt } from "../style.ts";
import type { Tracer } from "../trace.ts";
import { say } from "../words/say.ts";
import { isWrittenFromRight, ListKeys } from "./list-keys.ts";
import { SearchMachine, type SearchState } from "./machine.ts";
import { pressLine } from "./press.ts";
import { SEARCH_STYLE } from "./style.ts";

export interface SearchBoxOptions {
  client: Client;
  /** A line was chosen, after so many typed characters; the box shows it already. */
  chosen: (suggestion: Suggestion, typed: number) => void;
  /** The box was emptied. */
  cleared?: () => void;
  /** Only helps with the typing: shows no message where nothing is found, and leaves the browser's autofill alone. */
  isAside?: boolean;
  /** Narrowing for every question, such as `{ countries: "QR" }`. */
  narrow?: () => Record<string, string | undefined>;
  trace?: Tracer;
}

/** Attributes of the input that the box sets. */
const ATTRIBUTES = [
  "autocomplete",
  "role",
  "spellcheck",
  "aria-activedescendant",
  "aria-autocomplete",
  "aria-busy",
  "aria-controls",
  "aria-describedby",
  "aria-expanded",
];

let boxes = 0;

/**
 * Makes a plain text input a search box after the ARIA combobox pattern (list autocomplete): the list is under the
 * input, the focus stays in it, and a live region announces how many lines there are.
 */
export class SearchBox {
  readonly #machine: SearchMachine;
  readonly #list = document.createElement("ul");
  readonly #words = document.createElement("p");
  readonly #status = document.createElement("p");
  readonly #frame = document.createElement("div");
  readonly #stop = new AbortController();
  readonly #keys: ListKeys;
  /** Attributes of the input as the page had them. */
  readonly #before = new Map<string, string | null>();
  #listed: readonly Suggestion[] = [];

  constructor(
    private readonly input: HTMLInputElement,
    private readonly options: SearchBoxOptions,
  ) {
    this.#machine = new SearchMachine({
      ask: (text, signal, inside) => options.client.suggest(text, { ...options.narrow?.(), inside }, signal),
      change: (state) => this.#show(state),
    });
    this.#keys = new ListKeys(this.#machine, {
      choose: (index) => this.#choose(index),
      enter: (index) => this.#enter(index),
    });
    this.#build();
    this.#listen();
  }

  /** What is in it. */
  get text(): string {
    return this.input.value;
  }

  /** Shows a text without requesting it. */
  setText(text: string): void {
    this.input.value = text;
    this.#machine.set(text);
  }

  /** Shows a message under the box; empty words remove it. */
  say(words: string): void {
    this.#words.textContent = words;
    this.#words.hidden = words === "";
  }

  destroy(): void {
    this.#machine.close();
    this.#stop.abort();
    this.#frame.replaceWith(this.input);
    for (const [name, value] of this.#before)
      if (value === null) this.input.removeAttribute(name);
      else this.input.setAttribute(name, value);
  }

  #build(): void {
    const { input } = this;
    const id = `bt-box-${++boxes}`;
    adopt(input.getRootNode() as Document | ShadowRoot, SEARCH_STYLE);
    this.#frame.className = "bt-search";
    markPart(this.#frame, "search");
    input.replaceWith(this.#frame);
    this.#list.id = `${id}-list`;
    this.#list.className = "bt-list";
    markPart(this.#list, "suggestions");
    this.#list.part.add("list");
    this.#list.hidden = true;
    this.#list.setAttribute("role", "listbox");
    this.#list.setAttribute("aria-label", say("Suggestions"));
    this.#words.id = `${id}-words`;
    this.#words.className = "bt-words";
    this.#words.part.add("words");
    this.#words.hidden = true;
    this.#status.className = "bt-unseen";
    this.#status.setAttribute("role", "status");
    this.#frame.append(input, this.#list, this.#words, this.#status);
    for (const name of ATTRIBUTES) this.#before.set(name, input.getAttribute(name));
    if (!this.options.isAside) input.autocomplete = "off";
    input.setAttribute("role", "combobox");
    input.setAttribute("aria-autocomplete", "list");
    input.setAttribute("aria-expanded", "false");
    input.setAttribute("aria-controls", this.#list.id);
    const described = this.#before.get("aria-describedby");
    input.setAttribute("aria-describedby", described ? `${described} ${this.#words.id}` : this.#words.id);
    input.setAttribute("spellcheck", "false");
  }

  #listen(): void {
    const { input } = this;
    const { signal } = this.#stop;
    input.addEventListener("compositionstart", () => this.#machine.compose(true, input.value), { signal });
    input.addEventListener("compositionend", () => this.#machine.compose(false, input.value), { signal });
    input.addEventListener("input", (event) => this.#typed(event as InputEvent), { signal });
    input.addEventListener("keydown", (event) => this.#pressed(event), { signal });
    input.addEventListener("blur", () => this.#machine.close(), { signal });
    // pressing a line must not take the focus from the input
    this.#list.addEventListener("pointerdown", (event) => pressLine(this.#machine, event), { signal });
    this.#list.addEventListener("pointermove", (event) => this.#machine.point(lineOf(event)), { signal });
    this.#list.addEventListener("click", (event) => this.#clicked(event), { signal });
  }

  #typed(event: InputEvent): void {
    const { input, options } = this;
    if (!event.isTrusted && event.inputType === undefined) return;
    options.trace?.({
      row: "keys",
      at: performance.now(),
      text: input.value,
      key: event.data ?? (event.inputType?.startsWith("delete") ? "⌫" : "·"),
      field: input.name,
    });
    this.say("");
    this.#keys.typed();
    this.#machine.input(input.value);
    if (input.value === "") options.cleared?.();
  }

  #pressed(event: KeyboardEvent): void {
    const { key, altKey, isComposing } = event;
    const isRightToLeft = isWrittenFromRight(this.input);
    if (this.#keys.pressed({ key, altKey, isComposing, isAtEnd: this.#isAtEnd(), isRightToLeft }))
      event.preventDefault();
  }

  #clicked(event: Event): void {
    const line = lineOf(event);
    if ((event.target as Element).closest(".bt-more")) this.#enter(line);
    else this.#choose(line);
  }

  #isAtEnd(): boolean {
    const { selectionStart, selectionEnd, value } = this.input;
    return selectionStart === value.length && selectionEnd === value.length;
  }

  /** Goes on to the numbers of a street, or the units of a building; the next characters decide which. */
  #enter(index: number): boolean {
    if (!this.#machine.enter(index)) return false;
    this.input.value = this.#machine.state.text;
    this.input.setSelectionRange(0, 0);
    const field = this.input.name;
    this.options.trace?.({ row: "keys", at: performance.now(), text: this.input.value, key: "→", field });
    return true;
  }

  #choose(index: number): void {
    const choice = this.#machine.choose(index);
    if (!choice) return;
    const { line } = choice.suggestion;
    this.input.value = line;
    const field = this.input.name;
    this.options.trace?.({ row: "keys", at: performance.now(), text: line, key: "↵", field });
    this.options.chosen(choice.suggestion, choice.typed);
  }

  #show(state: SearchState): void {
    const { input } = this;
    // the help has nothing to add to a complete text
    if (state.status === "open" && this.options.isAside && state.suggestions.every(({ sure }) => sure)) {
      this.#machine.close();
      return;
    }
    const open = state.status === "open";
    input.setAttribute("aria-busy", String(state.status === "loading"));
    this.#frame.dataset.state = state.status;
    if (state.words !== undefined && !this.options.isAside) this.say(state.words);
    if (open && state.suggestions !== this.#listed) this.#fillList(state);
    // while the next answer is under way the list before stays, so that nothing flickers
    if (!open && state.status !== "loading") {
      this.#list.hidden = true;
      this.#listed = [];
      if (state.status === "idle") this.#status.textContent = "";
    }
    if (state.status === "empty" && !this.options.isAside) this.#status.textContent = say("No suggestions.");
    input.setAttribute("aria-expanded", String(!this.#list.hidden));
    this.#mark(open ? state.active : -1);
    this.#keys.shown(state);
  }

  #fillList({ suggestions, text }: SearchState): void {
    this.#listed = suggestions;
    this.#list.replaceChildren(
      ...suggestions.map((suggestion, i) => optionFor(suggestion, `${this.#list.id}-${i}`, this.options.isAside)),
    );
    this.#list.hidden = false;
    this.say("");
    this.#status.textContent = say("{n} suggestion.|{n} suggestions.", { n: suggestions.length });
    this.options.trace?.({ row: "list", at: performance.now(), count: suggestions.length, text });
  }

  #mark(active: number): void {
    [...this.#list.children].forEach((option, i) => {
      option.setAttribute("aria-selected", String(i === active));
      if (i === active) option.scrollIntoView({ block: "nearest" });
    });
    if (active >= 0) this.input.setAttribute("aria-activedescendant", `${this.#list.id}-${active}`);
    else this.input.removeAttribute("aria-activedescendant");
  }
}

function lineOf(event: Event): number {
  const option = (event.target as Element).closest("[role=option]");
  return option ? [...option.parentElement!.children].indexOf(option) : -1;
}

function optionFor(
  { line, within, marks, kind, more, sure }: Suggestion,
  id: string,
  isOfOneKind = false,
): HTMLLIElement {
  const option = document.createElement("li");
  option.id = id;
  option.setAttribute("role", "option");
  option.setAttribute("aria-selected", "false");
  option.part.add("option");
  option.toggleAttribute("data-sure", sure === true);
  const text = document.createElement("span");
  text.className = "bt-line";
  markPart(text, "line");
  text.append(...marked(line, marks));
  const beside = document.createElement("span");
  beside.className = "bt-beside";
  const name = kind === "address" || isOfOneKind ? "" : say(kind);
  const around = document.createElement("bdi");
  around.textContent = within;
  beside.append(name && within ? `${name} · ` : name, around);
  option.append(text, beside);
  if (more > 0) {
    const inside = document.createElement("span");
    inside.className = "bt-more";
    inside.textContent = `${more} ›`;
    inside.title = say("House numbers: right arrow");
    option.append(inside);
  }
  return option;
}

/** A line with the matched characters marked. Text is only ever text. */
function marked(line: string, marks: readonly (readonly [number, number])[]): Node[] {
  const nodes: Node[] = [];
  let at = 0;
  for (const [start, end] of marks) {
    nodes.push(document.createTextNode(line.slice(at, start)));
    const mark = document.createElement("mark");
    mark.textContent = line.slice(start, end);
    nodes.push(mark);
    at = end;
  }
  nodes.push(document.createTextNode(line.slice(at)));
  return nodes;
}
