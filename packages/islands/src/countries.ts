import type { Position } from "@bibliotope/core/geo";
import type { Hump } from "./ground/terrain.ts";

/** What makes one country differ from the others before any random number is drawn. */
export interface CountryPlan {
  code: "QR" | "QV" | "QY";
  middle: Position;
  humps: readonly Hump[];
  towns: number;
  seed: number;
}

/** The three islands: middles in the empty South Atlantic, humps in metres. */
export const COUNTRIES: readonly CountryPlan[] = [
  {
    code: "QR",
    middle: { lat: -35.2, lon: -21.4 },
    seed: 1101,
    towns: 22,
    humps: [
      { x: -6000, y: 0, long: 19000, short: 9500, turn: 0.35, lift: 0.95 },
      { x: 12000, y: 7500, long: 9000, short: 6500, turn: -0.5, lift: 0.75 },
      { x: -22000, y: -13000, long: 3600, short: 2600, turn: 0.8, lift: 0.55 },
      { x: 25000, y: -11000, long: 3000, short: 2200, turn: 0, lift: 0.5 },
    ],
  },
  {
    code: "QV",
    middle: { lat: -34.6, lon: -20.0 },
    seed: 2202,
    towns: 20,
    humps: [
      { x: 0, y: 4000, long: 9500, short: 16500, turn: 0.2, lift: 1.05 },
      { x: 9000, y: -13500, long: 7000, short: 5000, turn: 0.4, lift: 0.7 },
      { x: -15500, y: 11000, long: 3500, short: 5200, turn: 0.1, lift: 0.6 },
    ],
  },
  {
    code: "QY",
    middle: { lat: -36.5, lon: -22.7 },
    seed: 3303,
    towns: 20,
    humps: [
      { x: -10000, y: 7000, long: 10500, short: 8500, turn: 0, lift: 0.9 },
      { x: 9000, y: -6000, long: 13500, short: 7500, turn: -0.7, lift: 0.85 },
      { x: -14000, y: -13500, long: 3600, short: 3000, turn: 0.3, lift: 0.55 },
    ],
  },
];
