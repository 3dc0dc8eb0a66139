/**
 * What the map is drawn on: the few calls of a 2D canvas context that are needed, so that any context fits, in a page,
 * in a worker and on the server. Lengths in CSS pixels.
 */
export interface Painter {
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: "butt" | "round" | "square";
  lineJoin: "bevel" | "miter" | "round";
  globalAlpha: number;
  font: string;
  textAlign: "center" | "end" | "left" | "right" | "start";
  textBaseline: "alphabetic" | "bottom" | "hanging" | "ideographic" | "middle" | "top";
  save(): void;
  restore(): void;
  translate(x: number, y: number): void;
  rotate(radians: number): void;
  beginPath(): void;
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  closePath(): void;
  arc(x: number, y: number, radius: number, from: number, to: number): void;
  rect(x: number, y: number, width: number, height: number): void;
  fill(rule?: "evenodd" | "nonzero"): void;
  stroke(): void;
  clip(rule?: "evenodd" | "nonzero"): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  setLineDash(lengths: number[]): void;
  fillText(text: string, x: number, y: number): void;
  strokeText(text: string, x: number, y: number): void;
  /** Draws a picture; the image is of the kind that the context takes. */
  drawImage(image: never, x: number, y: number, width: number, height: number): void;
  measureText(text: string): { width: number };
}
