export { type ByColumns, byValues, type LegendPart, type ShownByValues, type Values } from "./by-values.ts";
export { mapGeoJson, mapPng } from "./take-out.ts";
