import { parentPort } from "node:worker_threads";
import { DAY, type MapFeature, type Painter, type Palette, paintPart, partOf, TileCutter } from "@bibliotope/core/map";
import { generateIslands } from "@bibliotope/islands";
import { createCanvas } from "@napi-rs/canvas";

/** Side of a picture in pixels, and its quality as JPEG. */
const SIDE = 256;
const QUALITY = 82;
/** By how much pixels differ from one another: pictures from the air are grainy. */
const GRAIN = 9;
/** What nobody sees from the air. */
const UNSEEN = new Set(["name", "boundary", "ferry", "contour"]);

/** Colours of the ground from the air. */
const FROM_THE_AIR: Palette = {
  ...DAY,
  ...{ sea: "#2d4c59", seaLine: "#30505d", land: "#7d8655", town: "#8a8a70", coast: "#d8cfae" },
  ...{ park: "#66783f", parkDot: "#4d5f2f", water: "#2c4750", river: "#3a5960", railway: "#5c5650" },
  ...{ building: "#a4705a", buildingLine: "#5f4638", street: "#b9b2a2", mainStreet: "#c4bdac", road: "#cdc6b5" },
  ...{ casing: "#6f6c58", thinRoad: "#a59d88" },
  covers: {
    heath: { paper: "#76684f", ink: "#5f5240" },
    wood: { paper: "#3f5433", ink: "#2d3f25" },
    field: { paper: "#9a9a5c", ink: "#84834c" },
    marsh: { paper: "#5d6d54", ink: "#475a4b" },
    rock: { paper: "#8d877b", ink: "#6d675d" },
    sand: { paper: "#d6c798", ink: "#bfae7d" },
    built: { paper: "#93907c", ink: "#77745f" },
  },
  fields: ["#a89a55", "#7f8f4b", "#b5a873"],
};

const cutter = new TileCutter(
  generateIslands()
    .features.filter(({ layer }) => !UNSEEN.has(layer))
    .map(({ layer, rank, geometry, properties }): MapFeature => {
      const all = { ...properties, layer, rank } as MapFeature["properties"];
      return { type: "Feature", geometry, properties: all };
    }),
);

parentPort?.on("message", async ({ id, tile: [z, x, y] }: { id: number; tile: [number, number, number] }) => {
  const part = partOf({ z, x, y });
  const canvas = createCanvas(SIDE, SIDE);
  const context = canvas.getContext("2d");
  paintPart(context as unknown as Painter, cutter.cutPart(part), part, {
    palette: FROM_THE_AIR,
    style: "named-ground",
  });
  const pixels = context.getImageData(0, 0, SIDE, SIDE);
  for (let i = 0; i < SIDE * SIDE; i++) {
    const grain = grainAt(part.left + (i % SIDE), part.top + Math.floor(i / SIDE));
    for (let channel = 0; channel < 3; channel++) pixels.data[4 * i + channel] += grain;
  }
  context.putImageData(pixels, 0, 0);
  parentPort?.postMessage({ id, picture: await canvas.encode("jpeg", QUALITY) });
});

/** The same grain at the same spot, in every picture. */
function grainAt(x: number, y: number): number {
  let mixed = Math.imul(x | 0, 0x9e3779b1) ^ Math.imul(y | 0, 0x85ebca6b);
  mixed = Math.imul(mixed ^ (mixed >>> 15), 0x2c1b3c6d);
  return (((mixed ^ (mixed >>> 13)) >>> 0) / 2 ** 32 - 0.5) * 2 * GRAIN;
}
