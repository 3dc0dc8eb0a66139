import type { SearchMachine, SearchState } from "./machine.ts";

/** What keys bring about beyond moving along the list. */
export interface ListWays {
  choose(index: number): void;
  /** Goes on to the numbers of a street or the units of a building. @returns false when the line has none */
  enter(index: number): boolean;
}

/** A key as it was pressed in the text field. */
export interface PressedKey {
  key: string;
  altKey: boolean;
  /** True while a character is being composed: the keys are the composer's. */
  isComposing: boolean;
  /** The caret is behind the last letter. */
  isAtEnd: boolean;
  /** The field is written from right to left: what is inside a line is to the left of it. */
  isRightToLeft?: boolean;
}

/** Whether a field is written from right to left. */
export const isWrittenFromRight = (field: Element) => getComputedStyle(field).direction === "rtl";

/** The keys of the ARIA combobox pattern (list autocomplete), also those pressed before the list is there. */
export class ListKeys {
  /** Enter was pressed before the answer was there: it is done when it comes. */
  #isEntered = false;
  /** Steps down the list that were made before it was there. */
  #steps = 0;

  constructor(
    private readonly machine: SearchMachine,
    private readonly ways: ListWays,
  ) {}

  /** More was typed: keys pressed before were meant for another list. */
  typed(): void {
    this.#isEntered = false;
    this.#steps = 0;
  }

  /** Takes a line, as Enter does. */
  take(index: number): void {
    this.ways.choose(index);
  }

  /** @returns true when the key was for the list, and not for the text */
  pressed({ key, altKey, isComposing, isAtEnd, isRightToLeft }: PressedKey): boolean {
    if (isComposing) return false;
    const { status, active, isBehind, text } = this.machine.state;
    const open = status === "open" && !isBehind;
    const isComing = status === "loading" || (status === "open" && isBehind);
    if (key === "ArrowDown" || key === "ArrowUp") {
      const by = key === "ArrowDown" ? 1 : -1;
      if (altKey) return this.#alt(by, open);
      if (isComing) this.#steps += by;
      else if (open) this.machine.move(by);
      else if (by > 0 && text) this.machine.input(text);
      else return false;
      return true;
    }
    const isInward = key === "ArrowRight" || (isRightToLeft && key === "ArrowLeft");
    if (isInward && open && active >= 0 && isAtEnd) return this.ways.enter(active);
    if (key === "Enter" && open) this.#enter();
    else if (key === "Enter" && isComing) this.#isEntered = true;
    else if (key === "Escape" && status !== "idle") this.machine.close();
    else {
      // the caret moves in the text, so no line is under the hand
      if (open && (key === "Home" || key === "End" || key === "ArrowLeft")) this.machine.point(-1);
      return false;
    }
    return true;
  }

  /** Opens the list without going into it, or closes it. */
  #alt(by: number, isOpen: boolean): boolean {
    const { text } = this.machine.state;
    if (by < 0) this.machine.close();
    else if (!isOpen && text) this.machine.input(text);
    return true;
  }

  /** A list came: what was pressed before it did is done now. */
  shown({ status, isBehind }: SearchState): void {
    if (status === "loading" || (status === "open" && isBehind)) return;
    const [steps, isEntered] = [this.#steps, this.#isEntered];
    this.typed();
    if (status !== "open") return;
    if (steps) this.machine.move(steps);
    if (isEntered) this.#enter();
  }

  /** Takes the line under the hand, or the one that is meant without a doubt; else goes to the first, for another Enter. */
  #enter(): void {
    const { active, suggestions } = this.machine.state;
    const line = active >= 0 ? active : suggestions.findIndex(({ sure }) => sure);
    if (line >= 0) this.ways.choose(line);
    else this.machine.move(1);
  }
}
