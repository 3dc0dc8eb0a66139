import type { Box, Position } from "@bibliotope/core/geo";
import type { MapStyle, PictureTiles, View } from "@bibliotope/core/map";
import type { RecordFeature } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import type { MapControlsOptions } from "./map-controls.ts";

export interface MapOptions extends MapControlsOptions {
  client: Client;
  /** What is there before anything is known: where the service has data when not given. */
  view?: View;
  /** Boxes of which the same is made, for whoever knows where the data lies; the map asks the service when not given. */
  starts?: readonly Box[];
  /** Streets when not given. */
  mapStyle?: MapStyle;
  /** Name of the pictures that are shown at first, of `pictures`; the map style when not given. */
  shows?: string;
  /** Languages of names (BCP 47), the most wanted first; those of the browser when not given. */
  langs?: readonly string[];
  /** Markers that would cover one another stand in groups; a press on a group goes to where it comes apart. */
  grouped?: boolean;
  /** Leaves out names that the edge would cut, as stills do: for a map that nobody moves, or that is printed. */
  wholeNames?: boolean;
  /** Keeps view and map style in the page's address, behind `#`. */
  viewInUrl?: boolean;
  /** Metres of the camera above the highest roof around, in relief; 220 when not given. */
  reliefMargin?: number;
  /**
   * Finds what is shown under the aim and under a dragged marker: the nearest address within 250 m when not given. What it
   * throws is said on the map.
   */
  nearest?: (at: Position, why: Followed["why"], signal: AbortSignal) => Promise<RecordFeature | undefined>;
  /** By night; follows the system when not given. */
  night?: boolean;
}

/** What lies under what moves: a marker that is dragged, or the aim. */
export interface Followed {
  why: "drag" | "aim";
  at: Position;
  /** The nearest address, or what the map's `nearest` found instead; none near when undefined. */
  address: RecordFeature | undefined;
  /** True when the marker was dropped, or the map came to rest. */
  isLast: boolean;
}

/** The world, until it is known where the data lies. */
export const WORLD: View = { at: { lat: 20, lon: 0 }, zoom: 1 };
/** The closest that a map is at its start: streets and their names are seen. */
export const START_ZOOM = 14;
/** Milliseconds that a map waits to hear where the data lies, before it shows the world. */
export const START_PATIENCE = 1500;
/** Zoom at which a found house is shown, and the least at which the device is. */
export const HOUSE_ZOOM = 16.4;
export const DEVICE_ZOOM = 15;

/** Options of a map that shows some pictures first, and offers the map styles beside them. */
export const shownPictures = (pictures: PictureTiles | undefined): Pick<MapOptions, "pictures" | "shows"> =>
  pictures ? { pictures: [pictures], shows: pictures.name } : {};
