import type { Position } from "@bibliotope/core/geo";
import type { Size } from "@bibliotope/core/map";
import { say } from "../words/say.ts";
import { type HandOnTemplates, handOn } from "./hand-on.ts";
import { awaitApplication, copyText } from "./hand-over.ts";
import { make, makeButton, makeIcon } from "./make.ts";
import type { Card, CardFact } from "./marker.ts";

type Spot = { x: number; y: number };

const CROSS = "M5 5 15 15M15 5 5 15";

/** The card of a marker: a title and facts, all as text, beside the marker. */
export class MarkerCard {
  readonly element = make("section", "bt-card");
  readonly #words = make("p", "bt-card-words");
  /** Where its marker is, in what. */
  #placed: [Spot, Size] | undefined;

  constructor(
    { title, facts = [], more, handsOn }: Card,
    at: Position,
    templates: HandOnTemplates | undefined,
    closed: () => void,
  ) {
    const { element } = this;
    element.setAttribute("role", "dialog");
    element.setAttribute("aria-label", title);
    const close = makeButton("bt-close", say("Close"), closed);
    close.append(makeIcon(CROSS));
    const heading = make("h3");
    heading.append(make("bdi", "", title));
    element.append(heading, close);
    if (facts.length) element.append(this.#list(facts));
    if (more) element.append(this.#more(more));
    if (handsOn) element.append(this.#handingOn(at, title, templates));
    this.#words.setAttribute("role", "status");
    element.append(this.#words);
    element.addEventListener("keydown", (event) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      closed();
    });
  }

  /** Puts it above or below its marker, within the map. */
  place(spot: Spot, size: Size): void {
    this.#placed = [spot, size];
    const { x, y } = spot;
    const { width, height } = size;
    const { offsetWidth, offsetHeight } = this.element;
    const isInSight = x > 0 && y > 0 && x < width && y < height;
    const above = y - 22 - offsetHeight;
    const top = above >= 8 ? above : Math.min(y + 48, height - offsetHeight - 8);
    const left = Math.max(8, Math.min(width - offsetWidth - 8, x - offsetWidth / 2));
    this.element.style.transform = `translate(${Math.round(left)}px, ${Math.round(Math.max(8, top))}px)`;
    this.element.style.visibility = isInSight ? "visible" : "hidden";
  }

  focus(): void {
    this.element.querySelector<HTMLElement>(".bt-close")?.focus();
  }

  #list(facts: readonly CardFact[]): HTMLElement {
    const list = make("dl");
    for (const [name, value, href] of facts) {
      const existing = make("dd");
      if (href && /^(https?|tel|mailto):/.test(href)) existing.append(this.#link(value, href, value));
      else existing.append(make("bdi", "", value));
      list.append(make("dt", "", name), existing);
    }
    return list;
  }

  /** What is shown on request. */
  #more({ facts = [], picture }: NonNullable<Card["more"]>): HTMLElement {
    const more = make("details", "bt-card-more");
    more.append(make("summary", "", say("More about this place")));
    if (facts.length) more.append(this.#list(facts));
    const image = picture && make("img");
    if (image) {
      image.alt = picture.alt;
      image.crossOrigin = "anonymous";
      image.addEventListener("error", () => image.replaceWith(make("p", "", say("The picture could not be loaded."))));
      more.append(image);
    }
    more.addEventListener("toggle", () => {
      if (image && more.open && !image.src)
        image.src = (matchMedia("(prefers-color-scheme: dark)").matches && picture.night) || picture.src;
      if (this.#placed) this.place(...this.#placed);
    });
    return more;
  }

  #handingOn(at: Position, label: string, templates: HandOnTemplates | undefined): HTMLElement {
    const { show, way, text } = handOn(at, label, templates);
    const row = make("p", "bt-hand-on");
    row.append(this.#link(say("Open in a map app"), show, text));
    if (way) row.append(this.#link(say("Directions"), way, text));
    const copy = make("button", "", say("Copy coordinates"));
    copy.type = "button";
    copy.addEventListener("click", () => void copyText(text, say("Copied: {text}", { text }), this.#tell));
    row.append(copy);
    return row;
  }

  #link(words: string, href: string, text: string): HTMLAnchorElement {
    const link = make("a", "", words);
    link.href = href;
    if (/^https?:/.test(href)) {
      link.target = "_blank";
      link.rel = "noopener";
    } else link.addEventListener("click", () => awaitApplication(text, this.#tell));
    return link;
  }

  readonly #tell = (words: string) => {
    this.#words.textContent = words;
  };
}
