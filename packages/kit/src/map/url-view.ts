import { isPosition } from "@bibliotope/core/geo";
import { LEAST_ZOOM, MOST_ZOOM, SHEETS, type SheetKind, type View } from "@bibliotope/core/sheet";

/** What of a map is in a page's address: `#at=-35.174,-21.6309&zoom=16.4&sheet=heights`. */
export interface UrlView {
  view?: View;
  sheet?: SheetKind;
}

/** Reads a view from the part of an address behind `#`; what is not one is left out. */
export function readUrlView(hash: string): UrlView {
  const words = new URLSearchParams(hash.replace(/^#/, ""));
  const [lat, lon] = (words.get("at") ?? "").split(",").map((part) => (part.trim() ? Number(part) : Number.NaN));
  const zoom = Number(words.get("zoom") ?? Number.NaN);
  const sheet = SHEETS.find((kind) => kind === words.get("sheet"));
  const isView = isPosition(lat, lon) && zoom >= LEAST_ZOOM && zoom <= MOST_ZOOM;
  return { ...(isView ? { view: { at: { lat, lon }, zoom } } : {}), ...(sheet ? { sheet } : {}) };
}

/** The part behind `#` with a view in it; what else is there stays. */
export function writeUrlView(hash: string, { at, zoom }: View, sheet: SheetKind): string {
  const words = new URLSearchParams(hash.replace(/^#/, ""));
  words.set("at", `${at.lat.toFixed(5)},${at.lon.toFixed(5)}`);
  words.set("zoom", String(Math.round(zoom * 100) / 100));
  if (sheet === "streets") words.delete("sheet");
  else words.set("sheet", sheet);
  return `#${String(words).replaceAll("%2C", ",")}`;
}
