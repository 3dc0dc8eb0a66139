import { readPosition } from "@bibliotope/core/geo";
import type { Kind } from "@bibliotope/core/place";
import type { Client } from "../client/client.ts";
import { fillByTokens } from "../fill/fill.ts";
import { make } from "../map/make.ts";
import { placeOfPicked } from "../picker/hand-back.ts";
import { type Picked, PickerPanel } from "../picker/panel.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { clientOf, ElementBase, tell } from "./service.ts";

/** A place was picked; the detail is what the picker hands back. */
export const PICKED = "bibliotope-picked";

const STYLE = `
:host { display: inline-block; font: inherit; }
:host([hidden]) { display: none; }
.open { height: 2.43em; padding: 0 1.2em; font: inherit; font-weight: 600; color: inherit; background: none; border: 1px solid currentColor; border-radius: 4px; cursor: pointer; }
.open:focus-visible { outline: 2px solid var(--bt-focus, #a8741a); outline-offset: 2px; }
`;

/**
 * `<bibliotope-picker>`: a button that opens search, map and mark over the page, part of the form around it. Done takes the
 * place over; Cancel and Escape change nothing.
 *
 * Attributes: `web-key` and `url` (the service), `label`, `kinds`, `countries`, `anywhere` (a spot is taken as it is), `at`
 * (`LAT,LON`) and `zoom` for where it begins; `name`, under which the form is sent `NAME`, `NAME-ref`, `NAME-lat` and
 * `NAME-lon`; `fills` to fill the form's other controls by their autofill tokens, its value the address's section. Words on
 * the button are what is in the element. Parts to style: `button`, `dialog`.
 */
export class PickerElement extends ElementBase {
  static readonly formAssociated = true;

  readonly #internals = this.attachInternals();
  readonly #button = make("button", "open");
  readonly #dialog = make("dialog", "bt-picker");
  #client: Client | undefined;
  #panel: PickerPanel | undefined;

  /** What asks; made from the attributes when it is not set. */
  get client(): Client | undefined {
    return this.#client ?? clientOf(this);
  }

  set client(client: Client | undefined) {
    this.#client = client;
  }

  get form(): HTMLFormElement | null {
    return this.#internals.form;
  }

  connectedCallback(): void {
    const root = this.shadowRoot ?? this.attachShadow({ mode: "open", delegatesFocus: true });
    if (this.#button.parentNode) return;
    adopt(root, STYLE);
    this.#button.type = "button";
    this.#button.part.add("button");
    this.#dialog.part.add("dialog");
    const words = make("slot", "", say("Find it on the map"));
    this.#button.append(words);
    this.#button.addEventListener("click", () => this.open());
    this.#dialog.addEventListener("close", () => this.#close());
    root.replaceChildren(this.#button, this.#dialog);
  }

  disconnectedCallback(): void {
    this.#dialog.close();
    this.#close();
  }

  /** Opens it, as its button does. */
  open(): void {
    const { client } = this;
    if (!client || this.#panel) return;
    const label = this.getAttribute("label") ?? say("Find it on the map");
    const list = (name: string) => this.getAttribute(name)?.split(",").filter(Boolean) ?? [];
    const panel = new PickerPanel({
      client,
      label,
      rule: { kinds: list("kinds") as Kind[], countries: list("countries"), anywhere: this.hasAttribute("anywhere") },
      at: readPosition(this.getAttribute("at") ?? ""),
      zoom: this.hasAttribute("zoom") ? Number(this.getAttribute("zoom")) : undefined,
      done: (picked) => this.#take(picked),
      cancelled: () => this.#dialog.close(),
    });
    this.#panel = panel;
    panel.element.prepend(make("h2", "", label));
    this.#dialog.setAttribute("aria-label", label);
    this.#dialog.replaceChildren(panel.element);
    this.#dialog.showModal();
    panel.begin();
  }

  #take(picked: Picked): void {
    this.#dialog.close();
    const place = placeOfPicked(picked, this.hasAttribute("anywhere"));
    const name = this.getAttribute("name");
    if (name) {
      const data = new FormData();
      data.set(name, place.line);
      data.set(`${name}-ref`, place.ref);
      data.set(`${name}-lat`, String(place.at.lat));
      data.set(`${name}-lon`, String(place.at.lon));
      this.#internals.setFormValue(data, place.line);
    }
    const { form } = this;
    if (form && place.ref && picked.record && this.hasAttribute("fills"))
      fillByTokens(form, picked.record, this.getAttribute("fills") ?? "");
    tell(this, PICKED, place);
  }

  /** The form was reset: nothing is picked. */
  formResetCallback(): void {
    this.#internals.setFormValue(null);
  }

  #close(): void {
    this.#panel?.destroy();
    this.#panel = undefined;
    this.#dialog.replaceChildren();
  }
}
