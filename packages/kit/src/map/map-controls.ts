import {
  type DevicePosition,
  type MapStyle,
  type PictureTiles,
  type Size,
  toScreen,
  type View,
} from "@bibliotope/core/map";
import { markPart } from "../form-parts.ts";
import type { Located } from "../locate/locate.ts";
import { say } from "../words/say.ts";
import { MarkerCard } from "./card.ts";
import { aimButton, reliefButton, StyleChoice, zoomButtons } from "./controls.ts";
import { describeMarkers, unsetWords } from "./describe.ts";
import { DeviceButton } from "./device.ts";
import type { HandOnTemplates } from "./hand-on.ts";
import { make } from "./make.ts";
import { nameOf } from "./marker.ts";
import type { Markers } from "./markers.ts";
import { Walker } from "./walker.ts";

export interface MapControlsOptions {
  /** What the map is called for screen readers. */
  label: string;
  /** Map styles to choose from; no choice when fewer than two are given, pictures among them. */
  mapStyles?: readonly MapStyle[];
  /** Picture tiles of one's own to choose from, in place of a map style; each under a name of its own. */
  pictures?: readonly PictureTiles[];
  /** Offers an aim: a mark in the middle, under which the map is moved. */
  aims?: boolean;
  /** Offers to show where the device is. */
  device?: boolean;
  /** Where the device's position comes from; the browser when not given. */
  geolocation?: Geolocation;
  /** Offers the relief: ground and roofs in three dimensions. */
  relief?: boolean;
  /** Where a place is handed on to; a `geo:` link when not given. */
  handOn?: HandOnTemplates;
}

export interface MapControlsTarget {
  view(): View;
  size(): Size;
  zoomBy(steps: number): void;
  setMapStyle(mapStyle: MapStyle): void;
  setPictures(name: string): void;
  aim(): void;
  /** Takes what is under the aim. */
  take(): void;
  /** The keyboard is on this marker, or on none any more. */
  choose(place: number | undefined): void;
  moveMarker(dx: number, dy: number): void;
  showDevice(device: DevicePosition | undefined): void;
  followDevice(device: DevicePosition): void;
  located(located: Located): void;
  relief(): void;
}

let maps = 0;

/** What is on and around a map besides the drawing: its buttons, cards, notes, words for screen readers. */
export class MapControls {
  readonly element = markPart(make("div", "bt-map-view"), "map");
  readonly #said = make("p", "bt-unseen");
  readonly #described = make("p", "bt-unseen");
  readonly #note = make("p", "bt-note");
  readonly #unset = make("p", "bt-unset");
  readonly #aimed = make("div", "bt-aimed");
  readonly #aimedLine = make("p");
  readonly #aim: HTMLButtonElement | undefined;
  readonly #device: DeviceButton | undefined;
  readonly #choice: StyleChoice | undefined;
  readonly #credit = make("p", "bt-credit");
  readonly #walker: Walker;
  #card: { card: MarkerCard; place: number; byKeyboard: boolean } | undefined;
  #chosen: number | undefined;
  #words = "";
  #isMissing = false;
  #isLost = false;
  #mapStyle: MapStyle;
  #pictures: PictureTiles | undefined;

  constructor(
    picture: HTMLElement,
    private readonly options: MapControlsOptions,
    private readonly markers: Markers,
    mapStyle: MapStyle,
    private readonly target: MapControlsTarget,
  ) {
    const { element } = this;
    element.tabIndex = 0;
    element.setAttribute("role", "application");
    element.setAttribute("aria-roledescription", "map");
    element.setAttribute(
      "aria-label",
      say("{label}. Arrow keys move it, plus and minus zoom, Enter selects the address in the centre.", {
        label: options.label,
      }),
    );
    this.#described.id = `bt-map-${++maps}`;
    element.setAttribute("aria-describedby", this.#described.id);
    for (const words of [this.#said, this.#note, this.#aimedLine]) words.setAttribute("role", "status");
    this.#walker = new Walker({
      places: () => markers.placed,
      nameOf: (place) => nameOf(markers.all[place], place),
      isDraggable: (place) => markers.all[place].draggable ?? false,
      lifted: () => markers.lifted,
      choose: (place) => this.#choose(place),
      press: (place) => this.pressMarker(place, true),
      lift: (place) => markers.lift(place),
      moveBy: (dx, dy) => target.moveMarker(dx, dy),
      drop: () => markers.drop(),
      putBack: () => markers.putBack(),
      close: () => this.openCard(undefined, true),
    });
    const tools = make("div", "bt-tools");
    if (options.aims) {
      this.#aim = aimButton(() => target.aim());
      tools.append(this.#aim);
    }
    if (options.device) {
      this.#device = new DeviceButton({
        show: (device) => target.showDevice(device),
        follow: (device) => target.followDevice(device),
        say: (words) => this.say(words),
        heard: (located) => target.located(located),
        from: options.geolocation,
      });
      tools.append(this.#device.button);
    }
    if (options.relief) tools.append(reliefButton(() => target.relief()));
    const head = make("div", "bt-head");
    this.#mapStyle = mapStyle;
    const { pictures = [] } = options;
    const mapStyles = options.mapStyles ?? (pictures.length ? [mapStyle] : []);
    if (mapStyles.length + pictures.length > 1) {
      this.#choice = new StyleChoice({
        ...{ mapStyles, pictures },
        styleChosen: (chosen) => target.setMapStyle(chosen),
        picturesChosen: (name) => target.setPictures(name),
      });
      this.#choice.show(mapStyle);
      head.append(this.#choice.element);
    }
    if (tools.childElementCount) head.append(tools);
    const take = make("button", "", say("Use this place"));
    take.type = "button";
    take.addEventListener("click", () => target.take());
    this.#aimed.append(this.#aimedLine, take);
    this.#aimed.hidden = true;
    const foot = make("div", "bt-foot");
    foot.append(this.#note, this.#unset, this.#aimed);
    element.append(
      picture,
      this.#walker.element,
      head,
      zoomButtons((by) => target.zoomBy(by)),
      foot,
    );
    element.append(this.#credit, this.#said, this.#described);
    this.#showNote();
    this.markersChanged();
  }

  /** The marker that has the keyboard. */
  get chosen(): number | undefined {
    return this.#chosen;
  }

  markersChanged(): void {
    const { all, placed } = this.markers;
    this.#walker.changed();
    const words = describeMarkers(all, placed);
    if (this.#said.textContent !== words) this.#said.textContent = words;
    this.#unset.textContent = unsetWords(all.length - placed.length, all.length);
    this.#unset.hidden = all.length === placed.length;
    if (this.#card && !all[this.#card.place]?.card) this.openCard(undefined, false);
  }

  describe(words: string): void {
    this.#described.textContent = words;
  }

  setMapStyle(mapStyle: MapStyle): void {
    this.#mapStyle = mapStyle;
    this.#choice?.show(mapStyle);
  }

  /** Pictures are shown in place of the map style: whoever made them is named. */
  setPictures(pictures: PictureTiles | undefined): void {
    this.#pictures = pictures;
    this.#choice?.show(pictures ?? this.#mapStyle);
    this.#credit.textContent = pictures?.attribution ?? "";
    this.#credit.hidden = !pictures;
    this.#isLost &&= Boolean(pictures);
    this.#showNote();
  }

  setAiming(isAiming: boolean): void {
    this.#aim?.setAttribute("aria-pressed", String(isAiming));
    this.#aimed.hidden = !isAiming;
    this.#aimedLine.textContent = "";
  }

  sayAimed(words: string): void {
    this.#aimedLine.textContent = words;
  }

  /** Shows a message on the map until the next one. */
  say(words: string): void {
    this.#words = words;
    this.#showNote();
  }

  /** The person moved the map: it no longer follows the device. */
  letGo(): void {
    this.#device?.letGo();
  }

  painted({ isMissing, isLost }: { isMissing: boolean; isLost: boolean }): void {
    if (isMissing !== this.#isMissing || isLost !== this.#isLost) {
      this.#isMissing = isMissing;
      this.#isLost = isLost;
      this.#showNote();
    }
    if (this.#card) this.#card.card.place(this.#spotOf(this.#card.place), this.target.size());
  }

  /** A marker was pressed, by pointer or by keyboard. */
  pressMarker(place: number, byKeyboard: boolean): void {
    this.markers.tell("press", place);
    if (this.markers.all[place]?.card) this.openCard(place, byKeyboard);
  }

  openCard(place: number | undefined, byKeyboard: boolean): void {
    if (this.#card) {
      const { card, place: before, byKeyboard: wasByKeyboard } = this.#card;
      this.#card = undefined;
      card.element.remove();
      if (this.markers.all[before]) this.markers.tell("close", before);
      if (place === undefined && wasByKeyboard) this.#walker.focus();
    }
    const card = place === undefined ? undefined : this.markers.all[place]?.card;
    if (place === undefined || !card) return;
    const shown = new MarkerCard(card, this.markers.at(place), this.options.handOn, () =>
      this.openCard(undefined, byKeyboard),
    );
    this.#card = { card: shown, place, byKeyboard };
    this.element.append(shown.element);
    shown.place(this.#spotOf(place), this.target.size());
    if (byKeyboard) shown.focus();
    this.markers.tell("open", place);
  }

  destroy(): void {
    this.#device?.stop();
    this.element.remove();
  }

  #choose(place: number | undefined): void {
    this.#chosen = place;
    this.target.choose(place);
  }

  #spotOf(place: number): { x: number; y: number } {
    return toScreen(this.target.view(), this.target.size(), this.markers.at(place));
  }

  #showNote(): void {
    const lost = this.#isLost && this.#pictures;
    const words =
      this.#words ||
      (this.#isMissing ? say("Parts of the map could not be loaded. Trying again.") : "") ||
      (lost ? say("“{name}” could not be loaded. The standard map is shown instead.", { name: lost.name }) : "");
    if (this.#note.textContent !== words) this.#note.textContent = words;
    this.#note.hidden = !words;
  }
}
