import { differingParts, type FormAnswer, lineFor } from "@bibliotope/core/form";
import { make } from "../map/make.ts";
import { say } from "../words/say.ts";

/** What can be done where words stand. */
export interface OutcomeWays {
  /** The person chose one of several. */
  choose(place: number): void;
  /** The person wants what they typed. */
  useTyped(): void;
  /** None of what is offered. */
  dismiss(): void;
}

/** Where a form says what came of a lookup, and lets the person choose: below the field that started it. */
export class OutcomePlace {
  readonly element = make("div", "bt-outcome");
  readonly #words = make("p", "bt-said");
  readonly #list = make("ul", "bt-choices");
  readonly #typed = make("button", "bt-typed", say("Use what I typed"));
  readonly #none = make("button", "bt-none", say("Another address"));

  /** @param address name of the address that it is of */
  constructor(
    address: string,
    private readonly ways: OutcomeWays,
  ) {
    this.element.dataset.address = address;
    this.#words.setAttribute("role", "status");
    this.#typed.type = "button";
    this.#typed.addEventListener("click", () => ways.useTyped());
    this.#none.type = "button";
    this.#none.addEventListener("click", () => ways.dismiss());
    this.#list.addEventListener("keydown", (event) => this.#move(event));
    this.element.append(this.#words, this.#list, this.#typed, this.#none);
    this.clear();
  }

  clear(): void {
    this.#words.textContent = "";
    this.#list.replaceChildren();
    this.#list.hidden = true;
    this.#typed.hidden = true;
    this.#none.hidden = true;
  }

  /** Says something. @param offersTyped whether the person may go on with what they typed */
  say(words: string, offersTyped = false): void {
    this.clear();
    this.#words.textContent = words;
    this.#typed.hidden = !offersTyped;
    this.#reveal();
  }

  /** Lets the person choose; what sets the candidates apart is marked. */
  offer(candidates: readonly FormAnswer[]): void {
    this.say(
      say("{n} address fits. Which one is it?|{n} addresses fit. Which one is it?", { n: candidates.length }),
      true,
    );
    this.#show(candidates);
  }

  /** Asks whether the address is the right one, before it fills anything. */
  confirm(found: FormAnswer, words: string): void {
    this.say(words);
    this.#show([found]);
    this.#none.hidden = false;
  }

  #show(candidates: readonly FormAnswer[]): void {
    const differing = differingParts(candidates);
    this.#list.hidden = false;
    this.#list.replaceChildren(
      ...candidates.map((candidate, place) => {
        const item = make("li");
        const button = make("button", "bt-choice");
        button.type = "button";
        const apart = differing.flatMap((part) => candidate.parts[part]?.name ?? []);
        button.append(make("span", "bt-number", String(place + 1)), lineWith(candidate, apart));
        button.addEventListener("click", () => this.ways.choose(place));
        item.append(button);
        return item;
      }),
    );
    this.#reveal();
  }

  /** Words that nobody sees help nobody: a button at the foot of a window would say what came of it below the fold. */
  #reveal(): void {
    this.element.scrollIntoView?.({ block: "nearest" });
  }

  #move(event: KeyboardEvent): void {
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (!by) return;
    const buttons = [...this.#list.querySelectorAll("button")];
    const now = buttons.indexOf(event.target as HTMLButtonElement);
    buttons.at((now + by) % buttons.length)?.focus();
    event.preventDefault();
  }
}

/** A candidate's line, the words in it that others do not have marked. */
function lineWith(candidate: FormAnswer, apart: readonly string[]): HTMLElement {
  const line = make("span", "bt-line");
  let rest = lineFor(candidate);
  while (rest) {
    const found = apart
      .map((word) => ({ word, at: rest.indexOf(word) }))
      .filter(({ at }) => at >= 0)
      .sort((a, b) => a.at - b.at || b.word.length - a.word.length)[0];
    if (!found) break;
    line.append(rest.slice(0, found.at), make("mark", "", found.word));
    rest = rest.slice(found.at + found.word.length);
  }
  line.append(rest);
  return line;
}
