import { metresPerPixel } from "@bibliotope/core/geo";
import { lengthText, type MapStyle, type Size, type View } from "@bibliotope/core/map";
import { say, wordsLang } from "../words/say.ts";
import { STYLE_NAMES } from "./controls.ts";
import { type Marker, nameOf } from "./marker.ts";

/** Markers that are named in words; of more only their number is said. */
const MOST_NAMED = 12;

/**
 * What a map shows, in words: "Streets, 2.4 km across, around 35.174° south, 21.631° west."
 * @param shown the map style, or the name of the pictures in place of it
 */
export function describeView({ at, zoom }: View, { width }: Size, shown: MapStyle | (string & {})): string {
  const [lat, lon] = [Math.abs(at.lat).toFixed(3), Math.abs(at.lon).toFixed(3)];
  const place = {
    style: Object.hasOwn(STYLE_NAMES, shown) ? say(STYLE_NAMES[shown as MapStyle]) : shown,
    lat: at.lat < 0 ? say("{n}° south", { n: lat }) : say("{n}° north", { n: lat }),
    lon: at.lon < 0 ? say("{n}° west", { n: lon }) : say("{n}° east", { n: lon }),
  };
  if (!width) return say("{style}, around {lat}, {lon}.", place);
  const length = lengthText(width * metresPerPixel(zoom, at.lat), wordsLang());
  return say("{style}, {length} across, around {lat}, {lon}.", { ...place, length });
}

/** What is on a map, in words; also what has no position and cannot stand there. */
export function describeMarkers(markers: readonly Marker[], placed: readonly number[]): string {
  const unset = markers.length - placed.length;
  const named = placed.flatMap((place) => {
    const { name, label, card } = markers[place];
    return name || label || card ? [nameOf(markers[place], place)] : [];
  });
  const there =
    placed.length > MOST_NAMED
      ? say("{n} marker on the map.|{n} markers on the map.", { n: placed.length })
      : named.length
        ? say("There is a marker at {places}.", { places: named.join(", ") })
        : "";
  return [there, unsetWords(unset, markers.length)].filter(Boolean).join(" ");
}

/** Words for markers without a position; empty when there are none. */
export function unsetWords(unset: number, all: number): string {
  if (!unset) return "";
  if (all === 1) return say("This place has no position yet.");
  return say("{n} of {all} places has no position yet.|{n} of {all} places have no position yet.", { n: unset, all });
}
