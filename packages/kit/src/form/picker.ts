import { type AddressRule, addressOf, type Field, type FormDefinition, ruleOf } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import { SHEETS } from "@bibliotope/core/sheet";
import type { Client } from "../client/client.ts";
import { make } from "../map/make.ts";
import type { Followed } from "../map/options.ts";
import { SheetMap } from "../map/sheet-map.ts";
import { say } from "../words/say.ts";
import type { Binding } from "./binding.ts";
import { nearestFor } from "./nearest.ts";

export interface PickerOptions {
  client: Client;
  definition: FormDefinition;
  /** The map field that it stands for. */
  field: Field;
  binding: Binding;
  /** Where its address lies now. */
  standing: () => Position | undefined;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation | undefined;
}

/** As close as houses are told apart. */
const HOUSE_ZOOM = 17;

/**
 * A map that opens over a form: it is moved under a mark, or pressed, and the address there is told. It fills the form on
 * Done alone; Cancel and Escape change nothing.
 */
export class MapPicker {
  /** What opens it, for the form. */
  readonly opener = button("bt-look", say("Find it on the map"));
  readonly #dialog = make("dialog", "bt-picker");
  readonly #told = make("p", "bt-picked");
  readonly #done = button("bt-send", say("Done"));
  readonly #cancel = button("bt-look", say("Cancel"));
  #map: SheetMap | undefined;
  #picked: Followed | undefined;

  constructor(
    private readonly form: HTMLFormElement,
    private readonly options: PickerOptions,
  ) {
    this.#dialog.setAttribute("aria-label", options.field.label);
    this.#told.setAttribute("role", "status");
    this.opener.addEventListener("click", () => this.#open());
    this.#cancel.addEventListener("click", () => this.#dialog.close());
    this.#done.addEventListener("click", () => this.#take());
    // whatever closed it, Escape included
    this.#dialog.addEventListener("close", () => this.#close());
  }

  destroy(): void {
    this.#close();
  }

  get #address(): string {
    return addressOf(this.options.field);
  }

  get #rule(): AddressRule {
    return ruleOf(this.options.definition, this.#address);
  }

  #open(): void {
    const { client, field, geolocation, standing } = this.options;
    const place = make("div", "bt-map");
    const row = make("p", "bt-picker-row");
    row.append(this.#done, this.#cancel);
    this.#dialog.replaceChildren(make("h2", "", field.label), place, this.#told, row);
    // beside the form, so that what is pressed in it is not of the form
    this.form.after(this.#dialog);
    this.#dialog.showModal();
    const at = standing();
    const map = new SheetMap(place, {
      client,
      label: field.label,
      sheets: SHEETS,
      device: true,
      nearest: (spot, _why, signal) => nearestFor(client, this.#rule, spot, signal),
      ...(field.relief ? { relief: true } : {}),
      ...(geolocation ? { geolocation } : {}),
      ...(at ? { view: { at, zoom: HOUSE_ZOOM } } : {}),
    });
    this.#map = map;
    this.#hear(undefined);
    map.onFollow((followed) => this.#hear(followed));
    map.onPress((spot) => map.glide({ at: spot, zoom: map.view.zoom }));
    map.setAiming(true);
  }

  #hear(followed: Followed | undefined): void {
    this.#picked = followed;
    const { address, at } = followed ?? {};
    const { anywhere } = this.#rule;
    this.#done.disabled = !(anywhere ? at : address);
    this.#told.textContent = !at
      ? say("Move the map until the mark stands on the place.")
      : address
        ? address.properties.line
        : anywhere
          ? `${at.lat.toFixed(6)}, ${at.lon.toFixed(6)}`
          : say("Nothing was found near this spot.");
  }

  #take(): void {
    const { binding } = this.options;
    const picked = this.#picked;
    this.#dialog.close();
    if (!picked) return;
    if (picked.address && !this.#rule.anywhere) binding.fillWith(picked.address, this.#address);
    else void binding.fillFrom(picked.at, this.#address);
  }

  #close(): void {
    this.#map?.destroy();
    this.#map = undefined;
    this.#picked = undefined;
    this.#dialog.remove();
  }
}

function button(className: string, words: string): HTMLButtonElement {
  const made = make("button", className, words);
  made.type = "button";
  return made;
}
