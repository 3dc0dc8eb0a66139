import type { Position } from "@bibliotope/core/geo";
import type { Client } from "../client/client.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { type HandOnTemplates, handOn } from "./hand-on.ts";
import { awaitApplication, copyText, isHandheld } from "./hand-over.ts";
import { make, makeButton } from "./make.ts";

/** The place on a picture, and who can show more of it. */
export interface StillPlace {
  /** What it is called. */
  label?: string;
  at: Position;
  /** Its record, where there is one. */
  ref?: string;
  client: Client;
}

const STYLE = `
.bt-place { position: relative; display: inline-block; max-width: 100%; }
.bt-place > .bt-place-open { display: block; padding: 0; color: inherit; background: none; border: 0; cursor: pointer; }
.bt-place > .bt-place-open:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: 2px; }
.bt-place img { display: block; max-width: 100%; height: auto; }
.bt-place > .bt-place-more { position: absolute; top: 6px; inset-inline-end: 6px; width: 28px; height: 28px; padding: 0; font: 700 16px/1 system-ui, sans-serif; color: inherit; background: var(--bt-list-paper, Canvas); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; cursor: pointer; }
.bt-place-menu { position: absolute; z-index: 20; top: 38px; inset-inline-end: 6px; margin: 0; padding: 4px; list-style: none; background: var(--bt-list-paper, Canvas); color: var(--bt-list-ink, CanvasText); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; box-shadow: 0 6px 18px rgb(0 0 0 / 0.14); }
.bt-place-menu[hidden] { display: none; }
.bt-place-menu button { display: block; width: 100%; padding: 0.45em 0.9em; font: inherit; text-align: start; color: inherit; background: none; border: 0; border-radius: 3px; cursor: pointer; white-space: nowrap; }
.bt-place-menu button:is(:hover, :focus-visible) { outline: 0; background: var(--bt-list-chosen, color-mix(in srgb, currentColor 12%, transparent)); }
.bt-place-said { margin: 0.3em 0 0; font-size: 0.9em; }
.bt-place-said:empty { display: none; }
`;

/**
 * A picture that is itself the way to the place: a press opens it, in the device's map application on a phone, on a page
 * of its own elsewhere; its menu, which the context menu's key and button open too, shows the way and copies the position.
 */
export class StillControl {
  readonly element = make("div", "bt-place");
  readonly #open = make("button", "bt-place-open");
  readonly #more = makeButton("bt-place-more", say("Options for this place"), () => this.#toggle());
  readonly #menu = make("ul", "bt-place-menu");
  readonly #said = make("p", "bt-place-said");
  /** The page of the place, once it was requested. */
  #page: Promise<string | undefined> | undefined;

  constructor(
    image: HTMLImageElement,
    private readonly place: StillPlace,
    private readonly templates: HandOnTemplates = {},
  ) {
    this.#open.type = "button";
    this.#open.append(image);
    this.#open.addEventListener("click", () => void this.#show());
    // requested before it is pressed: a window that opens later is taken for one that nobody wanted
    for (const near of ["pointerenter", "focus"]) this.#open.addEventListener(near, () => void this.#pageOf());
    this.#more.textContent = "⋯";
    this.#more.setAttribute("aria-haspopup", "menu");
    this.#more.setAttribute("aria-expanded", "false");
    this.#said.setAttribute("role", "status");
    this.#menu.setAttribute("role", "menu");
    this.#menu.hidden = true;
    for (const [words, does] of [
      [say("Open the place"), () => void this.#show()],
      [say("Directions"), () => void this.#way()],
      [say("Copy coordinates"), () => this.#copy()],
    ] as const)
      this.#menu.append(this.#item(words, does));
    this.element.append(this.#open, this.#more, this.#menu, this.#said);
    this.element.addEventListener("contextmenu", (event) => {
      event.preventDefault();
      this.#toggle(true);
    });
    this.element.addEventListener("keydown", (event) => this.#key(event));
    this.element.addEventListener("focusout", ({ relatedTarget }) => {
      if (!(relatedTarget instanceof Node && this.element.contains(relatedTarget))) this.#toggle(false, false);
    });
  }

  /** Puts it in the place of something. */
  putInto(place: Element | ShadowRoot): void {
    adopt(place.getRootNode() as Document, STYLE);
    place.replaceChildren(this.element);
  }

  get #handed() {
    return handOn(this.place.at, this.place.label, this.templates);
  }

  /** The page of the place, for where no map application is at hand; undefined where the key may make no link. */
  #pageOf(): Promise<string | undefined> {
    const { client, ref, at, label } = this.place;
    this.#page ??= client
      .link({ ...(ref ? { of: ref } : { at: `${at.lat},${at.lon}` }), label: label?.slice(0, 120), hours: 1 })
      .then(
        ({ url }) => url,
        () => undefined,
      );
    return this.#page;
  }

  async #show(): Promise<void> {
    this.#toggle(false);
    const { show } = this.#handed;
    if (this.templates.show) return this.#follow(show);
    if (isHandheld()) return this.#follow(show);
    await this.#openPage("", show);
  }

  async #way(): Promise<void> {
    this.#toggle(false);
    const { way, show } = this.#handed;
    if (way) return this.#follow(way);
    if (isHandheld()) return this.#follow(show);
    await this.#openPage("#way", show);
  }

  /** Opens the page of the place in a window that is there at once; where there is none, the map application is asked. */
  async #openPage(part: string, otherwise: string): Promise<void> {
    const opened = window.open("", "_blank");
    const url = await this.#pageOf();
    if (opened && url) {
      opened.opener = null;
      opened.location.href = `${url}${part}`;
      return;
    }
    opened?.close();
    this.#follow(otherwise);
  }

  #follow(href: string): void {
    const link = make("a");
    link.href = href;
    if (/^https?:/.test(href)) {
      link.target = "_blank";
      link.rel = "noopener";
    } else awaitApplication(this.#handed.text, (words) => this.#tell(words));
    link.click();
  }

  #copy(): void {
    this.#toggle(false);
    const { text } = this.#handed;
    void copyText(text, say("Copied: {text}", { text }), (words) => this.#tell(words));
  }

  #tell(words: string): void {
    this.#said.textContent = words;
  }

  #item(words: string, does: () => void): HTMLElement {
    const item = make("li");
    item.setAttribute("role", "none");
    const button = make("button", "", words);
    button.type = "button";
    button.tabIndex = -1;
    button.setAttribute("role", "menuitem");
    button.addEventListener("click", does);
    item.append(button);
    return item;
  }

  #toggle(isOpen = this.#menu.hidden, takesFocus = true): void {
    if (this.#menu.hidden !== isOpen) return;
    this.#menu.hidden = !isOpen;
    this.#more.setAttribute("aria-expanded", String(isOpen));
    if (isOpen) void this.#pageOf();
    if (isOpen) this.#menu.querySelector("button")?.focus();
    else if (takesFocus) this.#more.focus();
  }

  #key(event: KeyboardEvent): void {
    const { key } = event;
    if (this.#menu.hidden) {
      if (key !== "ContextMenu" && !(key === "F10" && event.shiftKey)) return;
      this.#toggle(true);
    } else if (key === "Escape") this.#toggle(false);
    else if (key === "ArrowDown" || key === "ArrowUp") {
      const items = [...this.#menu.querySelectorAll("button")];
      const root = this.element.getRootNode() as Document | ShadowRoot;
      const now = items.indexOf(root.activeElement as HTMLButtonElement);
      items.at((now + (key === "ArrowDown" ? 1 : -1)) % items.length)?.focus();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
}
