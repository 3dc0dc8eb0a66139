import type { AddressRule } from "@bibliotope/core/form";
import { type Position, sphereDistance } from "@bibliotope/core/geo";
import { MAP_STYLES, type MapStyle, type PictureTiles } from "@bibliotope/core/map";
import type { RecordFeature, Suggestion } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { nearestFor } from "../form/nearest.ts";
import { InteractiveMap } from "../map/interactive-map.ts";
import { make } from "../map/make.ts";
import { type Followed, shownPictures } from "../map/options.ts";
import { SearchBox } from "../search/box.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { PICKER_STYLE } from "./style.ts";

/** What is under the mark: a spot, and the record that is meant by it. */
export interface Picked {
  at: Position;
  /** None where a spot is taken as it is, and nothing lies beside it. */
  record?: RecordFeature;
}

export interface PickerOptions {
  client: Client;
  /** What it is for; the heading, where it has one. */
  label: string;
  /** What may be picked. */
  rule?: Pick<AddressRule, "kinds" | "countries" | "anywhere">;
  /** Where it begins. */
  at?: Position | undefined;
  zoom?: number | undefined;
  /** Text that is searched at first. */
  text?: string;
  mapStyle?: MapStyle;
  night?: boolean;
  /** Offers the ground in relief. */
  relief?: boolean;
  /** Pictures of one's own, shown at first in place of the map style. */
  pictures?: PictureTiles;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation | undefined;
  done: (picked: Picked) => void;
  cancelled: () => void;
}

/** The zoom at which single houses can be distinguished. */
const HOUSE_ZOOM = 17;
/** Metres within which the mark is where something was chosen. */
const THERE = 2;

/** Search, map, mark and words, with Done and Cancel: what is picked is shown, and handed over on Done alone. */
export class PickerPanel {
  readonly element = make("div", "bt-pick");
  readonly #input = make("input");
  readonly #place = make("div", "bt-map");
  readonly #summary = make("p", "bt-picked");
  readonly #done = button("bt-send", say("Done"));
  readonly #cancel = button("bt-look", say("Cancel"));
  #box: SearchBox | undefined;
  #map: InteractiveMap | undefined;
  #picked: Picked | undefined;
  /** What was chosen by name: as long as the mark is there, that is meant. */
  #chosen: RecordFeature | undefined;
  /** True while the map moves to what was chosen. */
  #isGoing = false;
  #turn = 0;

  constructor(private readonly options: PickerOptions) {
    this.#input.type = "text";
    this.#input.setAttribute("aria-label", say("Search"));
    this.#input.placeholder = say("Search");
    this.#summary.setAttribute("role", "status");
    this.#done.addEventListener("click", () => this.#picked && options.done(this.#picked));
    this.#cancel.addEventListener("click", () => options.cancelled());
    const row = make("p", "bt-picker-row");
    row.append(this.#done, this.#cancel);
    this.element.append(this.#input, this.#place, this.#summary, row);
  }

  /** Begins; its element is on the page by then. */
  begin(): void {
    const { client, label, rule = {}, at, zoom, text, mapStyle, night, relief, pictures, geolocation } = this.options;
    adopt(this.element.getRootNode() as Document, PICKER_STYLE);
    const { kinds, countries } = rule;
    this.#box = new SearchBox(this.#input, {
      client,
      narrow: () => ({ kinds: kinds?.join(",") || undefined, countries: countries?.join(",") || undefined }),
      chosen: (suggestion, typed) => void this.#choose(suggestion, typed),
    });
    const map = new InteractiveMap(this.#place, {
      client,
      label,
      mapStyles: MAP_STYLES,
      device: true,
      nearest: (spot, _why, signal) => nearestFor(client, { name: "", ...rule }, spot, signal),
      ...(mapStyle ? { mapStyle } : {}),
      ...(night === undefined ? {} : { night }),
      ...(relief ? { relief } : {}),
      ...shownPictures(pictures),
      ...(geolocation ? { geolocation } : {}),
      ...(at ? { view: { at, zoom: zoom ?? HOUSE_ZOOM } } : {}),
    });
    this.#map = map;
    this.#hear(undefined);
    map.onFollow((followed) => this.#hear(followed));
    map.onPress((spot) => map.glide({ at: spot, zoom: map.view.zoom }));
    map.setAiming(true);
    if (text) {
      this.#input.value = text;
      this.#input.dispatchEvent(new InputEvent("input", { inputType: "insertText", data: text }));
    }
  }

  /** Shows a record, as if it was chosen. */
  show(record: RecordFeature): void {
    const { at, line, kind } = record.properties;
    this.#chosen = record;
    this.#isGoing = true;
    this.#box?.setText(line);
    this.#set({ at, record });
    const isHouse = kind === "address" || kind === "place";
    const map = this.#map;
    if (!map) return;
    // the mark is in the middle: an area is shown around its own point
    map.glide({ at, zoom: isHouse ? Math.max(map.view.zoom, HOUSE_ZOOM) : zoomOf(kind) });
  }

  destroy(): void {
    this.#turn++;
    this.#box?.destroy();
    this.#map?.destroy();
    this.#box = undefined;
    this.#map = undefined;
    this.element.remove();
  }

  async #choose({ ref }: Suggestion, typed: number): Promise<void> {
    const turn = ++this.#turn;
    try {
      const record = await this.options.client.record(ref, { typed });
      if (turn === this.#turn) this.show(record);
    } catch (error) {
      if (turn !== this.#turn) return;
      this.#box?.say(
        error instanceof LookupError ? error.message : say("The address search does not work at the moment."),
      );
    }
  }

  #hear(followed: Followed | undefined): void {
    const { address, at } = followed ?? {};
    const { anywhere } = this.options.rule ?? {};
    if (!at) {
      this.#set(undefined, say("Move the map until the pin is on the place."));
      return;
    }
    if (this.#chosen && this.#isMeant(this.#chosen.properties.at, at, followed?.isLast ?? false)) return;
    this.#chosen = undefined;
    if (anywhere) this.#set({ at, ...(address ? { record: address } : {}) });
    else if (address) this.#set({ at: address.properties.at, record: address });
    else this.#set(undefined, say("Nothing was found near this position."));
  }

  /** Whether what was chosen is still meant: the mark is there, or the map is on the way there. */
  #isMeant(chosen: Position, at: Position, isLast: boolean): boolean {
    const isThere = sphereDistance(at, chosen) < THERE;
    if (isThere) this.#isGoing = false;
    // where the map was on the way, or before it set out, is not where anybody put the mark
    const isOnTheWay = !isLast || sphereDistance(at, this.#map?.view.at ?? at) >= THERE;
    return isThere || (this.#isGoing && isOnTheWay);
  }

  #set(picked: Picked | undefined, words?: string): void {
    this.#picked = picked;
    this.#done.disabled = !picked;
    this.#summary.textContent = words ?? picked?.record?.properties.line ?? positionWords(picked?.at);
  }
}

/** How close the map goes to an area, or to a street. */
const zoomOf = (kind: string) =>
  ({ street: 16, block: 16, postcode: 14, district: 14, town: 13, county: 9 })[kind] ?? 7;

const positionWords = (at: Position | undefined) => (at ? `${at.lat.toFixed(6)}, ${at.lon.toFixed(6)}` : "");

function button(className: string, words: string): HTMLButtonElement {
  const made = make("button", className, words);
  made.type = "button";
  return made;
}
