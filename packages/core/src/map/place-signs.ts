import type { Painter } from "./painter.ts";
import type { Palette } from "./palettes.ts";
import { turnAround } from "./signs.ts";

interface Spot {
  x: number;
  y: number;
}

/**
 * Draws the measured position of the device: an open diamond, and around it a dashed circle of the uncertainty.
 * @param radius CSS pixels of the uncertainty
 * @param words beside the circle, such as "± 35 m"
 */
export function drawDevice(painter: Painter, at: Spot, radius: number, words: string, palette: Palette): void {
  painter.save();
  painter.translate(at.x, at.y);
  if (radius > 12) {
    painter.beginPath();
    painter.arc(0, 0, radius, 0, turnAround);
    painter.globalAlpha = 0.09;
    painter.fillStyle = palette.ink;
    painter.fill();
    painter.globalAlpha = 1;
    painter.setLineDash([4, 4]);
    painter.strokeStyle = palette.line;
    painter.lineWidth = 1.2;
    painter.stroke();
    painter.setLineDash([]);
  }
  diamond(painter, 10);
  painter.strokeStyle = palette.paper;
  painter.lineWidth = 5;
  painter.stroke();
  painter.fillStyle = palette.paper;
  painter.fill();
  painter.strokeStyle = palette.ink;
  painter.lineWidth = 2;
  painter.stroke();
  painter.font = '12px "JetBrains Mono Variable", "JetBrains Mono", monospace';
  painter.textAlign = "left";
  painter.textBaseline = "middle";
  painter.strokeStyle = palette.halo;
  painter.lineWidth = 3;
  painter.strokeText(words, 16, -16);
  painter.fillStyle = palette.quietInk;
  painter.fillText(words, 16, -16);
  painter.restore();
}

function diamond(painter: Painter, half: number): void {
  painter.beginPath();
  painter.moveTo(0, -half);
  painter.lineTo(half, 0);
  painter.lineTo(0, half);
  painter.lineTo(-half, 0);
  painter.closePath();
}

/** Draws the frame of a part of the map that is being chosen. */
export function drawFrame(painter: Painter, from: Spot, to: Spot, palette: Palette): void {
  painter.save();
  const [left, top] = [Math.min(from.x, to.x), Math.min(from.y, to.y)];
  const [width, height] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
  painter.fillStyle = palette.paper;
  painter.globalAlpha = 0.35;
  painter.fillRect(left, top, width, height);
  painter.globalAlpha = 1;
  painter.beginPath();
  painter.rect(left, top, width, height);
  painter.setLineDash([5, 4]);
  painter.strokeStyle = palette.ink;
  painter.lineWidth = 1.2;
  painter.stroke();
  painter.restore();
}

/** Draws corners around a marker that has the keyboard. */
export function drawChosen(painter: Painter, at: Spot, palette: Palette): void {
  painter.save();
  painter.translate(at.x, at.y);
  const [left, top, right, bottom, arm] = [-17, -17, 17, 43, 8];
  for (const [colour, width] of [
    [palette.paper, 5],
    [palette.ink, 2],
  ] as const) {
    painter.beginPath();
    for (const [x, y, dx, dy] of [
      [left, top, 1, 1],
      [right, top, -1, 1],
      [right, bottom, -1, -1],
      [left, bottom, 1, -1],
    ]) {
      painter.moveTo(x + dx * arm, y);
      painter.lineTo(x, y);
      painter.lineTo(x, y + dy * arm);
    }
    painter.strokeStyle = colour;
    painter.lineWidth = width;
    painter.stroke();
  }
  painter.restore();
}
