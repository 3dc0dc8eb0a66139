import type { Cover } from "./features.ts";

/** Colours of the map, of lines and labels (inks) and of areas (papers). Tiles are the same for all palettes. */
export interface Palette {
  sea: string;
  seaLine: string;
  land: string;
  /** Where houses stand close, of data that brings no map. */
  town: string;
  coast: string;
  park: string;
  parkDot: string;
  contour: string;
  contourInk: string;
  water: string;
  river: string;
  railway: string;
  boundary: string;
  building: string;
  buildingLine: string;
  street: string;
  mainStreet: string;
  road: string;
  casing: string;
  /** Streets as single lines. */
  thinRoad: string;
  ferry: string;
  ink: string;
  quietInk: string;
  waterInk: string;
  halo: string;
  /** Colours of signs. */
  madder: string;
  line: string;
  paper: string;
  label: string;
  labelText: string;
  /** Paper and ink of what covers the land. */
  covers: Readonly<Record<Cover, { paper: string; ink: string }>>;
  /** Papers of fields, by the way they are tilled. */
  fields: readonly [string, string, string];
  /** Paper of the ground by its height in metres, from the lowest on: the colours between are mixed. */
  steps: readonly (readonly [metres: number, paper: string])[];
  /** Edges of the ground's steps that the light from the north-west falls on, and those that lie in shade. */
  lit: string;
  shaded: string;
}

/** Paper by day. */
export const DAY: Palette = {
  sea: "#dfe5e2",
  seaLine: "#b9c9ca",
  land: "#f6f2e6",
  town: "#efe6d3",
  coast: "#4a626b",
  park: "#e9ecd8",
  parkDot: "#a9b98a",
  contour: "#d9c6a2",
  contourInk: "#6f5233",
  water: "#d3dfdd",
  river: "#8fabb3",
  railway: "#5d5a58",
  boundary: "#a58d9c",
  building: "#e2d5b6",
  buildingLine: "#c3b18a",
  street: "#fffdf6",
  mainStreet: "#fffaf0",
  road: "#ead9b6",
  casing: "#b3a384",
  thinRoad: "#a8926a",
  ferry: "#7d98a3",
  ink: "#23262d",
  quietInk: "#55524b",
  waterInk: "#4d6d7a",
  halo: "#f6f2e6",
  madder: "#9c3528",
  line: "#4b5a68",
  paper: "#fffdf8",
  label: "#23262d",
  labelText: "#fbf8f0",
  covers: {
    heath: { paper: "#ece2d6", ink: "#a98f8c" },
    wood: { paper: "#d5ddc0", ink: "#7d9468" },
    field: { paper: "#f3ecd2", ink: "#b9a872" },
    marsh: { paper: "#e0e7da", ink: "#7f9b98" },
    rock: { paper: "#e3ddd2", ink: "#8b8377" },
    sand: { paper: "#f5ead0", ink: "#c7a969" },
    built: { paper: "#eadfcd", ink: "#b3a384" },
  },
  fields: ["#f1e6c4", "#e9e8c6", "#f5eedc"],
  steps: [
    [0, "#f0eddd"],
    [60, "#ebe5cd"],
    [160, "#e6d9b8"],
    [320, "#dec9a1"],
    [560, "#d3b68c"],
    [900, "#c7a580"],
    [1400, "#efe4d6"],
  ],
  lit: "#fffaf0",
  shaded: "#7d5f3c",
};

/** The same ink by night. */
export const NIGHT: Palette = {
  sea: "#1b2227",
  seaLine: "#2b363c",
  land: "#26262a",
  town: "#323030",
  coast: "#7f98a1",
  park: "#2a2f28",
  parkDot: "#4c5b40",
  contour: "#473f33",
  contourInk: "#c4ad8c",
  water: "#22303a",
  river: "#4f6b75",
  railway: "#8d8781",
  boundary: "#6d5a66",
  building: "#3a3631",
  buildingLine: "#544d42",
  street: "#48464a",
  mainStreet: "#524f50",
  road: "#6a5d48",
  casing: "#1c1b1d",
  thinRoad: "#7d6d53",
  ferry: "#5d7681",
  ink: "#efe9db",
  quietInk: "#b9b2a4",
  waterInk: "#8eaab5",
  halo: "#26262a",
  madder: "#d3725f",
  line: "#a3b6c6",
  paper: "#23262d",
  label: "#efe9db",
  labelText: "#23262d",
  covers: {
    heath: { paper: "#35292d", ink: "#6b5658" },
    wood: { paper: "#26342a", ink: "#4d6545" },
    field: { paper: "#33301f", ink: "#5f5840" },
    marsh: { paper: "#263030", ink: "#4a6362" },
    rock: { paper: "#33312f", ink: "#625c55" },
    sand: { paper: "#35311f", ink: "#6d6041" },
    built: { paper: "#2e2b2b", ink: "#544d42" },
  },
  fields: ["#3a3524", "#313523", "#3d392e"],
  steps: [
    [0, "#232628"],
    [60, "#292a29"],
    [160, "#302d29"],
    [320, "#38322a"],
    [560, "#42392e"],
    [900, "#4e4336"],
    [1400, "#655a4d"],
  ],
  lit: "#7d7262",
  shaded: "#0f0f10",
};
