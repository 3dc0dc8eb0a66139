import type { SuggestAnswer, Suggestion } from "@bibliotope/wire";
import { LookupError } from "../client/errors.ts";

/** What a search box shows. */
export interface SearchState {
  status: "idle" | "loading" | "open" | "empty" | "error";
  text: string;
  suggestions: readonly Suggestion[];
  /** The line under the hand, or -1. */
  active: number;
  /** Words for the person, when there is nothing to choose from. */
  words?: string;
}

export interface SearchOptions {
  ask: (text: string, signal: AbortSignal) => Promise<SuggestAnswer>;
  change: (state: SearchState) => void;
  /** Letters before the first question; 1 when not given. */
  least?: number;
}

const SHORTEST_WAIT = 15;
const LONGEST_WAIT = 250;

/**
 * A search box without a box: no DOM, no framework. Waits for a pause that fits how long answers take, drops answers
 * that are no longer wanted, and never asks in the middle of a composed character.
 */
export class SearchMachine {
  state: SearchState = { status: "idle", text: "", suggestions: [], active: -1 };
  #underWay: AbortController | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #composing = false;
  /** How long answers took lately, in milliseconds. */
  #usual = SHORTEST_WAIT;

  constructor(private readonly options: SearchOptions) {}

  /** The person typed. */
  input(text: string): void {
    this.#cancel();
    if (this.#composing) {
      this.#set({ text });
      return;
    }
    if (text.trim().length < (this.options.least ?? 1)) {
      this.#set({ status: "idle", text, suggestions: [], active: -1, words: undefined });
      return;
    }
    this.#set({ status: "loading", text });
    this.#timer = setTimeout(() => void this.#ask(text), Math.min(LONGEST_WAIT, Math.max(SHORTEST_WAIT, this.#usual)));
  }

  /** A character is being composed (IME); what stands there is not yet what is meant. */
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

  /** Takes a line; its text stands in the box without another question. @returns the line, if there is one */
  choose(index: number): Suggestion | undefined {
    const chosen = this.state.suggestions[index];
    if (!chosen) return undefined;
    this.#cancel();
    this.#set({ status: "idle", text: chosen.line, suggestions: [], active: -1, words: undefined });
    return chosen;
  }

  /** Closes the list; the text stays. */
  close(): void {
    this.#cancel();
    this.#set({ status: "idle", suggestions: [], active: -1, words: undefined });
  }

  /** Text set by the page: nothing is asked. */
  set(text: string): void {
    this.#cancel();
    this.#set({ status: "idle", text, suggestions: [], active: -1, words: undefined });
  }

  async #ask(text: string): Promise<void> {
    const controller = new AbortController();
    this.#underWay = controller;
    const began = performance.now();
    try {
      const answer = await this.options.ask(text, controller.signal);
      if (controller.signal.aborted) return;
      this.#usual = this.#usual * 0.7 + (performance.now() - began) * 0.3;
      const { suggestions } = answer;
      if (suggestions.length) this.#set({ status: "open", suggestions, active: -1, words: undefined });
      else
        this.#set({
          status: "empty",
          suggestions: [],
          active: -1,
          words: ["Nothing found. Check the spelling, or type the address by hand.", ...answer.advice].join(" "),
        });
    } catch (error) {
      if (controller.signal.aborted) return;
      const words = error instanceof LookupError ? error.message : "The address search does not work at the moment.";
      this.#set({ status: "error", suggestions: [], active: -1, words });
    }
  }

  #cancel(): void {
    clearTimeout(this.#timer);
    this.#underWay?.abort();
    this.#underWay = undefined;
  }

  #set(change: Partial<SearchState>): void {
    this.state = { ...this.state, ...change };
    this.options.change(this.state);
  }
}
