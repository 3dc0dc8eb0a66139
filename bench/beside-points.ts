import type { Segment } from "@bibliotope/core/index";
import Flatbush from "flatbush";
import { copyInto, withSchema } from "./database.ts";
import { median, timeEach, timeEachAsync } from "./measure.ts";

interface Spot {
  lat: number;
  lon: number;
}

/** Milliseconds of the nearest point in a packed R-tree of bare points in degrees (Flatbush), median. */
export function flatbushNearest(segment: Segment, spots: readonly Spot[], rounds: number): number {
  const { addressLat, addressLon } = segment.sections;
  const index = new Flatbush(addressLat.length);
  for (let i = 0; i < addressLat.length; i++) index.add(addressLon[i] / 1e7, addressLat[i] / 1e7);
  index.finish();
  return median(timeEach(spots, rounds, ({ lat, lon }) => index.neighbors(lon, lat, 1)).each);
}

/** Milliseconds of PostGIS's nearest neighbour by true distance over the same points, median, connection included. */
export function postgisNearest(url: string, segment: Segment, spots: readonly Spot[], rounds: number): Promise<number> {
  const { addressLat, addressLon } = segment.sections;
  return withSchema(url, async (client) => {
    await client.query("create extension if not exists postgis with schema public");
    await client.query("create unlogged table loaded (address int, lon float8, lat float8)");
    const rows = function* () {
      for (let i = 0; i < addressLat.length; i++) yield [i, addressLon[i] / 1e7, addressLat[i] / 1e7];
    };
    await copyInto(client, "loaded", rows());
    await client.query(
      "create unlogged table points as select address, st_point(lon, lat, 4326)::geography as at from loaded",
    );
    await client.query("create index on points using gist (at)");
    await client.query("vacuum analyze points");
    const text = "select address from points order by at <-> st_point($1, $2, 4326)::geography limit 1";
    const nearest = ({ lat, lon }: Spot) => client.query({ name: "nearest", text, values: [lon, lat] });
    return median(await timeEachAsync(spots, rounds, nearest));
  });
}
