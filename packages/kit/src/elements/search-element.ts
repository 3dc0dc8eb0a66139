import type { RecordFeature, Suggestion } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { lacking } from "../client/lacking.ts";
import { fillByTokens } from "../fill/fill.ts";
import { SearchBox } from "../search/box.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { clientOf, ElementBase, SERVICE_ATTRIBUTES, tell } from "./service.ts";

/** A place was chosen and resolved; the detail is its record. */
export const FOUND = "bibliotope-found";
/** The search was emptied, or its text no longer is what was chosen. */
export const LOST = "bibliotope-lost";

const STYLE = `
:host { display: block; position: relative; font: inherit; }
:host([hidden]) { display: none; }
label { display: block; }
label:empty { display: none; }
input { font: inherit; color: inherit; background: var(--bt-field, Field); border: 1px solid var(--bt-field-edge, #8d8570); border-radius: 4px; padding: 0.45em 0.6em; }
`;

/**
 * `<bibliotope-search>`: a search box for addresses and places, part of the form around it.
 *
 * Attributes: `web-key` and `url` (the service), `name`, `value`, `label`, `placeholder`, `required`, `disabled`,
 * `countries`, `kinds`; `fills` to fill the form's other controls by their autofill tokens, its value the address's
 * section. The form is sent `NAME` (the text), `NAME-ref`, `NAME-lat` and `NAME-lon` (WGS 84 degrees; empty unless the
 * text is that of a chosen place). Parts to style: `label`, `input`, `list`, `option`, `words`.
 */
export class SearchElement extends ElementBase {
  static readonly formAssociated = true;
  static readonly observedAttributes = [...SERVICE_ATTRIBUTES, "placeholder", "required", "label", "value"];

  readonly #internals = this.attachInternals();
  readonly #input = document.createElement("input");
  readonly #label = document.createElement("label");
  #client: Client | undefined;
  #box: SearchBox | undefined;
  #record: RecordFeature | undefined;
  #chosen = 0;
  #wasSet = false;
  #isBuilt = false;
  /** By its own attribute, or by the fieldset around. */
  #isDisabled = false;

  /** What asks; made from the attributes when it is not set. */
  get client(): Client | undefined {
    return this.#client ?? clientOf(this);
  }

  set client(client: Client | undefined) {
    this.#client = client;
    this.#begin();
  }

  /** The text in it. */
  get value(): string {
    return this.#input.value;
  }

  set value(text: string) {
    this.#wasSet = true;
    if (this.#box) this.#box.setText(text);
    else this.#input.value = text;
    this.#hold(undefined);
  }

  /** The chosen place; undefined while the text is anything else. */
  get record(): RecordFeature | undefined {
    return this.#record;
  }

  get form(): HTMLFormElement | null {
    return this.#internals.form;
  }

  get validity(): ValidityState {
    return this.#internals.validity;
  }

  connectedCallback(): void {
    const root = this.shadowRoot ?? this.attachShadow({ mode: "open", delegatesFocus: true });
    if (!this.#isBuilt) {
      this.#isBuilt = true;
      adopt(root, STYLE);
      this.#input.id = "input";
      this.#label.htmlFor = "input";
      this.#input.part.add("input");
      this.#label.part.add("label");
      root.replaceChildren(this.#label, this.#input);
      this.#input.addEventListener("input", () => this.#typed());
      this.#input.addEventListener("change", () => this.dispatchEvent(new Event("change", { bubbles: true })));
    }
    if (!this.#wasSet && this.hasAttribute("value")) this.#input.value = this.getAttribute("value")!;
    this.#mirror();
    this.#begin();
    this.#hold(this.#record);
  }

  disconnectedCallback(): void {
    this.#box?.destroy();
    this.#box = undefined;
  }

  attributeChangedCallback(name: string): void {
    if (!this.#isBuilt) return;
    this.#mirror();
    if (name === "value" && !this.#wasSet) this.#input.value = this.getAttribute("value") ?? "";
    if ((SERVICE_ATTRIBUTES as readonly string[]).includes(name)) this.#begin();
    this.#hold(this.#record);
  }

  formResetCallback(): void {
    this.#wasSet = false;
    this.#box?.setText(this.getAttribute("value") ?? "");
    this.#hold(undefined);
  }

  formDisabledCallback(isDisabled: boolean): void {
    this.#isDisabled = isDisabled;
    this.#input.disabled = isDisabled;
  }

  formStateRestoreCallback(state: unknown): void {
    if (typeof state === "string") this.value = state;
  }

  #mirror(): void {
    this.#input.disabled = this.#isDisabled;
    this.#input.required = this.hasAttribute("required");
    this.#input.placeholder = this.getAttribute("placeholder") ?? "";
    const label = this.getAttribute("label") ?? "";
    this.#label.textContent = label;
    // a label of the page's own names it too
    const outer = [...(this.#internals.labels ?? [])].map((one) => one.textContent?.trim()).join(" ");
    if (label || !outer) this.#input.removeAttribute("aria-label");
    else this.#input.setAttribute("aria-label", outer);
  }

  #begin(): void {
    const { client } = this;
    if (!client || !this.#isBuilt || !this.isConnected) return;
    this.#box?.destroy();
    this.#box = new SearchBox(this.#input, {
      client,
      narrow: () => ({
        countries: this.getAttribute("countries") ?? undefined,
        kinds: this.getAttribute("kinds") ?? undefined,
      }),
      chosen: (suggestion, typed) => void this.#resolve(client, suggestion, typed),
    });
    const box = this.#box;
    void lacking(client, ["suggest", "records"]).then((lacks) => {
      if (lacks.length && box === this.#box) box.say(say("Address search is not allowed on this page."));
    });
  }

  #typed(): void {
    this.#wasSet = true;
    this.#chosen++;
    const had = this.#record;
    this.#hold(undefined);
    if (had) tell(this, LOST, undefined);
    this.dispatchEvent(new Event("input", { bubbles: true, composed: true }));
  }

  async #resolve(client: Client, { ref }: Suggestion, typed: number): Promise<void> {
    const mine = ++this.#chosen;
    this.#wasSet = true;
    try {
      const record = await client.record(ref, { typed });
      if (mine !== this.#chosen) return;
      this.#hold(record);
      const { form } = this;
      if (form && this.hasAttribute("fills")) fillByTokens(form, record, this.getAttribute("fills") ?? "");
      tell(this, FOUND, record);
      this.dispatchEvent(new Event("change", { bubbles: true }));
    } catch (error) {
      if (mine !== this.#chosen) return;
      this.#box?.say(
        error instanceof LookupError ? error.message : say("The address search does not work at the moment."),
      );
    }
  }

  /** Keeps the chosen place, and tells the form what to send. */
  #hold(record: RecordFeature | undefined): void {
    this.#record = record;
    if (!this.#isBuilt) return;
    const name = this.getAttribute("name") ?? "";
    const { value } = this.#input;
    const data = new FormData();
    if (name) {
      data.set(name, value);
      const { lat, lon } = record?.properties.at ?? {};
      data.set(`${name}-ref`, record?.id ?? "");
      data.set(`${name}-lat`, String(lat ?? ""));
      data.set(`${name}-lon`, String(lon ?? ""));
    }
    this.#internals.setFormValue(data, value);
    const isMissing = this.hasAttribute("required") && !value;
    if (isMissing)
      this.#internals.setValidity({ valueMissing: true }, this.#input.validationMessage || "!", this.#input);
    else this.#internals.setValidity({});
  }
}
