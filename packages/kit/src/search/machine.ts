import type { SuggestAnswer, Suggestion } from "@bibliotope/wire";
import { LookupError } from "../client/errors.ts";
import { say } from "../words/say.ts";

/** What a search box shows. */
export interface SearchState {
  /** `waiting`: something is typed, and the client is not there yet. `offline`: it cannot be reached. */
  status: "waiting" | "idle" | "loading" | "open" | "empty" | "error" | "offline";
  text: string;
  suggestions: readonly Suggestion[];
  /** The line under the hand, or -1. */
  active: number;
  /** More was typed: the list belongs to the text before, and the next one is on its way. */
  isBehind?: boolean;
  /** Words for the person, when there is nothing to choose from. */
  words?: string;
  /** The street or building whose numbers or units are looked at. */
  inside?: Suggestion;
}

/** A line that was taken. */
export interface Choice {
  suggestion: Suggestion;
  /** Characters that were typed before. */
  typed: number;
}

/** Asks for lines. @param inside ref of a street or building, where only what lies in it is wanted */
export type Ask = (text: string, signal: AbortSignal, inside?: string) => Promise<SuggestAnswer>;

export interface SearchOptions {
  /** The request; can be given later, by {@link SearchMachine.answerBy}. */
  ask?: Ask;
  change: (state: SearchState) => void;
  /** Characters before the first request; 1 when not given. */
  least?: number;
}

const SHORTEST_WAIT = 15;
const LONGEST_WAIT = 250;
/** Milliseconds that a request is left alone while the user types; longer as long as there is no list yet. */
const PATIENCE = 280;
const FIRST_PATIENCE = 450;
/** Milliseconds from an answer to the next request, while the user types. */
const GAP = 70;

/**
 * A search box without a box: no DOM, no framework. Waits for a pause that fits how long answers take; while an answer
 * is under way, typed characters wait for it, so that answers slower than the typing come to be seen at all and a
 * third of the characters make a request at most. Answers to what no longer is there are dropped, and no request is made in the
 * middle of a composed character.
 */
export class SearchMachine {
  state: SearchState = { status: "idle", text: "", suggestions: [], active: -1 };
  #underWay: { controller: AbortController; text: string; began: number } | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #composing = false;
  /** How long answers took lately, in milliseconds. */
  #usual = SHORTEST_WAIT;
  #ask: Ask | undefined;
  /** Set while a line is being pressed; resolved when it is not any more. */
  #pause: Promise<void> | undefined;
  #letGo: (() => void) | undefined;
  /** Characters typed since the text last meant something else. */
  #typed = 0;

  constructor(private readonly options: SearchOptions) {
    this.#ask = options.ask;
  }

  /** From now on requests can be made; what was typed meanwhile is requested. */
  answerBy(ask: Ask): void {
    this.#ask = ask;
    if (this.state.status === "waiting") this.input(this.state.text);
  }

  /** The person typed. */
  input(text: string): void {
    clearTimeout(this.#timer);
    this.#typed += text !== this.state.text ? 1 : 0;
    if (this.state.inside && !text.includes(this.state.inside.line)) this.#set({ inside: undefined });
    if (this.#composing) {
      this.#cancel();
      this.#set({ text });
      return;
    }
    if (text.trim().length < (this.options.least ?? 1)) {
      this.#cancel();
      this.#set({ status: "idle", text, suggestions: [], active: -1, words: undefined });
      if (text === "") this.#typed = 0;
      return;
    }
    if (!this.#ask) {
      this.#set({ status: "waiting", text });
      return;
    }
    if (this.#underWay && !text.startsWith(this.#underWay.text)) this.#cancel();
    this.#set({ status: "loading", text });
    const wait = Math.min(LONGEST_WAIT, Math.max(SHORTEST_WAIT, this.#usual));
    if (!this.#underWay) this.#askIn(wait);
    else {
      const patience = this.state.suggestions.length ? PATIENCE : FIRST_PATIENCE;
      this.#askIn(Math.max(0, this.#underWay.began + patience - performance.now()));
    }
  }

  /** A character is being composed (IME); what is there is not yet what is meant. */
  compose(on: boolean, text: string): void {
    this.#composing = on;
    if (!on) this.input(text);
  }

  /** Moves the hand along the list, round its ends. */
  move(by: number): void {
    const { suggestions, active } = this.state;
    if (this.state.status !== "open") return;
    const places = suggestions.length + 1;
    // one place of the round is the text itself
    this.#set({ active: ((((active + 1 + by) % places) + places) % places) - 1 });
  }

  point(active: number): void {
    if (this.state.status === "open" && active !== this.state.active) this.#set({ active });
  }

  /** Takes a line; its text is in the box without another question. @returns the line, if there is one */
  choose(index: number): Choice | undefined {
    const suggestion = this.state.suggestions[index];
    if (!suggestion) return undefined;
    const typed = this.#typed;
    this.#rest(suggestion.line);
    return { suggestion, typed };
  }

  /** Goes on to the numbers of a street or the units of a building. @returns false when the line has none */
  enter(index: number): boolean {
    const inside = this.state.suggestions[index];
    if (!inside?.more || !this.#ask) return false;
    this.#cancel();
    // a space is where the number goes
    this.#set({ status: "loading", text: ` ${inside.line}`, suggestions: [], active: -1, words: undefined, inside });
    void this.#question(this.state.text);
    return true;
  }

  /** A line is being pressed: what is answered meanwhile is shown when it is released. */
  hold(): void {
    this.#pause ??= new Promise((resolve) => {
      this.#letGo = resolve;
    });
  }

  release(): void {
    this.#letGo?.();
    this.#pause = undefined;
  }

  /** Closes the list; the text stays. */
  close(): void {
    this.#cancel();
    this.#set({ status: "idle", suggestions: [], active: -1, words: undefined });
  }

  /** Text set by the page: no request is made. */
  set(text: string): void {
    this.#rest(text);
  }

  #rest(text: string): void {
    this.#cancel();
    this.#typed = 0;
    this.#set({ status: "idle", text, suggestions: [], active: -1, words: undefined, inside: undefined });
  }

  #askIn(wait: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#question(this.state.text), wait);
  }

  async #question(text: string): Promise<void> {
    const ask = this.#ask;
    if (!ask) return;
    this.#underWay?.controller.abort();
    const controller = new AbortController();
    const began = performance.now();
    this.#underWay = { controller, text, began };
    if (this.state.status !== "loading") this.#set({ status: "loading" });
    try {
      const answer = await ask(text, controller.signal, this.state.inside?.ref);
      await this.#pause;
      if (controller.signal.aborted) return;
      this.#underWay = undefined;
      // more was typed: its request is next, and what came is shown until it is answered
      if (text !== this.state.text) this.#askIn(GAP);
      this.#usual = this.#usual * 0.7 + (performance.now() - began) * 0.3;
      const { suggestions } = answer;
      const isBehind = text !== this.state.text;
      if (suggestions.length) this.#set({ status: "open", suggestions, active: -1, isBehind, words: undefined });
      else if (text === this.state.text)
        this.#set({
          status: "empty",
          suggestions: [],
          active: -1,
          words: [say("Nothing found. Check the spelling, or type the address by hand."), ...answer.advice].join(" "),
        });
    } catch (error) {
      if (controller.signal.aborted) return;
      this.#cancel();
      const words =
        error instanceof LookupError ? error.message : say("The address search does not work at the moment.");
      const isOffline = error instanceof LookupError && error.trouble === "offline";
      this.#set({ status: isOffline ? "offline" : "error", suggestions: [], active: -1, words });
    }
  }

  #cancel(): void {
    clearTimeout(this.#timer);
    this.#underWay?.controller.abort();
    this.#underWay = undefined;
  }

  #set(change: Partial<SearchState>): void {
    this.state = { ...this.state, ...change };
    this.options.change(this.state);
  }
}
