import { isPosition } from "@bibliotope/core/geo";
import { LEAST_ZOOM, MAP_STYLES, type MapStyle, MOST_ZOOM, type View } from "@bibliotope/core/map";

/** What of a map is in a page's address: `#at=-35.174,-21.6309&zoom=16.4&style=heights`. */
export interface UrlView {
  view?: View;
  mapStyle?: MapStyle;
}

/** Reads a view from the part of an address behind `#`; what is not one is left out. */
export function readUrlView(hash: string): UrlView {
  const words = new URLSearchParams(hash.replace(/^#/, ""));
  const [lat, lon] = (words.get("at") ?? "").split(",").map((part) => (part.trim() ? Number(part) : Number.NaN));
  const zoom = Number(words.get("zoom") ?? Number.NaN);
  const mapStyle = MAP_STYLES.find((kind) => kind === words.get("style"));
  const isView = isPosition(lat, lon) && zoom >= LEAST_ZOOM && zoom <= MOST_ZOOM;
  return { ...(isView ? { view: { at: { lat, lon }, zoom } } : {}), ...(mapStyle ? { mapStyle } : {}) };
}

/** The part behind `#` with a view in it; what else is there stays. */
export function writeUrlView(hash: string, { at, zoom }: View, mapStyle: MapStyle): string {
  const words = new URLSearchParams(hash.replace(/^#/, ""));
  words.set("at", `${at.lat.toFixed(5)},${at.lon.toFixed(5)}`);
  words.set("zoom", String(Math.round(zoom * 100) / 100));
  if (mapStyle === "streets") words.delete("style");
  else words.set("style", mapStyle);
  return `#${String(words).replaceAll("%2C", ",")}`;
}
