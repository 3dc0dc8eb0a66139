import type { Position } from "@bibliotope/core/geo";
import {
  type DevicePosition,
  drawAim,
  drawFrame,
  drawOver,
  type Label,
  type MapLine,
  type SheetStyle,
} from "@bibliotope/core/sheet";
import type { Spot } from "./gestures.ts";
import type { Markers } from "./markers.ts";
import type { Viewer } from "./viewer.ts";

/** What stands on a map besides its markers. */
export class Overlay {
  lines: readonly MapLine[] = [];
  /** The spot that was asked about. */
  asked: Position | undefined;
  device: DevicePosition | undefined;
  isAiming = false;
  /** Corners on the screen of a part of the map that is being chosen. */
  box: [Spot, Spot] | undefined;

  /** @param wholeNames leaves out names that the edge would cut */
  constructor(private readonly wholeNames: boolean) {}

  /** Draws it with names and markers over the tiles. @param chosen the marker that has the keyboard */
  draw(
    context: CanvasRenderingContext2D,
    { view, size, middle }: Viewer,
    markers: Markers,
    chosen: number | undefined,
    labels: readonly Label[],
    style: SheetStyle,
  ): void {
    drawOver(context, view, size, style, labels, {
      ...markers.over(view, size),
      lines: this.lines,
      aim: this.asked,
      device: this.device,
      whole: this.wholeNames,
      chosen: chosen === undefined ? undefined : markers.at(chosen),
    });
    if (this.isAiming) drawAim(context, middle, style);
    if (this.box) drawFrame(context, ...this.box, style);
  }
}
