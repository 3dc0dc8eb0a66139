export { checkGrid, readAsciiGrid } from "./ascii-grid.ts";
export { CSV_COLUMNS, csvOf, rowOf, tableOf, withoutGuard } from "./csv.ts";
export { type Feature, type FeatureCollection, featureOf, type PointFeature } from "./geojson.ts";
export { geojsonSeqOf } from "./geojson-seq.ts";
export { commentOf, GPX_FOOT, GPX_HEAD, gpxOf, type Waypoint, waypointOf } from "./gpx.ts";
export type { LookupFeature } from "./lookup.ts";
export { vcardOf } from "./vcard.ts";
