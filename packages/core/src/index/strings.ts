import { Growing } from "./growing.ts";
import type { Sections } from "./layout.ts";

/** Strings, each kept once. */
export class StringTable {
  readonly #numbers = new Map<string, number>();
  readonly #offsets = [0];
  readonly #units = new Growing(Uint16Array);

  /** The number of a string, given when it is new. */
  add(text: string): number {
    const known = this.#numbers.get(text);
    if (known !== undefined) return known;
    const number = this.#offsets.length - 1;
    this.#numbers.set(text, number);
    for (let i = 0; i < text.length; i++) this.#units.push(text.charCodeAt(i));
    this.#offsets.push(this.#units.length);
    return number;
  }

  /** A string that was added. */
  text(number: number): string {
    let text = "";
    for (let i = this.#offsets[number]; i < this.#offsets[number + 1]; i++)
      text += String.fromCharCode(this.#units.get(i));
    return text;
  }

  finish(): Pick<Sections, "stringOffset" | "stringUnits"> {
    return { stringOffset: Uint32Array.from(this.#offsets), stringUnits: this.#units.finish() };
  }
}
