import { contextOf } from "../map/context.ts";
import type { InteractiveMap } from "../map/interactive-map.ts";
import { make } from "../map/make.ts";
import type { Marker } from "../map/marker.ts";
import { say } from "../words/say.ts";
import type { LegendPart, Values } from "./by-values.ts";

/** CSS pixels of a legend's lines, of what is free around it, and of the swatches. */
const LINE = 22;
const MARGIN = 12;
const SWATCH = 11;
const FONT = "13px system-ui, sans-serif";

/**
 * What a map shows, as a PNG, with a legend below it.
 * @throws Error where the browser cannot write it
 */
export async function mapPng(map: InteractiveMap, legend: readonly LegendPart[] = []): Promise<Blob> {
  const picture = await map.picture();
  const width = map.element.clientWidth;
  const ratio = picture.width / width;
  const lines = legend.flatMap((part) => linesOf(part, width - 2 * MARGIN));
  const height = lines.length ? lines.length * LINE + 2 * MARGIN : 0;
  const framed = make("canvas");
  framed.width = picture.width;
  framed.height = picture.height + Math.round(height * ratio);
  const context = contextOf(framed);
  context.fillStyle = "#fffdf8";
  context.fillRect(0, 0, framed.width, framed.height);
  context.drawImage(picture, 0, 0);
  context.setTransform(ratio, 0, 0, ratio, 0, picture.height);
  context.font = FONT;
  context.textBaseline = "middle";
  for (const [row, line] of lines.entries())
    for (const { x, words, colour, size } of line) {
      const y = MARGIN + (row + 0.5) * LINE;
      const side = SWATCH * (size ?? 1);
      if (colour) {
        context.fillStyle = colour;
        context.fillRect(x, y - side / 2, side, side);
      } else if (size) {
        context.beginPath();
        context.arc(x + side / 2, y, side / 2 - 1, 0, 2 * Math.PI);
        context.lineWidth = 2;
        context.strokeStyle = "#55524b";
        context.stroke();
      }
      context.fillStyle = "#20242a";
      context.fillText(words, x + (colour || size ? side + 6 : 0), y);
    }
  return new Promise((resolve, reject) =>
    framed.toBlob((blob) => (blob ? resolve(blob) : reject(new Error("The browser wrote no picture."))), "image/png"),
  );
}

interface Piece {
  x: number;
  words: string;
  colour?: string;
  size?: number;
}

/** A part of a legend in lines of a breadth. */
function linesOf({ by, column, steps, mean, trouble }: LegendPart, width: number): Piece[][] {
  const context = contextOf(make("canvas"));
  context.font = FONT;
  const pieces = [
    { words: by === "label" ? say("Label: {column}", { column }) : `${column}:` },
    ...steps.map(({ words, count, ...look }) => ({
      ...look,
      words: count === undefined ? words : `${words} (${count})`,
    })),
    ...(mean === undefined ? [] : [{ words: say("Mean {n}", { n: mean }) }]),
    ...(trouble ? [{ words: trouble }] : []),
  ];
  const lines: Piece[][] = [[]];
  let x = MARGIN;
  for (const piece of pieces) {
    const taken = context.measureText(piece.words).width + 2 * SWATCH + 18;
    if (x > MARGIN && x + taken > width) {
      lines.push([]);
      x = MARGIN;
    }
    lines[lines.length - 1].push({ ...piece, x });
    x += taken;
  }
  return lines;
}

/** Markers and what is known of them, as GeoJSON (RFC 7946): points, with values as properties. Those without a position are null. */
export function mapGeoJson(markers: readonly Marker[], values: readonly Values[]): object {
  return {
    type: "FeatureCollection",
    features: markers.map(({ at, name, label, colour }, i) => ({
      type: "Feature",
      geometry: at ? { type: "Point", coordinates: [at.lon, at.lat] } : null,
      properties: { name: name ?? label, colour, ...values[i] },
    })),
  };
}
