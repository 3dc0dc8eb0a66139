import { type Label, type LabelBox, LOCAL_LINE, PEAK_LINE } from "./labels.ts";
import type { Painter } from "./painter.ts";
import type { SheetStyle } from "./styles.ts";

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

/** Letters the placed labels, each with a halo of the paper. */
export function drawLabels(painter: Painter, placed: readonly LabelBox[], style: SheetStyle): void {
  painter.textAlign = "center";
  painter.textBaseline = "middle";
  painter.lineJoin = "round";
  for (const { label, x, y } of placed) {
    painter.save();
    painter.translate(x, y);
    painter.rotate(label.turn);
    painter.font = fontOf(label);
    const halo = label.what === "water" ? 0 : label.what === "contour" ? 2.4 : 3.2;
    const ink = inkOf(label, style);
    if (label.what === "peak") drawPeak(painter, style);
    letter(painter, spacedText(label), label.what === "peak" ? PEAK_LINE : 0, halo, ink, style);
    if (label.local) {
      painter.font = LOCAL_FONT;
      letter(painter, label.local, LOCAL_LINE, halo, label.what === "water" ? ink : style.quietInk, style);
    }
    painter.restore();
  }
}

function letter(painter: Painter, text: string, y: number, halo: number, ink: string, style: SheetStyle): void {
  if (halo) {
    painter.strokeStyle = style.halo;
    painter.lineWidth = halo;
    painter.strokeText(text, 0, y);
  }
  painter.fillStyle = ink;
  painter.fillText(text, 0, y);
}

function inkOf({ what }: Label, style: SheetStyle): string {
  if (what === "water") return style.waterInk;
  if (what === "contour") return style.contourInk;
  return what === "town" || what === "country" || what === "peak" ? style.ink : style.quietInk;
}

/** A small open triangle on the top of a hill. */
function drawPeak(painter: Painter, style: SheetStyle): void {
  painter.beginPath();
  painter.moveTo(0, -4);
  painter.lineTo(4, 3);
  painter.lineTo(-4, 3);
  painter.closePath();
  painter.fillStyle = style.paper;
  painter.fill();
  painter.strokeStyle = style.ink;
  painter.lineWidth = 1.1;
  painter.stroke();
}
