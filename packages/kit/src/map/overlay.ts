import type { Position } from "@bibliotope/core/geo";
import { type DevicePosition, drawAim, drawFrame, drawOver, type MapLine } from "@bibliotope/core/map";
import { wordsLang } from "../words/say.ts";
import type { Spot } from "./gestures.ts";
import { LabelSprites } from "./label-sprites.ts";
import type { Markers } from "./markers.ts";
import { SignStamps } from "./sign-stamps.ts";
import type { Frame, Viewer } from "./viewer.ts";

/** What is on a map besides its markers. */
export class Overlay {
  lines: readonly MapLine[] = [];
  /** The spot that was looked up. */
  wanted: Position | undefined;
  device: DevicePosition | undefined;
  isAiming = false;
  /** Corners on the screen of a part of the map that is being chosen. */
  box: [Spot, Spot] | undefined;

  readonly #sprites = new LabelSprites();
  readonly #stamps = new SignStamps();

  /** @param wholeNames leaves out names that the edge would cut */
  constructor(private readonly wholeNames: boolean) {}

  /** A font came: names are lettered anew. */
  lettersCame(): void {
    this.#sprites.forget();
    this.#stamps.forget();
  }

  /**
   * Draws it with names and markers over the tiles.
   * @param chosen the marker that has the keyboard
   * @returns whether all of it is drawn; if not, the rest wants another frame
   */
  draw(
    { context, labels, palette, ratio }: Frame,
    { view, size, middle }: Viewer,
    markers: Markers,
    chosen: number | undefined,
  ): boolean {
    let isWhole = true;
    drawOver(context, view, size, palette, labels, {
      ...markers.over(view, size),
      lines: this.lines,
      aim: this.wanted,
      device: this.device,
      lang: wordsLang(),
      isStill: this.wholeNames,
      letter: (placed, widthOf) => {
        isWhole = this.#sprites.draw(context, placed, palette, ratio, widthOf);
      },
      stamp: this.#stamps.on(context, palette, ratio),
      chosen: chosen === undefined ? undefined : markers.at(chosen),
    });
    if (this.isAiming) drawAim(context, middle, palette);
    if (this.box) drawFrame(context, ...this.box, palette);
    return isWhole;
  }
}
