/** Inks and papers of a sheet. One set of tiles serves them all: style is the client's. */
export interface SheetStyle {
  sea: string;
  seaLine: string;
  land: string;
  coast: string;
  park: string;
  parkDot: string;
  contour: string;
  river: string;
  boundary: string;
  building: string;
  buildingLine: string;
  street: string;
  mainStreet: string;
  road: string;
  casing: string;
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
}

/** Paper by day. */
export const DAY: SheetStyle = {
  sea: "#dfe5e2",
  seaLine: "#b9c9ca",
  land: "#f6f2e6",
  coast: "#4a626b",
  park: "#e9ecd8",
  parkDot: "#a9b98a",
  contour: "#d9c6a2",
  river: "#8fabb3",
  boundary: "#a58d9c",
  building: "#e2d5b6",
  buildingLine: "#c3b18a",
  street: "#fffdf6",
  mainStreet: "#fffaf0",
  road: "#ead9b6",
  casing: "#b3a384",
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
};

/** The same ink on a night sheet. */
export const NIGHT: SheetStyle = {
  sea: "#1b2227",
  seaLine: "#2b363c",
  land: "#26262a",
  coast: "#7f98a1",
  park: "#2a2f28",
  parkDot: "#4c5b40",
  contour: "#473f33",
  river: "#4f6b75",
  boundary: "#6d5a66",
  building: "#3a3631",
  buildingLine: "#544d42",
  street: "#48464a",
  mainStreet: "#524f50",
  road: "#6a5d48",
  casing: "#1c1b1d",
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
};
