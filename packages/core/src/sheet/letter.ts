import type { Label, LabelBox } from "./labels.ts";
import type { Painter } from "./painter.ts";
import type { SheetStyle } from "./styles.ts";

/** Font of a kind of label; the serif is the page's when ours is not there. */
export function fontOf({ what, rank }: Pick<Label, "what" | "rank">): string {
  const family = '"Literata Variable", Literata, Georgia, serif';
  if (what === "country") return `italic 21px ${family}`;
  if (what === "town") return `italic ${rank === 1 ? 19 : rank === 2 ? 15 : 12.5}px ${family}`;
  if (what === "water") return `italic 14px ${family}`;
  if (what === "park") return `italic 11.5px ${family}`;
  return `11px ${family}`;
}

/** Water and large towns are spaced out, as surveyors do. */
export function spacedText({ text, what, rank }: Label): string {
  return what === "water" || what === "country" || (what === "town" && rank === 1) ? [...text].join("\u200a") : text;
}

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
    const text = spacedText(label);
    if (label.what !== "water") {
      painter.strokeStyle = style.halo;
      painter.lineWidth = 3.2;
      painter.strokeText(text, 0, 0);
    }
    painter.fillStyle =
      label.what === "water"
        ? style.waterInk
        : label.what === "town" || label.what === "country"
          ? style.ink
          : style.quietInk;
    painter.fillText(text, 0, 0);
    painter.restore();
  }
}
