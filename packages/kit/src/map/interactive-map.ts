import { type Position, unproject } from "@bibliotope/core/geo";
import {
  type MapLine,
  type MapStyle,
  type PictureTiles,
  pictureUrlTrouble,
  startingPositions,
  toPosition,
  toScreen,
  type View,
  viewOf,
  zoomed,
  zoomedInto,
} from "@bibliotope/core/map";
import type { Located } from "../locate/locate.ts";
import { adopt } from "../style.ts";
import { say } from "../words/say.ts";
import { describeView } from "./describe.ts";
import { Follower } from "./follow.ts";
import { type GestureTarget, listenForGestures, type Spot } from "./gestures.ts";
import { MapControls, type MapControlsTarget } from "./map-controls.ts";
import type { Marker, MarkerEvent, OfGroup } from "./marker.ts";
import { Markers } from "./markers.ts";
import {
  DEVICE_ZOOM,
  type Followed,
  HOUSE_ZOOM,
  type MapOptions,
  START_PATIENCE,
  START_ZOOM,
  WORLD,
} from "./options.ts";
import { Overlay } from "./overlay.ts";
import { drawCredit } from "./pictures.ts";
import { ReliefDoor } from "./relief-door.ts";
import { MAP_STYLE } from "./style.ts";
import { readUrlView, writeUrlView } from "./url-view.ts";
import { Viewer } from "./viewer.ts";

export type { MapLine, MapMarker } from "@bibliotope/core/map";

/** What is followed, and where it is. */
type Moving = Pick<Followed, "why" | "at">;

/** Milliseconds that a picture waits for what has not come, and between polls. */
const PATIENCE = 10_000;
const STEP = 50;

/** CSS pixels from the edge within which a marker that has the keyboard is brought further in. */
const EDGE = 40;

/**
 * A map drawn by ourselves on a canvas: tiles painted in a worker, names and markers over them. Pan and zoom by
 * pointer, touch, wheel, keys and buttons.
 */
export class InteractiveMap {
  readonly element: HTMLElement;
  readonly #viewer: Viewer;
  readonly #controls: MapControls;
  readonly #markers: Markers;
  readonly #follower = new Follower<Moving>((moving, isLast, signal) => this.#follow(moving, isLast, signal));
  readonly #stop = new AbortController();
  readonly #relief: ReliefDoor;
  readonly #pressed: ((at: Position) => void)[] = [];
  readonly #hovered: ((marker: number | undefined) => void)[] = [];
  readonly #followed: ((followed: Followed) => void)[] = [];
  readonly #happened: ((event: MarkerEvent) => void)[] = [];
  readonly #located: ((located: Located) => void)[] = [];
  #under: number | undefined;
  readonly #overlay: Overlay;
  /** What the view was fitted to, as long as nobody moved it since. */
  #fitted: readonly Position[] = [];
  /** Positions that are shown at the start, and the view of them: the map's own as long as nobody moves it. */
  #starting: readonly Position[] = [];
  #started: View | undefined;
  /** Settled when it is known where the map starts. */
  #known: Promise<unknown> | undefined;

  constructor(
    container: HTMLElement,
    private readonly options: MapOptions,
  ) {
    const { client, langs = navigator.languages, pictures = [] } = options;
    for (const { name, url } of pictures) {
      const trouble = pictureUrlTrouble(url);
      if (trouble) throw new RangeError(`The address of the pictures “${name}” ${trouble}.`);
    }
    const kept = options.viewInUrl ? readUrlView(location.hash) : {};
    const dark = matchMedia("(prefers-color-scheme: dark)");
    const mapStyle = kept.mapStyle ?? options.mapStyle ?? "streets";
    const view = kept.view ?? options.view;
    this.#viewer = new Viewer(
      {
        tileUrl: (z, x, y) => client.tileUrl(z, x, y),
        langs,
        view: view ?? WORLD,
        mapStyle,
        pictures: this.#picturesCalled(options.shows),
        night: options.night ?? dark.matches,
      },
      {
        over: (frame) => this.#overlay.draw(frame, this.#viewer, this.#markers, this.#controls.chosen),
        lettersCame: () => this.#overlay.lettersCame(),
        painted: (isComplete, what) => {
          this.#controls.painted(what);
          this.element.dataset.complete = String(isComplete);
        },
        moved: () => this.#moved(),
        rested: () => this.#rested(),
        resized: (size) => {
          if (this.#fitted.length && size.width && size.height) this.show(viewOf(this.#fitted, size, HOUSE_ZOOM));
          else if (!this.#start()) this.#describe();
        },
      },
    );
    this.#overlay = new Overlay(options.wholeNames ?? false);
    this.#markers = new Markers(
      options.grouped ?? false,
      () => this.#viewer.draw(),
      (event) => this.#markerHappened(event),
    );
    this.#controls = new MapControls(this.#viewer.element, options, this.#markers, mapStyle, this.#ways());
    this.#controls.setPictures(this.#viewer.pictures);
    this.element = this.#controls.element;
    this.#relief = new ReliefDoor({
      client,
      label: options.label,
      langs,
      margin: options.reliefMargin,
      element: this.element,
      mapStyle: () => this.mapStyle,
      isNight: () => this.#viewer.isNight,
      say: (words) => this.say(words),
      closed: () => this.element.focus(),
    });
    adopt(container.getRootNode() as Document, MAP_STYLE);
    container.append(this.element);
    this.#moved();
    if (view || options.starts) this.#viewer.begin();
    // whoever makes a map may show something at once: then nobody need be asked
    else this.#known = Promise.resolve().then(() => this.#askWhereToStart());
    if (!view) this.#started = this.view;
    if (!view && options.starts) this.#starting = startingPositions(options.starts);
    const { signal } = this.#stop;
    listenForGestures(this.element, this.#gestures(), signal);
    if (options.night === undefined) dark.addEventListener("change", () => this.setNight(dark.matches), { signal });
  }

  get view(): View {
    return this.#viewer.view;
  }

  get mapStyle(): MapStyle {
    return this.#viewer.mapStyle;
  }

  /** What the map shows, in degrees. */
  bounds(): { west: number; south: number; east: number; north: number } {
    const { width, height } = this.#viewer.size;
    const { lat: north, lon: west } = this.#position({ x: 0, y: 0 });
    const { lat: south, lon: east } = this.#position({ x: width, y: height });
    return { west, south, east, north };
  }

  /** Shows a view at once. */
  show(view: View): void {
    this.#viewer.show(view);
  }

  /** Goes to a view: by a short move when it is near, at once when it is far or the system asks for less motion. */
  glide(to: View): void {
    this.#viewer.glide(to);
  }

  /**
   * Puts markers on the map in place of those before; those without a position are not shown, and said.
   * @param ofGroup style of their groups; with their count, in their markers' colour where all have one, when not given
   */
  setMarkers(markers: readonly Marker[], ofGroup?: OfGroup): void {
    this.#markers.set(markers, ofGroup);
    this.#controls.markersChanged();
  }

  /** Draws lines between positions, by great circles, each with the length unless it is bare. */
  setLines(lines: readonly MapLine[]): void {
    this.#overlay.lines = lines.filter(({ points }) => points.length > 1);
    this.#viewer.draw();
  }

  /** Shows the spot that was looked up, or none. */
  setAim(at: Position | undefined): void {
    this.#overlay.wanted = at;
    this.#viewer.draw();
  }

  /** Moves the map under a fixed aim, the address in the middle following; or no longer. */
  setAiming(isAiming: boolean): void {
    if (isAiming === this.#overlay.isAiming) return;
    this.#overlay.isAiming = isAiming;
    this.#controls.setAiming(isAiming);
    if (isAiming) this.#follower.move({ why: "aim", at: this.view.at }, true);
    else this.#follower.stop();
    this.#viewer.draw();
  }

  /** Shows a marker's card, or none. */
  openCard(place: number | undefined): void {
    this.#controls.openCard(place, false);
  }

  /** Puts the marker of a found address and goes there; stays at the person's own zoom when that is close already. */
  showAnswer(marker: Marker & { at: Position }): void {
    this.#fitted = [];
    this.setMarkers([{ ...marker, marked: true }]);
    this.#relief.show(marker);
    if (!this.#overlay.isAiming)
      this.glide({ at: marker.at, zoom: this.view.zoom >= 15 ? this.view.zoom : HOUSE_ZOOM });
  }

  /** Shows the ground in relief around the marker that is highlighted, or the middle of the map. Loads what draws it. */
  openRelief(): Promise<void> {
    const { all, placed } = this.#markers;
    const place = placed.find((one) => all[one].marked) ?? (placed.length === 1 ? placed[0] : undefined);
    if (place === undefined) return this.#relief.open({ at: this.view.at });
    return this.#relief.open({ at: this.#markers.at(place), label: all[place].label });
  }

  /** Back from the relief to the flat map. */
  closeRelief(): void {
    this.#relief.close();
  }

  /** Shows a message on the map until the next one; none with an empty text. */
  say(words: string): void {
    this.#controls.say(words);
  }

  /** Hears of a press without a move, by pointer, or by Enter for the middle of the map. */
  onPress(heard: (at: Position) => void): void {
    this.#pressed.push(heard);
  }

  /** Hears which marker the pointer is on, by place in the list. */
  onHover(heard: (marker: number | undefined) => void): void {
    this.#hovered.push(heard);
  }

  /** Hears what lies under a marker that is dragged, and under the aim: four times a second at most. */
  onFollow(heard: (followed: Followed) => void): void {
    this.#followed.push(heard);
  }

  /** Hears what happens to any marker. */
  onMarker(heard: (event: MarkerEvent) => void): void {
    this.#happened.push(heard);
  }

  /** Hears where the device is, or why that is not known. */
  onDevice(heard: (located: Located) => void): void {
    this.#located.push(heard);
  }

  /** Shows some positions, with room around them; one alone as closely as a house. Keeps them in sight when resized. */
  fit(positions: readonly Position[]): void {
    this.#fitted = positions;
    if (positions.length) this.glide(viewOf(positions, this.#viewer.size, HOUSE_ZOOM));
  }

  setNight(night: boolean): void {
    this.#viewer.change({ night });
  }

  setMapStyle(mapStyle: MapStyle): void {
    this.#viewer.change({ mapStyle, pictures: undefined });
    this.#controls.setMapStyle(mapStyle);
    this.#controls.setPictures(undefined);
    this.#rested();
  }

  /** Name of the pictures that are shown in place of a map style; undefined when none are. */
  get pictures(): string | undefined {
    return this.#viewer.pictures?.name;
  }

  /**
   * Shows pictures of one's own in place of the map style, or the map style again.
   * @param name one of those that the map was made with
   * @throws RangeError for others
   */
  setPictures(name: string | undefined): void {
    const pictures = this.#picturesCalled(name);
    this.#viewer.change({ pictures });
    this.#controls.setPictures(pictures);
    this.#rested();
  }

  destroy(): void {
    this.#follower.stop();
    this.#stop.abort();
    this.#relief.destroy();
    this.#controls.destroy();
    this.#viewer.destroy();
  }

  /**
   * What the map shows, as a picture in device pixels, with the attribution of pictures that are shown. Waits until all of it has come,
   * ten seconds at most.
   */
  async picture(): Promise<HTMLCanvasElement> {
    await this.#known;
    this.#viewer.wake();
    for (let waited = 0; waited < PATIENCE && this.element.dataset.complete !== "true"; waited += STEP)
      await new Promise((resolve) => setTimeout(resolve, STEP));
    const canvas = this.#viewer.picture();
    const credit = this.#viewer.pictures?.attribution;
    if (credit) drawCredit(canvas, credit, this.#viewer.size.width);
    return canvas;
  }

  #picturesCalled(name: string | undefined): PictureTiles | undefined {
    if (name === undefined) return undefined;
    const found = this.options.pictures?.find((one) => one.name === name);
    if (!found) throw new RangeError(`The map has no pictures called “${name}”.`);
    return found;
  }

  /** Hears where the service has data, and starts there; waits a moment at most. */
  #askWhereToStart(): Promise<unknown> | undefined {
    const { signal } = this.#stop;
    if (signal.aborted) return undefined;
    if (this.view !== this.#started) {
      this.#viewer.begin();
      return undefined;
    }
    const answer = this.options.client.countries(signal).then(
      ({ countries }) => {
        this.#starting = startingPositions(countries.flatMap(({ bbox }) => (bbox ? [bbox] : [])));
        this.#start();
      },
      // without an answer there is the world to move about in
      () => undefined,
    );
    const known = Promise.race([answer, new Promise((resolve) => setTimeout(resolve, START_PATIENCE))]);
    this.#viewer.begin(known);
    return known;
  }

  /** Shows where the data lies, as long as nobody has moved the map. @returns whether it did */
  #start(): boolean {
    const { size } = this.#viewer;
    if (!this.#starting.length || this.view !== this.#started || !size.width || !size.height) return false;
    this.show(viewOf(this.#starting, size, START_ZOOM));
    this.#started = this.view;
    return true;
  }

  #position(spot: Spot): Position {
    return toPosition(this.view, this.#viewer.size, spot);
  }

  /** What the controls may do with the map. */
  #ways(): MapControlsTarget {
    const viewer = this.#viewer;
    return {
      view: () => viewer.view,
      size: () => viewer.size,
      zoomBy: (steps) =>
        this.#byHand(zoomed(viewer.view, viewer.size, Math.round(viewer.view.zoom) + steps, viewer.middle)),
      setMapStyle: (mapStyle) => this.setMapStyle(mapStyle),
      setPictures: (name) => this.setPictures(name),
      aim: () => this.setAiming(!this.#overlay.isAiming),
      take: () => this.#take(viewer.view.at),
      choose: (place) => {
        this.#setUnder(place);
        if (place !== undefined) this.#reach(place);
        viewer.draw();
      },
      moveMarker: (dx, dy) => this.#markers.moveBy(dx, dy, viewer.view, viewer.size),
      showDevice: (device) => {
        this.#overlay.device = device;
        viewer.draw();
      },
      followDevice: ({ at }) => viewer.glide({ at, zoom: Math.max(viewer.view.zoom, DEVICE_ZOOM) }),
      located: (located) => this.#located.forEach((heard) => void heard(located)),
      relief: () => void this.openRelief(),
    };
  }

  #gestures(): GestureTarget {
    const viewer = this.#viewer;
    const under = (spot: Spot) => this.#markers.under(spot, viewer.view, viewer.size);
    return {
      view: () => viewer.view,
      size: () => viewer.size,
      show: (view) => {
        this.#fitted = [];
        this.#controls.letGo();
        viewer.show(view);
      },
      glide: (view) => this.#byHand(view),
      press: (spot) => this.#press(spot),
      hover: (spot) => this.#setUnder(spot && under(spot)),
      box: (from, to) => {
        this.#overlay.box = from && [from, to];
        viewer.draw();
      },
      boxed: (from, to) => this.#byHand(zoomedInto(viewer.view, viewer.size, from, to)),
      lift: (spot) => {
        const place = under(spot);
        if (place === undefined || !this.#markers.all[place].draggable) return false;
        this.#controls.openCard(undefined, false);
        this.#markers.lift(place);
        return true;
      },
      moveLifted: (dx, dy) => this.#markers.moveBy(dx, dy, viewer.view, viewer.size),
      drop: (isKept) => (isKept ? this.#markers.drop() : this.#markers.putBack()),
    };
  }

  /** The person wants another view: what was fitted or followed is given up. */
  #byHand(view: View): void {
    this.#fitted = [];
    this.#controls.letGo();
    this.glide(view);
  }

  #setUnder(marker: number | undefined): void {
    if (marker === this.#under) return;
    const { all } = this.#markers;
    if (this.#under !== undefined && all[this.#under]?.at) this.#markers.tell("leave", this.#under);
    this.#under = marker;
    if (marker !== undefined) this.#markers.tell("enter", marker);
    const kind = marker === undefined ? "" : all[marker].draggable ? "draggable" : all[marker].card ? "card" : "";
    this.element.dataset.under = kind;
    for (const heard of this.#hovered) heard(marker);
  }

  #press(spot: Spot): void {
    const { view, size } = this.#viewer;
    const group = this.#markers.groupUnder(spot, view, size);
    if (group) {
      this.#byHand({ at: unproject(group), zoom: Math.max(view.zoom, this.#markers.apartAt(group)) });
      return;
    }
    const place = this.#markers.under(spot, view, size);
    // a marker is not the ground under it
    if (place !== undefined) {
      this.#controls.pressMarker(place, false);
      return;
    }
    this.#controls.openCard(undefined, false);
    this.#take(this.#position(spot));
  }

  #take(at: Position): void {
    for (const heard of this.#pressed) heard(at);
  }

  /** Brings a marker into sight, and out of the group. */
  #reach(place: number): void {
    const { view, size } = this.#viewer;
    const at = this.#markers.at(place);
    const { x, y } = toScreen(view, size, at);
    const zoom = this.#markers.isGrouped(place, view) ? this.#markers.aloneAt(place) : view.zoom;
    if (!size.width) return;
    const isInside = x > EDGE && y > EDGE && x < size.width - EDGE && y < size.height - EDGE;
    if (zoom !== view.zoom || !isInside) this.glide({ at, zoom });
  }

  #markerHappened(event: MarkerEvent): void {
    for (const heard of this.#happened) heard(event);
    const { type, at } = event;
    if (type === "move" || type === "drop") this.#follower.move({ why: "drag", at }, type === "drop");
    if (type === "putback") this.#follower.stop();
    if (type === "drop") this.#controls.markersChanged();
  }

  async #follow({ why, at }: Moving, isLast: boolean, signal: AbortSignal): Promise<void> {
    if (!this.#followed.length && why === "drag") return;
    const { client, nearest } = this.options;
    try {
      const address = nearest
        ? await nearest(at, why, signal)
        : (await client.reverse(at, { kinds: "address" }, signal)).features[0];
      if (signal.aborted) return;
      if (why === "aim")
        this.#controls.sayAimed(address?.properties.line ?? say("Nothing was found near this position."));
      for (const heard of this.#followed) heard({ why, at, address, isLast });
    } catch (error) {
      if (!signal.aborted) this.say(error instanceof Error ? error.message : String(error));
    }
  }

  #moved(): void {
    const { at, zoom } = this.view;
    this.element.dataset.view = `${at.lat.toFixed(5)},${at.lon.toFixed(5)},${zoom.toFixed(2)}`;
    if (this.#overlay.isAiming) this.#follower.move({ why: "aim", at }, false);
  }

  /** The map came to rest: what it shows is said anew. */
  #rested(): void {
    this.#describe();
    if (this.#overlay.isAiming) this.#follower.move({ why: "aim", at: this.view.at }, true);
    if (this.options.viewInUrl)
      history.replaceState(history.state, "", writeUrlView(location.hash, this.view, this.mapStyle));
  }

  #describe(): void {
    this.#controls.describe(describeView(this.view, this.#viewer.size, this.pictures ?? this.mapStyle));
  }
}
