import { addressOf, type Field, type FormDefinition, ruleOf } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import type { Client } from "../client/client.ts";
import { make } from "../map/make.ts";
import { type Picked, PickerPanel } from "../picker/panel.ts";
import { say } from "../words/say.ts";
import type { Binding } from "./binding.ts";

export interface MapPickerOptions {
  client: Client;
  definition: FormDefinition;
  /** The map field that it represents. */
  field: Field;
  binding: Binding;
  /** Where its address lies now. */
  start: () => Position | undefined;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation | undefined;
}

/** The picker over a form, for a map field that opens: it fills the form on Done alone; Cancel and Escape change nothing. */
export class MapPicker {
  /** What opens it, for the form. */
  readonly opener = make("button", "bt-look", say("Find it on the map"));
  readonly #dialog = make("dialog", "bt-picker");
  #panel: PickerPanel | undefined;

  constructor(
    private readonly form: HTMLFormElement,
    private readonly options: MapPickerOptions,
  ) {
    this.opener.type = "button";
    this.#dialog.setAttribute("aria-label", options.field.label);
    this.opener.addEventListener("click", () => this.#open());
    // whatever closed it, Escape included
    this.#dialog.addEventListener("close", () => this.#close());
  }

  destroy(): void {
    this.#close();
  }

  #open(): void {
    const { client, definition, field, geolocation, start } = this.options;
    const panel = new PickerPanel({
      client,
      label: field.label,
      rule: ruleOf(definition, addressOf(field)),
      at: start(),
      ...(field.relief ? { relief: true } : {}),
      ...(field.pictures ? { pictures: field.pictures } : {}),
      geolocation,
      done: (picked) => this.#take(picked),
      cancelled: () => this.#dialog.close(),
    });
    this.#panel = panel;
    panel.element.prepend(make("h2", "", field.label));
    this.#dialog.replaceChildren(panel.element);
    // beside the form, so that what is pressed in it is not of the form
    this.form.after(this.#dialog);
    this.#dialog.showModal();
    panel.begin();
  }

  #take({ at, record }: Picked): void {
    const { binding, definition, field } = this.options;
    const address = addressOf(field);
    this.#dialog.close();
    if (record && !ruleOf(definition, address).anywhere) binding.fillWith(record, address);
    else void binding.fillFrom(at, address);
  }

  #close(): void {
    this.#panel?.destroy();
    this.#panel = undefined;
    this.#dialog.remove();
  }
}
