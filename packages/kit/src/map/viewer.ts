import {
  DAY,
  forgetWidths,
  type Label,
  type MapStyle,
  NIGHT,
  type Palette,
  type PictureTiles,
  type Size,
  toScreen,
  type View,
} from "@bibliotope/core/map";
import { contextOf } from "./context.ts";
import { TileLayer } from "./draw.ts";
import { make } from "./make.ts";
import { Tiles } from "./tiles.ts";

/** Tiles are painted at least this fine, so that they stay sharp between two zooms. */
const FINEST = 1.5;
/** Milliseconds of a short move. */
const MOVE = 140;
/** Milliseconds without a move after which the map has come to rest. */
const REST = 180;
/** Milliseconds after which a frame is late. */
const LATE = 24;

export interface ViewerOptions {
  tileUrl(z: number, x: number, y: number): string;
  langs: readonly string[];
  view: View;
  mapStyle: MapStyle;
  /** Shown in place of the map style. */
  pictures: PictureTiles | undefined;
  night: boolean;
}

/** A frame whose tiles are drawn. */
export interface Frame {
  context: CanvasRenderingContext2D;
  labels: readonly Label[];
  palette: Palette;
  /** Device pixels to a CSS pixel. */
  ratio: number;
}

export interface ViewerHooks {
  /** Draws what lies over the tiles. @returns whether all of it is drawn; if not, the rest wants another frame */
  over(frame: Frame): boolean;
  lettersCame(): void;
  /** A frame was drawn. */
  painted(isComplete: boolean, what: { isMissing: boolean; isLost: boolean }): void;
  moved(view: View): void;
  rested(view: View): void;
  resized(size: Size): void;
}

/** How far outside of what is seen of the page a map is drawn already. */
const NEAR = "200px";

/** The picture of a map: which part it shows, in which style, and the drawing of it, once a frame at most. */
export class Viewer {
  readonly element = make("div", "bt-view");
  /** Names, lines and markers, over the tiles. */
  readonly #over = make("canvas");
  readonly #sizes = new ResizeObserver(() => this.#resize());
  readonly #nearness = new IntersectionObserver(
    (entries) => entries.some((entry) => entry.isIntersecting) && this.wake(),
    {
      rootMargin: NEAR,
    },
  );
  /** Whether it is drawn: not before it is near what a person sees of the page. */
  #isAwake = false;
  readonly #stop = new AbortController();
  #tiles: Tiles;
  #view: View;
  #mapStyle: MapStyle;
  #pictures: PictureTiles | undefined;
  #night: boolean;
  #size: Size = { width: 0, height: 0 };
  readonly #layer = new TileLayer();
  /** The frame before: when it was, and at which zoom; and how many came late since the zoom began to change. */
  #painted = { at: 0, zoom: Number.NaN };
  #late = 0;
  #frame = 0;
  #glide: { from: View; to: View; began: number } | undefined;
  #rest: ReturnType<typeof setTimeout> | undefined;
  #retry: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly options: ViewerOptions,
    private readonly hooks: ViewerHooks,
  ) {
    this.element.setAttribute("aria-hidden", "true");
    this.element.append(this.#layer.element, this.#over);
    this.#view = options.view;
    this.#mapStyle = options.mapStyle;
    this.#pictures = options.pictures;
    this.#night = options.night;
    this.#tiles = this.#makeTiles();
    const { signal } = this.#stop;
    // a font was loaded: names are measured and lettered anew
    document.fonts.addEventListener("loadingdone", () => this.#lettersCame(), { signal });
    window.addEventListener("online", () => this.draw(), { signal });
    window.addEventListener("beforeprint", () => this.wake(), { signal });
  }

  /**
   * Begins to watch its size, when it is in a page, and to draw once it is near.
   * @param known what is waited for before it draws: what it is to show
   */
  begin(known?: Promise<unknown>): void {
    this.#sizes.observe(this.element);
    const watch = () => this.#stop.signal.aborted || this.#nearness.observe(this.element);
    if (known !== undefined) void known.then(watch);
    else watch();
  }

  /** Draws from now on, near or not. */
  wake(): void {
    if (this.#isAwake) return;
    this.#isAwake = true;
    this.#nearness.disconnect();
    this.draw();
  }

  get view(): View {
    return this.#view;
  }

  get size(): Size {
    return this.#size;
  }

  get mapStyle(): MapStyle {
    return this.#mapStyle;
  }

  get pictures(): PictureTiles | undefined {
    return this.#pictures;
  }

  get isNight(): boolean {
    return this.#night;
  }

  /** CSS pixels of the middle. */
  get middle(): { x: number; y: number } {
    return { x: this.#size.width / 2, y: this.#size.height / 2 };
  }

  /** Shows a view at once. */
  show(view: View): void {
    this.#glide = undefined;
    this.#moveTo(view);
  }

  /** Goes to a view: by a short move when it is near, at once when it is far or the system asks for less motion. */
  glide(to: View): void {
    const { x, y } = toScreen(this.#view, this.#size, to.at);
    const { width, height } = this.#size;
    const far =
      Math.abs(x - width / 2) > 2 * width ||
      Math.abs(y - height / 2) > 2 * height ||
      Math.abs(to.zoom - this.#view.zoom) > 2;
    if (far || !this.#isAwake || matchMedia("(prefers-reduced-motion: reduce)").matches) {
      this.show(to);
      return;
    }
    this.#glide = { from: this.#view, to, began: performance.now() };
    this.draw();
  }

  /** Shows another map style, pictures in place of it, or by another light. */
  change(appearance: Partial<Pick<ViewerOptions, "mapStyle" | "night" | "pictures">>): void {
    const now = { mapStyle: this.#mapStyle, night: this.#night, pictures: this.#pictures };
    const { mapStyle, night, pictures } = { ...now, ...appearance };
    if (mapStyle === now.mapStyle && night === now.night && pictures === now.pictures) return;
    this.#mapStyle = mapStyle;
    this.#night = night;
    this.#pictures = pictures;
    this.#tiles.destroy();
    this.#tiles = this.#makeTiles();
    this.draw();
  }

  /** What is drawn now: tiles, names and markers. */
  picture(): HTMLCanvasElement {
    const copy = make("canvas");
    copy.width = this.#over.width;
    copy.height = this.#over.height;
    const context = contextOf(copy);
    for (const canvas of [...this.#layer.element.querySelectorAll("canvas"), this.#over])
      if (!canvas.hidden) context.drawImage(canvas, 0, 0);
    return copy;
  }

  draw(): void {
    this.#frame ||= requestAnimationFrame(() => {
      this.#frame = 0;
      this.#paint();
    });
  }

  destroy(): void {
    cancelAnimationFrame(this.#frame);
    clearTimeout(this.#rest);
    clearTimeout(this.#retry);
    this.#stop.abort();
    this.#sizes.disconnect();
    this.#nearness.disconnect();
    this.#tiles.destroy();
  }

  #lettersCame(): void {
    forgetWidths();
    this.hooks.lettersCame();
    this.draw();
  }

  #makeTiles(): Tiles {
    const appearance = {
      night: this.#night,
      mapStyle: this.#mapStyle,
      langs: this.options.langs,
      pictures: this.#pictures,
    };
    return new Tiles(this.options.tileUrl, () => this.draw(), appearance);
  }

  #resize(): void {
    const { clientWidth: width, clientHeight: height } = this.element;
    this.#size = { width, height };
    const ratio = this.#ratio();
    this.#over.width = Math.round(width * ratio);
    this.#over.height = Math.round(height * ratio);
    this.hooks.resized(this.#size);
    this.#paint();
  }

  #ratio(): number {
    return Math.min(3, devicePixelRatio || 1);
  }

  #paint(): void {
    if (!this.#isAwake || !this.#size.width || !this.#size.height) return;
    this.#moveOn();
    const context = contextOf(this.#over);
    const ratio = this.#ratio();
    const palette = this.#night ? NIGHT : DAY;
    const { labels, complete, missing, lost } = this.#layer.draw(this.#tiles, {
      view: this.#view,
      size: this.#size,
      ratio,
      fineness: Math.max(ratio, FINEST),
      palette,
      isHasty: this.#isHasty(),
    });
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, this.#size.width, this.#size.height);
    const isWhole = this.hooks.over({ context, labels, palette, ratio });
    this.hooks.painted(complete && isWhole, { isMissing: missing, isLost: lost });
    if (!isWhole) this.draw();
    // what failed is requested again, also while nobody moves the map
    if (missing || lost)
      this.#retry ??= setTimeout(() => {
        this.#retry = undefined;
        this.draw();
      }, Tiles.AGAIN);
  }

  /** True while the zoom changes and the machine does not keep up; what is at rest is always drawn well. */
  #isHasty(): boolean {
    const now = performance.now();
    const isZooming = this.#painted.zoom !== this.#view.zoom && now - this.#painted.at < REST;
    const isLate = isZooming && now - this.#painted.at > LATE;
    this.#late = isZooming ? this.#late + (isLate ? 1 : 0) : 0;
    this.#painted = { at: now, zoom: this.#view.zoom };
    return this.#late > 2;
  }

  /** The next step of a short move. */
  #moveOn(): void {
    if (!this.#glide) return;
    const { from, to, began } = this.#glide;
    const t = Math.min(1, (performance.now() - began) / MOVE);
    if (t === 1) {
      this.#glide = undefined;
      this.#moveTo(to);
      return;
    }
    const eased = 1 - (1 - t) ** 3;
    const mix = (a: number, b: number) => a + (b - a) * eased;
    // the shorter way round
    const east = to.at.lon - from.at.lon - 360 * Math.round((to.at.lon - from.at.lon) / 360);
    this.#moveTo({
      at: { lat: mix(from.at.lat, to.at.lat), lon: from.at.lon + east * eased },
      zoom: mix(from.zoom, to.zoom),
    });
  }

  #moveTo(view: View): void {
    this.#view = view;
    this.hooks.moved(view);
    clearTimeout(this.#rest);
    this.#rest = setTimeout(() => {
      this.hooks.rested(this.#view);
      this.draw();
    }, REST);
    this.draw();
  }
}
