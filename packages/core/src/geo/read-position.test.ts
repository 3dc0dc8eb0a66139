import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readPosition } from "./read-position.ts";

const near = (lat: number, lon: number) => ({ lat: expect.closeTo(lat, 6), lon: expect.closeTo(lon, 6) });

describe("readPosition", () => {
  it.each([
    ["-35.2088,-21.4071", -35.2088, -21.4071],
    ["  -35.2088 ; -21.4071 ", -35.2088, -21.4071],
    ["-35,2088 -21,4071", -35.2088, -21.4071],
    ["35.2088 S, 21.4071 W", -35.2088, -21.4071],
    ["35.2088° S 21.4071° O", -35.2088, -21.4071],
    ["35°12'31.7\"S 21°24'25.6\"W", -35.208806, -21.407111],
    ["S 35° 12′ 31.7″ W 21° 24′ 25.6″", -35.208806, -21.407111],
    ["35°12.5'S, 21°24.4'W", -35.208333, -21.406667],
    ["35d12m30s N 21d24m30s E", 35.208333, 21.408333],
    ["geo:-35.2088,-21.4071", -35.2088, -21.4071],
    ["geo:-35.2088,-21.4071,12;u=30", -35.2088, -21.4071],
    ["geo:-35.2088,-21.4071;crs=wgs84", -35.2088, -21.4071],
    ["-35.2088-021.4071/", -35.2088, -21.4071],
    ["+4012.22-07500.25/", 40.203667, -75.004167],
    ["-351231.7-0212425.6+12CRSWGS_84/", -35.208806, -21.407111],
    ["0, 0", 0, 0],
    ["90, 180", 90, 180],
  ])("reads %j", (text, lat, lon) => {
    expect(readPosition(text)).toEqual(near(lat, lon));
  });

  it.each([
    ["12 Harbour Row", "an address"],
    ["12 4410", "a house and a postcode"],
    ["12", "one number"],
    ["-95.2, -21.4", "beyond the pole"],
    ["35.2, 195.4", "beyond the 180th meridian"],
    ["35°72'00\"S 21°24'25\"W", "72 minutes"],
    ["geo:1,2;crs=other", "another datum"],
    ["-3512-0212425/", "minutes against seconds"],
    ["1.5 2.5 3.5", "three numbers"],
    ["1".repeat(500), "very long"],
    ["", "nothing"],
  ])("does not read %j (%s)", (text) => {
    expect(readPosition(text)).toBeUndefined();
  });

  it("reads again what is written in each way", () => {
    const degrees = (most: number) => fc.integer({ min: -most * 1e6, max: most * 1e6 }).map((value) => value / 1e6);
    fc.assert(
      fc.property(degrees(90), degrees(180), (lat, lon) => {
        const letters = `${Math.abs(lat)} ${lat < 0 ? "S" : "N"} ${Math.abs(lon)} ${lon < 0 ? "W" : "E"}`;
        for (const text of [
          `geo:${lat.toFixed(6)},${lon.toFixed(6)}`,
          `${lat.toFixed(6)}, ${lon.toFixed(6)}`,
          letters,
        ]) {
          expect(readPosition(text)).toEqual(near(lat, lon));
        }
      }),
    );
  });

  it("never throws", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 120 }), (text) => {
        readPosition(text);
      }),
    );
  });
});
