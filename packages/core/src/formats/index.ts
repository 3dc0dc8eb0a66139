export { type Feature, type FeatureCollection, featureOf, type PointFeature } from "./geojson.ts";
