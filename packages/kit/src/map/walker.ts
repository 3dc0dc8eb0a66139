import { say } from "../words/say.ts";
import { make } from "./make.ts";

export interface WalkerTarget {
  /** Places of the markers that can be walked through. */
  places(): readonly number[];
  nameOf(place: number): string;
  isDraggable(place: number): boolean;
  lifted(): number | undefined;
  /** The keyboard is on this marker, or on none any more. */
  choose(place: number | undefined): void;
  press(place: number): void;
  lift(place: number): void;
  moveBy(dx: number, dy: number): void;
  drop(): void;
  putBack(): void;
  close(): void;
}

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** CSS pixels that an arrow key moves a lifted marker, and with Shift. */
const STRIDE = 12;
const CLOSE_STRIDE = 1;

let lists = 0;

/**
 * The markers as a list for the keyboard: one stop of the tab key, arrows from marker to marker, Enter opens, M moves.
 * Shown while it has the focus.
 */
export class Walker {
  readonly element = make("div", "bt-walk");
  readonly #list = make("div");
  readonly #hint = make("p", "bt-hint");
  readonly #id = `bt-markers-${++lists}`;
  #place: number | undefined;
  #options = 0;

  constructor(private readonly target: WalkerTarget) {
    this.#list.tabIndex = 0;
    this.#list.setAttribute("role", "listbox");
    this.#list.setAttribute("aria-label", say("Markers"));
    this.#hint.id = `${this.#id}-hint`;
    this.#list.setAttribute("aria-describedby", this.#hint.id);
    this.element.append(this.#list, this.#hint);
    this.#list.addEventListener("keydown", (event) => this.#key(event));
    this.#list.addEventListener("focus", () => this.#show(this.#place ?? this.target.places()[0]));
    this.#list.addEventListener("blur", () => {
      this.target.putBack();
      this.target.choose(undefined);
    });
    this.changed();
  }

  /** The markers are others now. */
  changed(): void {
    const places = this.target.places();
    this.element.hidden = places.length === 0;
    if (this.#place !== undefined && !places.includes(this.#place)) {
      this.#place = undefined;
      this.target.choose(undefined);
    }
    if (places.length && this.#list.childElementCount === 0) this.#write(places[0]);
    else if (this.#hasFocus()) this.#show(this.#place ?? places[0]);
    else if (places.length) this.#write(this.#place ?? places[0]);
  }

  focus(): void {
    this.#list.focus();
  }

  #hasFocus(): boolean {
    return (this.#list.getRootNode() as Document | ShadowRoot).activeElement === this.#list;
  }

  #show(place: number | undefined): void {
    if (place === undefined) return;
    this.#place = place;
    this.#write(place);
    this.target.choose(place);
  }

  /** One option represents the list, with the place and the length: thousands need not be made. */
  #write(place: number): void {
    const places = this.target.places();
    const option = make("span", "", this.target.nameOf(place));
    option.id = `${this.#id}-${++this.#options}`;
    option.setAttribute("role", "option");
    option.setAttribute("aria-selected", "true");
    option.setAttribute("aria-posinset", String(places.indexOf(place) + 1));
    option.setAttribute("aria-setsize", String(places.length));
    this.#list.replaceChildren(option);
    this.#list.setAttribute("aria-activedescendant", option.id);
    const words = [say("{n} of {all}", { n: places.indexOf(place) + 1, all: places.length }), say("Enter: open")];
    if (this.target.isDraggable(place)) words.push(say("M: move"));
    if (this.target.lifted() !== undefined)
      words.splice(1, 2, say("arrows: move, with Shift in small steps"), say("Enter: drop"), say("Esc: cancel"));
    this.#hint.textContent = words.join(" · ");
  }

  #key(event: KeyboardEvent): void {
    const place = this.#place;
    if (event.ctrlKey || event.metaKey || event.altKey || place === undefined) return;
    const isHandled = this.target.lifted() === undefined ? this.#walk(event.key, place) : this.#move(event, place);
    if (!isHandled) return;
    event.preventDefault();
    event.stopPropagation();
  }

  #walk(key: string, place: number): boolean {
    const places = this.target.places();
    const now = places.indexOf(place);
    const step = STEPS[key];
    if (step) this.#show(places[(now + step[0] + step[1] + places.length) % places.length]);
    else if (key === "Home") this.#show(places[0]);
    else if (key === "End") this.#show(places[places.length - 1]);
    else if (key === "Enter" || key === " ") this.target.press(place);
    else if (key.toLowerCase() === "m" && this.target.isDraggable(place)) this.target.lift(place);
    else if (key === "Escape") this.target.close();
    else return false;
    if (key.toLowerCase() === "m") this.#write(place);
    return true;
  }

  #move({ key, shiftKey }: KeyboardEvent, place: number): boolean {
    const step = STEPS[key];
    const stride = shiftKey ? CLOSE_STRIDE : STRIDE;
    if (step) this.target.moveBy(step[0] * stride, step[1] * stride);
    else if (key === "Enter" || key === " ") this.target.drop();
    else if (key === "Escape") this.target.putBack();
    else return false;
    this.#write(place);
    return true;
  }
}
