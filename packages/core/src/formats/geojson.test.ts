import { describe, expect, it } from "vitest";
import { featureOf } from "./geojson.ts";

describe("featureOf", () => {
  it("makes a Feature: the ref is the id, the position [lon, lat], the box the bbox", () => {
    const feature = featureOf({
      ref: "qr-000001",
      at: { lat: -35.123456789, lon: -21.5 },
      box: [-22, -36, -21, -35],
      line: "Tidewell",
    });
    expect(feature).toEqual({
      type: "Feature",
      id: "qr-000001",
      bbox: [-22, -36, -21, -35],
      geometry: { type: "Point", coordinates: [-21.5, -35.1234568] },
      properties: { at: { lat: -35.1234568, lon: -21.5 }, line: "Tidewell" },
    });
  });

  it("has no bbox for a record without a box", () => {
    expect(featureOf({ ref: "qr-000001", at: { lat: 0, lon: 0 } })).not.toHaveProperty("bbox");
  });
});
