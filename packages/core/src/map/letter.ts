import { type Label, type LabelBox, LOCAL_LINE, PEAK_LINE } from "./labels.ts";
import type { Painter } from "./painter.ts";
import type { Palette } from "./palettes.ts";

/** Font of a kind of label; the serif is the page's when ours is not there. */
export function fontOf({ what, rank }: Pick<Label, "what" | "rank">): string {
  const family = '"Literata Variable", Literata, Georgia, serif';
  if (what === "country") return `italic ${rank === 1 ? 21 : rank === 2 ? 17 : 13.5}px ${family}`;
  if (what === "town") return `italic ${rank === 1 ? 19 : rank === 2 ? 15 : rank === 3 ? 12.5 : 11.5}px ${family}`;
  if (what === "water") return `italic 14px ${family}`;
  if (what === "peak" || what === "contour")
    return `${what === "peak" ? 11 : 9.5}px "JetBrains Mono Variable", "JetBrains Mono", monospace`;
  if (what === "park") return `italic 11.5px ${family}`;
  return `11px ${family}`;
}

/** Water and large towns are spaced out, as surveyors do. */
export function spacedText({ text, what, rank }: Label): string {
  return what === "water" || what === "country" || (what === "town" && rank === 1) ? [...text].join("\u200a") : text;
}

/** Font of a local name below another one. */
export const LOCAL_FONT = 'italic 11px "Literata Variable", Literata, Georgia, serif';

/** Draws the placed labels, each with a halo of the paper. */
export function drawLabels(painter: Painter, placed: readonly LabelBox[], palette: Palette): void {
  painter.textAlign = "center";
  painter.textBaseline = "middle";
  painter.lineJoin = "round";
  for (const { label, x, y } of placed) {
    painter.save();
    painter.translate(x, y);
    painter.rotate(label.turn);
    painter.font = fontOf(label);
    const halo = label.what === "water" ? 0 : label.what === "contour" ? 2.4 : 3.2;
    const ink = inkOf(label, palette);
    if (label.what === "peak") drawPeak(painter, palette);
    letter(painter, spacedText(label), label.what === "peak" ? PEAK_LINE : 0, halo, ink, palette);
    if (label.local) {
      painter.font = LOCAL_FONT;
      letter(painter, label.local, LOCAL_LINE, halo, label.what === "water" ? ink : palette.quietInk, palette);
    }
    painter.restore();
  }
}

function letter(painter: Painter, text: string, y: number, halo: number, ink: string, palette: Palette): void {
  if (halo) {
    painter.strokeStyle = palette.halo;
    painter.lineWidth = halo;
    painter.strokeText(text, 0, y);
  }
  painter.fillStyle = ink;
  painter.fillText(text, 0, y);
}

function inkOf({ what }: Label, palette: Palette): string {
  if (what === "water") return palette.waterInk;
  if (what === "contour") return palette.contourInk;
  return what === "town" || what === "country" || what === "peak" ? palette.ink : palette.quietInk;
}

/** A small open triangle on the top of a hill. */
function drawPeak(painter: Painter, palette: Palette): void {
  painter.beginPath();
  painter.moveTo(0, -4);
  painter.lineTo(4, 3);
  painter.lineTo(-4, 3);
  painter.closePath();
  painter.fillStyle = palette.paper;
  painter.fill();
  painter.strokeStyle = palette.ink;
  painter.lineWidth = 1.1;
  painter.stroke();
}
