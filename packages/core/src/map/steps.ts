import type { MapFeature } from "./features.ts";
import type { Palette } from "./palettes.ts";
import { type Pen, ringsOf } from "./pen.ts";

/** How many line widths are compared for the light, on either side. */
const LIGHTS = 4;
/** Width in pixels of an edge that the light meets squarely, by rank. */
const WIDTHS = [2.4, 1.9, 1.5, 1];

/**
 * The ground as steps of paper, each lying on the one below: higher ones of a deeper tone, their edges lit from the
 * north-west (illuminated contours, Tanaka 1950).
 */
export function* paintSteps(pen: Pen, contours: readonly MapFeature[]): Generator<void> {
  const levels = new Map<number, MapFeature[]>();
  for (const contour of contours) {
    const height = contour.properties.height ?? 0;
    levels.set(height, [...(levels.get(height) ?? []), contour]);
  }
  for (const [height, own] of [...levels].sort((a, b) => a[0] - b[0])) {
    pen.fill(own, paperAt(pen.palette, height));
    paintLight(pen, own);
    yield;
  }
}

/** Paper of the ground at a height in metres. */
export function paperAt({ steps }: Palette, height: number): string {
  const above = steps.findIndex(([metres]) => metres > height);
  if (above < 0) return steps[steps.length - 1][1];
  if (above === 0) return steps[0][1];
  const [[low, from], [high, to]] = [steps[above - 1], steps[above]];
  const share = (height - low) / (high - low);
  const part = (i: number) => {
    const [a, b] = [from, to].map((colour) => Number.parseInt(colour.slice(i, i + 2), 16));
    return Math.round(a + (b - a) * share)
      .toString(16)
      .padStart(2, "0");
  };
  return `#${part(1)}${part(3)}${part(5)}`;
}

/** Inks the edges of steps: white where they face the light, brown where they turn from it, and the more the broader. */
function paintLight(pen: Pen, contours: readonly MapFeature[]): void {
  const { painter, palette } = pen;
  const width = pen.part.z < 11 ? 0.6 : pen.part.z < 13 ? 0.8 : 1;
  const edges: number[][] = Array.from({ length: 2 * LIGHTS + 1 }, () => []);
  for (const contour of contours) collectEdges(pen, contour, edges);
  const broadest = (WIDTHS[(contours[0]?.properties.rank ?? 1) - 1] ?? 1) * width;
  edges.forEach((own, i) => {
    if (!own.length) return;
    painter.beginPath();
    for (let at = 0; at < own.length; at += 4) {
      painter.moveTo(own[at], own[at + 1]);
      painter.lineTo(own[at + 2], own[at + 3]);
    }
    const light = i - LIGHTS;
    pen.ink(light > 0 ? palette.lit : palette.shaded, Math.max(0.35, (Math.abs(light) / LIGHTS) * broadest));
  });
}

/** Sorts the edges of a contour by how much light falls on them: the last ones are lit most. */
function collectEdges(pen: Pen, contour: MapFeature, edges: number[][]): void {
  ringsOf(contour).forEach((ring, i) => {
    const cuts = new Set(contour.properties.cuts?.[i]);
    for (let k = 0; k + 1 < ring.length; k++) {
      if (cuts.has(k)) continue;
      const [ax, ay] = pen.spot(ring[k]);
      const [bx, by] = pen.spot(ring[k + 1]);
      const length = Math.hypot(bx - ax, by - ay);
      if (!length) continue;
      // higher ground lies to the left, so that the edge faces right
      const light = (by - ay - (bx - ax)) / (length * Math.SQRT2);
      edges[LIGHTS + Math.round(light * LIGHTS)].push(ax, ay, bx, by);
    }
  });
}
