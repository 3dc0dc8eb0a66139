import type { Painter } from "./painter.ts";
import type { Palette } from "./palettes.ts";

/** A marker: a ring on the exact spot with a bookmark ribbon hanging below it. */
export interface MarkerSign {
  /** CSS pixels of the exact spot. */
  x: number;
  y: number;
  /** Colour of the ring and ribbon; madder when none is given. */
  colour?: string;
  /** Written beside it. */
  label?: string;
  /** Written on the ribbon, which is hollow until it is marked. */
  number?: number;
  /** How large it is beside others; 1 when not given. */
  size?: number;
  /** Drawn larger, above all others. */
  marked?: boolean;
  /** Set back behind the others; or standing on a spot that is not sure, its ring broken. */
  state?: "quiet" | "unsure";
  /** The developer's own picture in place of ours. */
  picture?: MarkerPicture;
  /** CSS pixels of the spot it was lifted off to be moved. */
  lifted?: { x: number; y: number };
  /** CSS pixels of the picture's breadth, for the label to stay within. */
  within?: number;
}

/** A picture that represents a marker. */
export interface MarkerPicture {
  /** Of the kind that the painter's context draws. */
  image: unknown;
  /** CSS pixels. */
  width: number;
  height: number;
  /** CSS pixels from the north-west corner to what is on the spot; the middle of the foot when not given. */
  foot?: { x: number; y: number };
}

/** CSS pixels by which a marker is above the spot while it is moved. */
const LIFT = 12;

/** Radians of a circle. */
export const turnAround = 2 * Math.PI;

/** Draws one marker. */
export function drawMarker(painter: Painter, sign: MarkerSign, palette: Palette): void {
  const colour = sign.colour ?? palette.madder;
  const size = (sign.size ?? 1) * (sign.marked ? 1.25 : 1);
  painter.save();
  if (sign.lifted) thread(painter, sign.lifted, sign, palette);
  painter.translate(sign.x, sign.y - (sign.lifted ? LIFT : 0));
  painter.lineJoin = "round";
  if (sign.state === "quiet") painter.globalAlpha = 0.5;
  if (sign.picture) picture(painter, sign.picture);
  else {
    const hasNumber = sign.number !== undefined;
    const isHollow = hasNumber && !sign.marked;
    ribbon(painter, size, { isBroad: hasNumber, isHollow }, colour, palette);
    if (hasNumber) {
      painter.font = `${10 * size}px "JetBrains Mono Variable", "JetBrains Mono", monospace`;
      painter.textAlign = "center";
      painter.textBaseline = "middle";
      painter.fillStyle = isHollow ? colour : palette.paper;
      painter.fillText(String(sign.number), 0, 20 * size);
    }
    ring(painter, size, colour, palette, sign.state === "unsure");
  }
  if (sign.label) label(painter, sign.label, sign, size, palette);
  painter.restore();
}

function picture(painter: Painter, { image, width, height, foot }: MarkerPicture): void {
  const { x, y } = foot ?? { x: width / 2, y: height };
  painter.drawImage(image as never, -x, -y, width, height);
}

/** A shadow on the ground below a lifted marker, and a thread to where it was. */
function thread(
  painter: Painter,
  from: { x: number; y: number },
  to: { x: number; y: number },
  palette: Palette,
): void {
  painter.fillStyle = palette.ink;
  painter.globalAlpha = 0.25;
  painter.beginPath();
  painter.arc(to.x, to.y, 6, 0, turnAround);
  painter.fill();
  painter.globalAlpha = 1;
  painter.beginPath();
  painter.moveTo(from.x, from.y);
  painter.lineTo(to.x, to.y);
  painter.strokeStyle = palette.ink;
  painter.lineWidth = 1.1;
  painter.setLineDash([2, 4]);
  painter.stroke();
  painter.setLineDash([]);
  painter.beginPath();
  painter.arc(from.x, from.y, 4, 0, turnAround);
  painter.stroke();
}

function ribbon(
  painter: Painter,
  size: number,
  { isBroad = false, isHollow = false }: { isBroad?: boolean; isHollow?: boolean },
  colour: string,
  palette: Palette,
): void {
  const half = (isBroad ? 9 : 6) * size;
  painter.beginPath();
  painter.moveTo(-half, 5 * size);
  painter.lineTo(half, 5 * size);
  painter.lineTo(half, 32 * size);
  painter.lineTo(0, 27 * size);
  painter.lineTo(-half, 32 * size);
  painter.closePath();
  painter.strokeStyle = isHollow ? colour : palette.paper;
  painter.lineWidth = isHollow ? 1.4 : 2.4;
  painter.stroke();
  painter.fillStyle = isHollow ? palette.paper : colour;
  painter.fill();
}

function ring(painter: Painter, size: number, colour: string, palette: Palette, isBroken: boolean): void {
  for (const [radius, fill] of [
    [9.2, palette.paper],
    [8, colour],
    [4.6, palette.paper],
    [1.8, colour],
  ] as const) {
    painter.beginPath();
    painter.arc(0, 0, radius * size, 0, turnAround);
    painter.fillStyle = fill;
    painter.fill();
  }
  if (!isBroken) return;
  painter.beginPath();
  painter.arc(0, 0, 6.3 * size, 0, turnAround);
  painter.strokeStyle = palette.paper;
  painter.lineWidth = 3.6;
  painter.setLineDash([2.5, 2.45]);
  painter.stroke();
  painter.setLineDash([]);
}

/** CSS pixels from a marker's spot to the label, for a size of 1, and free around the label's text. */
const BESIDE_SPOT = 14;
const AROUND_TEXT = 10;

/** A label to the right; to the left where the edge would cut it; shortened where neither side has room. */
function label(painter: Painter, text: string, { x, within }: MarkerSign, size: number, palette: Palette): void {
  painter.font = '14px "Literata Variable", Literata, Georgia, serif';
  painter.textAlign = "left";
  painter.textBaseline = "middle";
  const widthOf = (own: string) => painter.measureText(own).width + 2 * AROUND_TEXT;
  const [toRight, toLeft] =
    within === undefined ? [Infinity, 0] : [within - x, x].map((room) => room - BESIDE_SPOT * size);
  const isLeft = widthOf(text) > toRight && toLeft > toRight;
  const shown = shortened(text, (own) => widthOf(own) <= (isLeft ? toLeft : toRight));
  const width = widthOf(shown);
  const left = isLeft ? -BESIDE_SPOT * size - width : BESIDE_SPOT * size;
  painter.fillStyle = palette.label;
  painter.beginPath();
  painter.rect(left, -13, width, 26);
  painter.fill();
  painter.fillStyle = palette.labelText;
  painter.fillText(shown, left + AROUND_TEXT, 1);
}

/** As much of a text as fits, with an ellipsis where it had to be cut; always its first letter. */
function shortened(text: string, fits: (text: string) => boolean): string {
  if (fits(text)) return text;
  const characters = [...text];
  const cut = (length: number) => `${characters.slice(0, length).join("").trimEnd()}…`;
  let length = characters.length - 1;
  while (length > 1 && !fits(cut(length))) length--;
  return cut(length);
}

/** Draws the aim: four short strokes around the spot that was looked up, which itself stays free. */
export function drawAim(painter: Painter, at: { x: number; y: number }, palette: Palette): void {
  painter.save();
  painter.translate(at.x, at.y);
  for (const [colour, width] of [
    [palette.paper, 5],
    [palette.ink, 1.8],
  ] as const) {
    painter.beginPath();
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      painter.moveTo(dx * 6, dy * 6);
      painter.lineTo(dx * 15, dy * 15);
    }
    painter.strokeStyle = colour;
    painter.lineWidth = width;
    painter.stroke();
  }
  painter.restore();
}

/**
 * Draws a line over paper of its own, with a small ring at each end and its length beside the middle.
 * @param spots CSS pixels of the points, at least two
 * @param length as it is to be read; none where it is empty
 * @param isRoad whether it is drawn through, as a way by road, rather than in dashes
 */
export function drawLine(
  painter: Painter,
  spots: readonly { x: number; y: number }[],
  length: string,
  palette: Palette,
  colour = palette.line,
  isRoad = false,
): void {
  painter.save();
  painter.lineJoin = "round";
  painter.lineCap = "round";
  for (const [ink, width, dash] of [
    [palette.paper, isRoad ? 7 : 5, []],
    [colour, isRoad ? 3.5 : 2, isRoad ? [] : [9, 5]],
  ] as const) {
    painter.beginPath();
    painter.moveTo(spots[0].x, spots[0].y);
    for (const { x, y } of spots.slice(1)) painter.lineTo(x, y);
    painter.strokeStyle = ink;
    painter.lineWidth = width;
    painter.setLineDash([...dash]);
    painter.stroke();
  }
  painter.setLineDash([]);
  for (const { x, y } of [spots[0], spots[spots.length - 1]]) {
    for (const [radius, fill] of [
      [5.5, palette.paper],
      [4, colour],
    ] as const) {
      painter.beginPath();
      painter.arc(x, y, radius, 0, turnAround);
      painter.fillStyle = fill;
      painter.fill();
    }
  }
  if (length) drawBeside(painter, besideMiddleOf(spots), length, palette, colour);
  painter.restore();
}

/** A few words on paper of their own. */
function drawBeside(painter: Painter, at: { x: number; y: number }, text: string, palette: Palette, ink: string): void {
  painter.font = '12px "JetBrains Mono Variable", "JetBrains Mono", monospace';
  painter.textAlign = "center";
  painter.textBaseline = "middle";
  const half = painter.measureText(text).width / 2 + 6;
  painter.fillStyle = palette.paper;
  painter.fillRect(at.x - half, at.y - 10, 2 * half, 20);
  painter.fillStyle = ink;
  painter.fillText(text, at.x, at.y + 1);
}

/** Pixels between a line and the length that is next to it. */
const BESIDE = 18;

/** The spot beside a line half-way along it, below or to the right. */
function besideMiddleOf(spots: readonly { x: number; y: number }[]): { x: number; y: number } {
  const lengths = spots.slice(1).map(({ x, y }, i) => Math.hypot(x - spots[i].x, y - spots[i].y));
  let left = lengths.reduce((sum, length) => sum + length, 0) / 2;
  const at = lengths.findIndex((length) => {
    if (length >= left && length > 0) return true;
    left -= length;
    return false;
  });
  if (at < 0) return { x: spots[0].x, y: spots[0].y + BESIDE };
  const [dx, dy] = [spots[at + 1].x - spots[at].x, spots[at + 1].y - spots[at].y];
  const share = left / lengths[at];
  const side = (dx < 0 ? -BESIDE : BESIDE) / lengths[at];
  // a level line has it below, an upright one has it further off, since text is broad
  const broad = 1 + Math.abs(dy) / lengths[at];
  return { x: spots[at].x + dx * share - dy * side * broad, y: spots[at].y + dy * share + dx * side };
}

/** Draws a group: a sheaf of three ribbons with a few words on a tab, such as their number. */
export function drawGroup(
  painter: Painter,
  at: { x: number; y: number },
  text: string,
  colour: string,
  palette: Palette,
): void {
  drawSheaf(painter, at, text.length, colour, palette);
  painter.save();
  painter.translate(at.x, at.y);
  letterCount(painter, text, palette);
  painter.restore();
}

/** Draws a count, or a digit of one, around the middle of a group's tab. */
export function letterCount(painter: Painter, text: string, palette: Palette): void {
  painter.font = COUNT_FONT;
  painter.textAlign = "center";
  painter.textBaseline = "middle";
  painter.fillStyle = palette.ink;
  painter.fillText(text, 0, 0);
}

const COUNT_FONT = '13px "JetBrains Mono Variable", "JetBrains Mono", monospace';
/** CSS pixels of half the narrowest tab, and of what is free beside the number. */
const HALF_TAB = 22;
const BESIDE_COUNT = 9;

/** CSS pixels of a digit of a count. */
export function digitWidth(painter: Painter): number {
  painter.font = COUNT_FONT;
  return painter.measureText("0").width;
}

/** Draws a group without the number. @param digits of the number, for which the tab has room */
export function drawSheaf(
  painter: Painter,
  at: { x: number; y: number },
  digits: number,
  colour: string,
  palette: Palette,
): void {
  painter.save();
  painter.translate(at.x, at.y);
  for (const shift of [-13, 13, 0]) {
    painter.save();
    painter.translate(shift, shift === 0 ? 3 : 0);
    ribbon(painter, 1, {}, colour, palette);
    painter.restore();
  }
  const half = Math.max(HALF_TAB, (digits * digitWidth(painter)) / 2 + BESIDE_COUNT);
  painter.beginPath();
  painter.rect(-half, -13, 2 * half, 24);
  painter.fillStyle = palette.paper;
  painter.fill();
  painter.strokeStyle = colour;
  painter.lineWidth = 2;
  painter.stroke();
  painter.restore();
}
