import { type Position, unproject } from "@bibliotope/core/geo";
import {
  DAY,
  drawOver,
  forgetWidths,
  type MapLine,
  type MapMarker,
  type MarkerGroup,
  MarkerGroups,
  NIGHT,
  type SheetKind,
  type Size,
  squareToScreen,
  toPosition,
  toScreen,
  type View,
  viewOf,
  zoomed,
} from "@bibliotope/core/sheet";
import type { Client } from "../client/client.ts";
import { adopt } from "../style.ts";
import { drawTiles } from "./draw.ts";
import { listenForGestures } from "./gestures.ts";
import { MAP_STYLE } from "./style.ts";
import { Tiles } from "./tiles.ts";

export type { MapLine, MapMarker } from "@bibliotope/core/sheet";

export interface MapOptions {
  client: Client;
  /** Its name for screen readers. */
  label: string;
  /** What stands there before anything is known: the whole archipelago when not given. */
  view?: View;
  /** Markers that would cover one another stand in groups; a press on a group goes to where it comes apart. */
  grouped?: boolean;
  /** Streets when not given. */
  sheet?: SheetKind;
  /** Languages of names (BCP 47), the most wanted first; those of the browser when not given. */
  langs?: readonly string[];
  /** By night; follows the system when not given. */
  night?: boolean;
}

const WHOLE: View = { at: { lat: -35.55, lon: -21.45 }, zoom: 7.5 };
/** Zoom at which a found house is shown. */
const HOUSE_ZOOM = 16.4;
/** Tiles are painted at least this fine, so that they stay sharp between two zooms. */
const FINEST = 1.5;
/** CSS pixels to the side of and above a marker's spot, and below it, that belong to the marker. */
const MARKER_REACH = 11;
const MARKER_HEIGHT = 36;
/** The same to the sides of a group. */
const GROUP_REACH = 26;
/** CSS pixels beyond the edge from which a marker's ribbon or label may still reach into the map. */
const OUT_OF_SIGHT = 300;
/** Markers that are named in words; of more only their number is said. */
const MOST_NAMED = 12;
/** Milliseconds of a short move. */
const MOVE = 140;

/**
 * A map drawn by ourselves on a canvas: tiles painted in a worker, names and markers over them. Pan and zoom by
 * pointer, touch, wheel, keys and buttons.
 */
export class SheetMap {
  readonly element = document.createElement("div");
  readonly #canvas = document.createElement("canvas");
  readonly #described = document.createElement("p");
  readonly #stop = new AbortController();
  readonly #sizes: ResizeObserver;
  readonly #pressed: ((at: Position) => void)[] = [];
  readonly #hovered: ((marker: number | undefined) => void)[] = [];
  #under: number | undefined;
  #tiles: Tiles;
  #night: boolean;
  #sheet: SheetKind;
  #view: View;
  #size: Size = { width: 0, height: 0 };
  #markers: readonly MapMarker[] = [];
  #groups: MarkerGroups | undefined;
  /** The groups of a whole zoom, as long as neither changes. */
  #grouped: { zoom: number; groups: MarkerGroup[] } | undefined;
  #lines: readonly MapLine[] = [];
  #aim: Position | undefined;
  /** What the view was fitted to, as long as nobody moved it since. */
  #fitted: readonly Position[] = [];
  #frame = 0;
  #glide: { from: View; to: View; began: number } | undefined;

  constructor(
    container: HTMLElement,
    private readonly options: MapOptions,
  ) {
    this.#view = options.view ?? WHOLE;
    const dark = matchMedia("(prefers-color-scheme: dark)");
    this.#night = options.night ?? dark.matches;
    this.#sheet = options.sheet ?? "streets";
    this.#tiles = this.#makeTiles();
    adopt(container.getRootNode() as Document, MAP_STYLE);
    this.#build();
    container.append(this.element);
    this.#describe();
    listenForGestures(
      this.element,
      {
        view: () => this.#view,
        size: () => this.#size,
        show: (view) => {
          this.#fitted = [];
          this.show(view);
        },
        glide: (view) => {
          this.#fitted = [];
          this.glide(view);
        },
        press: (spot) => this.#press(spot),
      },
      this.#stop.signal,
    );
    if (options.night === undefined)
      dark.addEventListener("change", () => this.setNight(dark.matches), { signal: this.#stop.signal });
    this.element.addEventListener("pointermove", (event) => this.#hover(event), { signal: this.#stop.signal });
    this.element.addEventListener("pointerleave", () => this.#setUnder(undefined), { signal: this.#stop.signal });
    this.#sizes = new ResizeObserver(() => this.#resize());
    this.#sizes.observe(this.element);
    document.fonts.addEventListener("loadingdone", () => this.#lettersCame(), { signal: this.#stop.signal });
  }

  get view(): View {
    return this.#view;
  }

  /** What the map shows, in degrees. */
  bounds(): { west: number; south: number; east: number; north: number } {
    const { lat: north, lon: west } = toPosition(this.#view, this.#size, { x: 0, y: 0 });
    const { lat: south, lon: east } = toPosition(this.#view, this.#size, { x: this.#size.width, y: this.#size.height });
    return { west, south, east, north };
  }

  /** Shows a view at once. */
  show(view: View): void {
    this.#glide = undefined;
    this.#view = view;
    this.#describe();
    this.#draw();
  }

  /** Goes to a view: by a short move when it is near, at once when it is far or the system asks for less motion. */
  glide(to: View): void {
    const { x, y } = toScreen(this.#view, this.#size, to.at);
    const { width, height } = this.#size;
    const far =
      Math.abs(x - width / 2) > 2 * width ||
      Math.abs(y - height / 2) > 2 * height ||
      Math.abs(to.zoom - this.#view.zoom) > 2;
    if (far || matchMedia("(prefers-reduced-motion: reduce)").matches) {
      this.show(to);
      return;
    }
    this.#glide = { from: this.#view, to, began: performance.now() };
    this.#draw();
  }

  setMarkers(markers: readonly MapMarker[]): void {
    this.#markers = markers;
    this.#groups = this.options.grouped ? new MarkerGroups(markers.map(({ at }) => at)) : undefined;
    this.#grouped = undefined;
    this.#describe();
    this.#draw();
  }

  /** Draws lines between positions, by great circles, each with its length. */
  setLines(lines: readonly MapLine[]): void {
    this.#lines = lines.filter(({ points }) => points.length > 1);
    this.#draw();
  }

  /** Shows the spot that was asked about, or none. */
  setAim(at: Position | undefined): void {
    this.#aim = at;
    this.#draw();
  }

  /** Puts the marker of a found address and goes there; stays at the person's own zoom when that is close already. */
  showAnswer({ at, label }: { at: Position; label: string }): void {
    this.#fitted = [];
    this.setMarkers([{ at, label, marked: true }]);
    this.glide({ at, zoom: this.#view.zoom >= 15 ? this.#view.zoom : HOUSE_ZOOM });
  }

  /** Hears of a press without a move, by pointer, or by Enter for the middle of the map. */
  onPress(heard: (at: Position) => void): void {
    this.#pressed.push(heard);
  }

  /** Hears which marker the pointer stands on, by its place in the list. */
  onHover(heard: (marker: number | undefined) => void): void {
    this.#hovered.push(heard);
  }

  /** Shows some positions, with room around them; one alone as closely as a house. Keeps them in sight when resized. */
  fit(positions: readonly Position[]): void {
    this.#fitted = positions;
    if (positions.length) this.glide(viewOf(positions, this.#size, HOUSE_ZOOM));
  }

  setNight(night: boolean): void {
    if (night === this.#night) return;
    this.#night = night;
    this.#tiles.destroy();
    this.#tiles = this.#makeTiles();
    this.#draw();
  }

  setSheet(sheet: SheetKind): void {
    if (sheet === this.#sheet) return;
    this.#sheet = sheet;
    this.#tiles.destroy();
    this.#tiles = this.#makeTiles();
    this.#draw();
  }

  destroy(): void {
    cancelAnimationFrame(this.#frame);
    this.#stop.abort();
    this.#sizes.disconnect();
    this.#tiles.destroy();
    this.element.remove();
  }

  #makeTiles(): Tiles {
    return new Tiles(
      (z, x, y) => this.options.client.tileUrl(z, x, y),
      () => this.#draw(),
      { night: this.#night, sheet: this.#sheet, langs: this.options.langs ?? navigator.languages },
    );
  }

  #build(): void {
    const { element } = this;
    element.className = "bt-sheet";
    element.tabIndex = 0;
    element.setAttribute("role", "application");
    element.setAttribute("aria-roledescription", "map");
    element.setAttribute(
      "aria-label",
      `${this.options.label}. Arrow keys move it, plus and minus zoom, Enter takes the address in the middle.`,
    );
    this.#canvas.setAttribute("aria-hidden", "true");
    this.#described.className = "bt-unseen";
    this.#described.setAttribute("role", "status");
    const buttons = document.createElement("div");
    buttons.className = "bt-zoom";
    for (const [text, name, by] of [
      ["+", "Zoom in", 1],
      ["−", "Zoom out", -1],
    ] as const) {
      const button = document.createElement("button");
      button.type = "button";
      button.textContent = text;
      button.setAttribute("aria-label", name);
      button.addEventListener("click", () =>
        this.#zoomTo(
          zoomed(this.#view, this.#size, Math.round(this.#view.zoom) + by, {
            x: this.#size.width / 2,
            y: this.#size.height / 2,
          }),
        ),
      );
      buttons.append(button);
    }
    element.append(this.#canvas, buttons, this.#described);
  }

  /** The person wants another zoom: what was fitted is given up. */
  #zoomTo(view: View): void {
    this.#fitted = [];
    this.glide(view);
  }

  #hover({ clientX, clientY }: PointerEvent): void {
    const { left, top } = this.element.getBoundingClientRect();
    const isUnder = ({ at }: MapMarker) => {
      const spot = toScreen(this.#view, this.#size, at);
      const [dx, dy] = [clientX - left - spot.x, clientY - top - spot.y];
      return Math.abs(dx) <= MARKER_REACH && dy >= -MARKER_REACH && dy <= MARKER_HEIGHT;
    };
    const { alone } = this.#standing();
    this.#setUnder(alone.find((place) => isUnder(this.#markers[place])));
  }

  #setUnder(marker: number | undefined): void {
    if (marker === this.#under) return;
    this.#under = marker;
    for (const heard of this.#hovered) heard(marker);
  }

  #press(spot: { x: number; y: number }): void {
    const group = this.#standing().groups.find((one) => {
      const { x, y } = squareToScreen(this.#view, this.#size, one);
      return Math.abs(spot.x - x) <= GROUP_REACH && spot.y >= y - MARKER_REACH && spot.y <= y + MARKER_HEIGHT;
    });
    if (group) {
      this.#zoomTo({ at: unproject(group), zoom: Math.max(this.#view.zoom, this.#groups!.apartAt(group)) });
      return;
    }
    const at = toPosition(this.#view, this.#size, spot);
    for (const heard of this.#pressed) heard(at);
  }

  /** Which markers stand alone in sight, by their places in the list, and which groups there are. */
  #standing(): { alone: number[]; groups: MarkerGroup[] } {
    if (!this.#groups) return { alone: [...this.#markers.keys()], groups: [] };
    const zoom = Math.floor(this.#view.zoom);
    if (this.#grouped?.zoom !== zoom) this.#grouped = { zoom, groups: this.#groups.at(zoom) };
    const { width, height } = this.#size;
    const inSight = this.#grouped.groups.filter((group) => {
      const { x, y } = squareToScreen(this.#view, this.#size, group);
      return x > -OUT_OF_SIGHT && x < width + OUT_OF_SIGHT && y > -OUT_OF_SIGHT && y < height + OUT_OF_SIGHT;
    });
    return {
      alone: inSight.flatMap(({ count, first }) => (count === 1 ? [first] : [])),
      groups: inSight.filter(({ count }) => count > 1),
    };
  }

  #resize(): void {
    const { clientWidth: width, clientHeight: height } = this.element;
    this.#size = { width, height };
    if (this.#fitted.length && width && height) this.show(viewOf(this.#fitted, this.#size, HOUSE_ZOOM));
    const ratio = this.#ratio();
    this.#canvas.width = Math.round(width * ratio);
    this.#canvas.height = Math.round(height * ratio);
    this.#paint();
  }

  #ratio(): number {
    return Math.min(3, devicePixelRatio || 1);
  }

  /** A font was loaded: names are measured and lettered anew. */
  #lettersCame(): void {
    forgetWidths();
    this.#draw();
  }

  #draw(): void {
    this.#frame ||= requestAnimationFrame(() => {
      this.#frame = 0;
      this.#paint();
    });
  }

  #paint(): void {
    if (!this.#size.width || !this.#size.height) return;
    this.#moveOn();
    const context = this.#canvas.getContext("2d")!;
    const ratio = this.#ratio();
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const style = this.#night ? NIGHT : DAY;
    const { labels, complete } = drawTiles(
      context,
      this.#tiles,
      this.#view,
      this.#size,
      Math.max(ratio, FINEST),
      style,
    );
    const { alone, groups } = this.#standing();
    const markers = alone.map((place) => this.#markers[place]);
    const over = { markers, groups, lines: this.#lines, aim: this.#aim };
    drawOver(context, this.#view, this.#size, style, labels, over);
    this.element.dataset.complete = String(complete);
  }

  /** The next step of a short move. */
  #moveOn(): void {
    if (!this.#glide) return;
    const { from, to, began } = this.#glide;
    const t = Math.min(1, (performance.now() - began) / MOVE);
    const eased = 1 - (1 - t) ** 3;
    const mix = (a: number, b: number) => a + (b - a) * eased;
    // the shorter way round
    const east = to.at.lon - from.at.lon - 360 * Math.round((to.at.lon - from.at.lon) / 360);
    this.#view = {
      at: { lat: mix(from.at.lat, to.at.lat), lon: from.at.lon + east * eased },
      zoom: mix(from.zoom, to.zoom),
    };
    if (t < 1) this.#draw();
    else {
      this.#glide = undefined;
      this.#view = to;
      this.#describe();
    }
  }

  /** Says in words what the map shows. */
  #describe(): void {
    const named = this.#markers.flatMap(({ label }) => (label ? [label] : []));
    const more = this.#markers.length > MOST_NAMED ? `${this.#markers.length} markers stand on the map.` : "";
    this.#described.textContent = more || (named.length ? `A marker stands at ${named.join(", ")}.` : "");
    const { at, zoom } = this.#view;
    this.element.dataset.view = `${at.lat.toFixed(5)},${at.lon.toFixed(5)},${zoom.toFixed(2)}`;
  }
}
