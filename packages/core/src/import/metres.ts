import proj4 from "proj4";
import { fromUtm, fromWebMercator, isPosition, type Position, readUtmZone } from "../geo/index.ts";
import { gridOf } from "./grids.ts";
import type { Projection } from "./parts.ts";

/** Reads metres as degrees, WGS 84; undefined of what lies nowhere. */
export type MetresReader = (east: number, north: number) => Position | undefined;

const readers = new Map<number, MetresReader>();

/** How metres of a projection are read. @throws Error in words where the zone or the system is none that is known here */
export function metresReader({ system, zone, epsg }: Projection): MetresReader {
  if (system === "epsg") return gridReader(epsg ?? 0);
  if (system !== "utm") return fromWebMercator;
  const read = readUtmZone(zone ?? "");
  if (!read) throw new Error("The zone of UTM is a number from 1 to 60 with N or S, such as 26S.");
  return (east, north) => fromUtm(east, north, read);
}

/** Metres that no grid has. */
const TOO_MANY = 1e8;

function gridReader(epsg: number): MetresReader {
  let reader = readers.get(epsg);
  if (!reader) {
    const grid = gridOf(epsg);
    if (!grid) throw new Error(`EPSG:${epsg} is not known here.`);
    const converter = proj4(grid.terms);
    const sign = grid.isTurned ? -1 : 1;
    reader = (east, north) => {
      if (!(Math.abs(east) < TOO_MANY && Math.abs(north) < TOO_MANY)) return undefined;
      const [lon, lat] = converter.inverse([sign * east, sign * north]);
      return isPosition(lat, lon) ? { lat, lon } : undefined;
    };
    readers.set(epsg, reader);
  }
  return reader;
}
