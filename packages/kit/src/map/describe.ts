import { metresPerPixel } from "@bibliotope/core/geo";
import { lengthText, type SheetKind, type Size, type View } from "@bibliotope/core/sheet";
import { SHEET_NAMES } from "./controls.ts";
import { type Marker, nameOf } from "./marker.ts";

/** Markers that are named in words; of more only their number is said. */
const MOST_NAMED = 12;

/** What a map shows, in words: "Streets, 2.4 km across, around 35.174° south, 21.631° west." */
export function describeView({ at, zoom }: View, { width }: Size, sheet: SheetKind): string {
  const across = width ? `, ${lengthText(width * metresPerPixel(zoom, at.lat))} across` : "";
  const [lat, lon] = [Math.abs(at.lat).toFixed(3), Math.abs(at.lon).toFixed(3)];
  return `${SHEET_NAMES[sheet]}${across}, around ${lat}° ${at.lat < 0 ? "south" : "north"}, ${lon}° ${at.lon < 0 ? "west" : "east"}.`;
}

/** What stands on a map, in words; also what has no position and cannot stand there. */
export function describeMarkers(markers: readonly Marker[], placed: readonly number[]): string {
  const unset = markers.length - placed.length;
  const named = placed.flatMap((place) => {
    const { name, label, card } = markers[place];
    return name || label || card ? [nameOf(markers[place], place)] : [];
  });
  const there =
    placed.length > MOST_NAMED
      ? `${placed.length} markers stand on the map.`
      : named.length
        ? `A marker stands at ${named.join(", ")}.`
        : "";
  return [there, unsetWords(unset, markers.length)].filter(Boolean).join(" ");
}

/** Words for markers without a position; empty when there are none. */
export function unsetWords(unset: number, all: number): string {
  if (!unset) return "";
  if (all === 1) return "This place has no position yet.";
  return `${unset} of ${all} places ${unset === 1 ? "has" : "have"} no position yet.`;
}
