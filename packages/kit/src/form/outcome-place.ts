import { differingParts, type FormAnswer, lineFor } from "@bibliotope/core/form";
import type { Difference } from "@bibliotope/core/place";
import { afterPress } from "../after-press.ts";
import type { FormPart } from "../form-parts.ts";
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
  /** The person asks for what they wrote over a record. */
  look(): void;
  /** The record is to stand there again. */
  back(): void;
  /** What was put right is right. */
  agree(): void;
  /** What was taken out is to come back. */
  restore(): void;
}

/** Where a form shows the outcome of a lookup, and lets the person choose: below the field that started it. */
export class OutcomePlace {
  readonly element = make("div", "bt-outcome");
  readonly #words = make("p", "bt-said");
  readonly #list = make("ul", "bt-choices");
  readonly #typed = make("button", "bt-typed", say("Use what I typed"));
  readonly #none = make("button", "bt-none", say("Another address"));
  readonly #lookUp = make("button", "bt-again", say("Look this up"));
  readonly #back = make("button", "bt-back");
  readonly #agree = make("button", "bt-agree", say("Keep as typed"));
  readonly #restore = make("button", "bt-restore", say("Undo"));

  readonly #buttons: ReadonlyMap<HTMLButtonElement, () => void>;

  /** @param address name of the address that it is of */
  constructor(
    address: string,
    private readonly ways: OutcomeWays,
  ) {
    this.element.dataset.address = address;
    this.#typed.dataset.bibliotope = "typed" satisfies FormPart;
    this.#words.setAttribute("role", "status");
    this.#buttons = new Map([
      [this.#typed, () => ways.useTyped()],
      [this.#none, () => ways.dismiss()],
      [this.#lookUp, () => ways.look()],
      [this.#back, () => ways.back()],
      [this.#agree, () => ways.agree()],
      [this.#restore, () => ways.restore()],
    ]);
    for (const [button, pressed] of this.#buttons) {
      button.type = "button";
      button.addEventListener("click", pressed);
    }
    this.#list.addEventListener("keydown", (event) => this.#move(event));
    this.element.append(this.#words, this.#list, ...this.#buttons.keys());
    this.clear();
  }

  clear(): void {
    this.#put("", []);
  }

  /** Shows a message. @param offersTyped whether the person may go on with what they typed */
  say(words: string, offersTyped = false): void {
    this.#put(words, offersTyped ? [this.#typed] : []);
  }

  /** Shows a message with its buttons and candidates, once no pointer is down on what it would move. */
  #put(words: string, offered: readonly HTMLButtonElement[], candidates: readonly FormAnswer[] = []): void {
    afterPress(() => {
      this.#words.textContent = words;
      for (const button of this.#buttons.keys()) button.hidden = !offered.includes(button);
      this.#show(candidates);
      // words that nobody sees help nobody: a button at the foot of a window would say what came of it below the fold
      if (words) this.element.scrollIntoView?.({ block: "nearest" });
    });
  }

  /** Lets the person choose; what sets the candidates apart is marked. */
  offer(candidates: readonly FormAnswer[]): void {
    const words = say("{n} address matches. Is it this one?|{n} addresses match. Which one is it?", {
      n: candidates.length,
    });
    this.#put(words, [this.#typed], candidates);
  }

  /** Asks whether the address is the right one, before it fills anything. */
  confirm(found: FormAnswer, words: string): void {
    this.#put(words, [this.#none], [found]);
  }

  /** Asks whether a record is meant in which something that was written is not so. */
  differ(found: FormAnswer, differences: readonly Difference[]): void {
    this.#put([...differences.map(differenceWords), say("Is it this address?")].join(" "), [this.#typed], [found]);
  }

  /** Notes what a lookup has put right. */
  note(differences: readonly Difference[]): void {
    const right = differences.map(({ written, held: known = "" }) =>
      say("“{written}” was corrected: {held}.", { written, held: known }),
    );
    this.#put(right.join(" "), [this.#agree]);
  }

  /** The fields state another place than the record that filled them. @param place what stood there */
  changed(place: string, isAsked: boolean): void {
    this.#back.textContent = say("Back to {place}", { place });
    this.#put(say("This is no longer {place}.", { place }), isAsked ? [this.#lookUp, this.#back] : [this.#back]);
  }

  /** What belonged to another country was taken out. */
  emptied(): void {
    this.#put(say("The country changed, so this field was cleared."), [this.#restore]);
  }

  #show(candidates: readonly FormAnswer[]): void {
    const differing = differingParts(candidates);
    this.#list.hidden = !candidates.length;
    this.#list.replaceChildren(
      ...candidates.map((candidate, place) => {
        const item = make("li");
        const button = make("button", "bt-choice");
        button.type = "button";
        button.dataset.bibliotope = "match" satisfies FormPart;
        const apart = differing.flatMap((part) => candidate.parts[part]?.name ?? []);
        button.append(make("span", "bt-number", String(place + 1)), lineWith(candidate, apart));
        button.addEventListener("click", () => this.ways.choose(place));
        item.append(button);
        return item;
      }),
    );
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

/** What was written and is not so, in a sentence for whoever wrote it. */
const differenceWords = ({ written, held: known }: Difference) =>
  known === undefined
    ? say("“{written}” is not known here.", { written })
    : say("“{written}” is not known here, but “{held}” is.", { written, held: known });

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
