import { type InteractiveMap, type LegendPart, type Marker, mapGeoJson, mapPng, type Values } from "@bibliotope/kit";
import { saveBlob, saveFile } from "../ui/save-file.ts";

/** Gives a map as a picture with the legend, or its markers as GeoJSON, to the person as files. */
export const takeOutOf = (
  map: () => InteractiveMap | undefined,
  name: string,
  shown: () => { markers: readonly Marker[]; values: readonly Values[]; legend: readonly LegendPart[] },
) => ({
  png: () => {
    const canvas = map();
    if (canvas) void mapPng(canvas, shown().legend).then((blob) => saveBlob(`${name}.png`, blob));
  },
  geoJson: () => {
    const { markers, values } = shown();
    saveFile(`${name}.geojson`, JSON.stringify(mapGeoJson(markers, values)), "application/geo+json");
  },
});
