import { greatCircle, metresPerPixel, type Position, project } from "../geo/index.ts";
import { geodesic } from "../geodesic/index.ts";
import type { MarkerGroup } from "./groups.ts";
import { type Label, type LabelBox, placeLabels, type ScreenBox } from "./labels.ts";
import { lengthText } from "./length-text.ts";
import { drawLabels, fontOf, LOCAL_FONT, spacedText } from "./letter.ts";
import type { Painter } from "./painter.ts";
import type { Palette } from "./palettes.ts";
import { drawChosen, drawDevice } from "./place-signs.ts";
import { drawAim, drawGroup, drawLine, drawMarker, type MarkerSign } from "./signs.ts";
import { originOf, type Size, scaleLength, squareToScreen, toScreen, type View, worldSize } from "./view.ts";

/** From this zoom on, nobody needs the country's name. */
const LAST_COUNTRY_ZOOM = 9.5;

/** Of more markers than these, names do not keep clear. */
const MOST_KEPT = 200;

/** Where a marker is, and how it looks. */
export interface MapMarker extends Omit<MarkerSign, "x" | "y" | "lifted" | "within"> {
  at: Position;
  /** Where it was lifted off to be moved. */
  from?: Position;
}

/** Where the device is, by its own measurement. */
export interface DevicePosition {
  at: Position;
  /** Metres around it within which it is sure to be. */
  within: number;
}

/** A line between two or more positions, by great circles. */
export interface MapLine {
  points: readonly Position[];
  /** Colour of the ink; that of the positions when none is given. */
  colour?: string;
  /** True for one of many: drawn without the length. */
  isBare?: boolean;
  /** Words at the middle, `{length}` in them for the length; that alone when not given. */
  words?: string;
  /** True for a way by road, which is drawn through. */
  isRoad?: boolean;
}

/** A group of markers, and the colour of their ribbons; madder when none is given. */
export interface SignedGroup extends Pick<MarkerGroup, "x" | "y" | "count"> {
  colour?: string;
  /** Shown on the tab in place of the count; a few characters. */
  words?: string;
}

/** What is on a group's tab. */
export const tabOf = ({ count, words }: SignedGroup) => words ?? String(count);

/** What is on a map besides its names. */
export interface Over {
  markers?: readonly MapMarker[];
  /** Groups of markers; their middles on the projected square. */
  groups?: readonly SignedGroup[];
  lines?: readonly MapLine[];
  /** The spot that was looked up. */
  aim?: Position;
  device?: DevicePosition;
  /** The marker that has the keyboard. */
  chosen?: Position;
  /** Draws the placed names in another way. @param widthOf CSS pixels of a name's text */
  letter?: (placed: readonly LabelBox[], widthOf: (box: LabelBox) => number) => void;
  /** Draws signs in another way; where one cannot, it returns false and the sign is drawn as always. */
  stamp?: {
    marker(sign: MarkerSign): boolean;
    group(at: { x: number; y: number }, group: SignedGroup): boolean;
  };
  /** BCP 47, for lengths; English when not given. */
  lang?: string;
  /** True to leave out names that the edge would cut: on a picture that nobody can move. */
  isStill?: boolean;
}

/** Draws what lies over the tiles: names, lines, markers, the scale. Lengths in CSS pixels. */
export function drawOver(
  painter: Painter,
  view: View,
  size: Size,
  palette: Palette,
  labels: readonly Label[],
  { markers = [], groups = [], lines = [], aim, device, chosen, letter, stamp, lang, isStill = false }: Over,
): void {
  const isShown = ({ what, rank }: Label) => {
    if (what === "country") return view.zoom < LAST_COUNTRY_ZOOM;
    return what !== "street" || rank <= (view.zoom >= 15.5 ? Infinity : view.zoom >= 14.5 ? 7 : 0);
  };
  const placed = placeLabels(
    labels,
    (point) => squareToScreen(view, size, point),
    worldSize(view.zoom),
    (label) => widthOf(painter, label),
    {
      isShown,
      kept: [
        ...(markers.length <= MOST_KEPT ? markers.map(({ at }) => markerBox(toScreen(view, size, at))) : []),
        // on a map that moves, names would jump as they pass the scale
        ...(isStill ? [scaleBox(size)] : []),
      ],
      ...(isStill ? { within: size } : {}),
    },
  );
  if (letter) letter(placed, ({ label }) => Math.max(widthOf(painter, label), localWidth(painter, label)));
  else drawLabels(painter, placed, palette);
  drawScale(painter, view, size, palette, lang);
  for (const line of lines)
    drawLine(painter, strokesOf(line.points, view, size), wordsAt(line, lang), palette, line.colour, line.isRoad);
  if (device) {
    const radius = device.within / metresPerPixel(view.zoom, device.at.lat);
    drawDevice(painter, toScreen(view, size, device.at), radius, `± ${lengthText(device.within, lang)}`, palette);
  }
  if (aim) drawAim(painter, toScreen(view, size, aim), palette);
  for (const group of groups) {
    const at = squareToScreen(view, size, group);
    if (!stamp?.group(at, group)) drawGroup(painter, at, tabOf(group), group.colour ?? palette.madder, palette);
  }
  for (const marker of [...markers].sort((a, b) => Number(a.marked ?? false) - Number(b.marked ?? false))) {
    const lifted = marker.from && toScreen(view, size, marker.from);
    const sign = { ...marker, lifted, ...toScreen(view, size, marker.at), within: size.width };
    if (!stamp?.marker(sign)) drawMarker(painter, sign, palette);
  }
  if (chosen) drawChosen(painter, toScreen(view, size, chosen), palette);
}

/** A line on the screen, in one piece over the 180th meridian too; of copies of the world the one nearest to the begin. */
function strokesOf(points: readonly Position[], view: View, size: Size): { x: number; y: number }[] {
  const origin = originOf(view, size);
  const world = worldSize(view.zoom);
  const begin = project(points[0]).x;
  let shift = -Math.round(begin - project(view.at).x);
  const spots: { x: number; y: number }[] = [];
  points.slice(1).forEach((point, i) => {
    const way = greatCircle(points[i], point);
    for (const at of i === 0 ? way : way.slice(1)) {
      const { x, y } = project(at);
      spots.push({ x: origin.x + (x + shift) * world, y: origin.y + y * world });
    }
    shift += Math.round((way[way.length - 1].lon - point.lon) / 360);
  });
  return spots;
}

/** What a marker takes of the screen, without the label. */
const markerBox = ({ x, y }: { x: number; y: number }): ScreenBox => ({
  left: x - 10,
  top: y - 10,
  right: x + 10,
  bottom: y + 38,
});

const wordsAt = ({ isBare, words, points }: MapLine, lang?: string) =>
  isBare ? "" : (words ?? "{length}").replace("{length}", () => lengthOf(points, lang));

/** How long a line is, to be read. */
function lengthOf(points: readonly Position[], lang?: string): string {
  const metres = points.slice(1).reduce((sum, point, i) => sum + geodesic(points[i], point).metres, 0);
  return lengthText(metres, lang);
}

/** Widths of labels met lately; measuring is dear, and every frame asks for the same ones. */
const widths = new Map<string, number>();
const MOST_WIDTHS = 4000;

function widthOf(painter: Painter, label: Label): number {
  return measured(painter, fontOf(label), spacedText(label));
}

/** Width of the local name below a label's text, if there is one. */
function localWidth(painter: Painter, { local }: Label): number {
  return local ? measured(painter, LOCAL_FONT, local) : 0;
}

function measured(painter: Painter, font: string, text: string): number {
  const key = `${font} ${text}`;
  let width = widths.get(key);
  if (width === undefined) {
    if (widths.size >= MOST_WIDTHS) widths.clear();
    painter.font = font;
    width = painter.measureText(text).width;
    widths.set(key, width);
  }
  return width;
}

/** Fonts have come: what was measured in another one no longer holds. */
export function forgetWidths(): void {
  widths.clear();
}

/** CSS pixels that the scale takes at most: of the length, and of what it keeps from the corner. */
const SCALE_LENGTH = 130;
const SCALE_RIGHT = 16;
const SCALE_BOTTOM = 24;
/** CSS pixels of a scale below which its nought has no room. */
const SHORT_SCALE = 62;

const longestScale = ({ width }: Size) => Math.min(SCALE_LENGTH, width / 3);

const scaleBox = (size: Size): ScreenBox => ({
  left: size.width - SCALE_RIGHT - longestScale(size),
  top: size.height - SCALE_BOTTOM - 16,
  right: size.width,
  bottom: size.height,
});

function drawScale(painter: Painter, view: View, size: Size, palette: Palette, lang?: string): void {
  const perPixel = metresPerPixel(view.zoom, view.at.lat);
  const metres = scaleLength(perPixel, longestScale(size));
  const length = metres / perPixel;
  const right = size.width - SCALE_RIGHT;
  const y = size.height - SCALE_BOTTOM;
  painter.fillStyle = palette.paper;
  painter.fillRect(right - length - 1, y - 1, length + 2, 6);
  painter.fillStyle = palette.ink;
  painter.fillRect(right - length, y, length, 4);
  painter.fillStyle = palette.paper;
  painter.fillRect(right - length / 2, y + 1, length / 2 - 1, 2);
  painter.font = '11px "JetBrains Mono Variable", "JetBrains Mono", monospace';
  painter.textBaseline = "bottom";
  painter.lineWidth = 3;
  painter.strokeStyle = palette.halo;
  for (const [text, x, align] of [
    [length < SHORT_SCALE ? "" : "0", right - length, "left"],
    [lengthText(metres, lang, true), right, "right"],
  ] as const) {
    painter.textAlign = align;
    painter.strokeText(text, x, y - 2);
    painter.fillStyle = palette.ink;
    painter.fillText(text, x, y - 2);
  }
}
