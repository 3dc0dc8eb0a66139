import { describe, expect, it } from "vitest";
import { projectionOf } from "./import.ts";

describe("--zone and --crs", () => {
  it.each([
    [{}, undefined],
    [{ zone: "32n" }, { system: "utm", zone: "32N" }],
    [{ crs: "EPSG:25832" }, { system: "utm", zone: "32N" }],
    [{ crs: "epsg:32733" }, { system: "utm", zone: "33S" }],
    [{ crs: "32601" }, { system: "utm", zone: "1N" }],
    [{ crs: "EPSG:3857" }, { system: "web-mercator" }],
    [{ crs: "EPSG:4326" }, { system: "degrees" }],
  ])("%j is %j", (options, projection) => {
    expect(projectionOf(options)).toEqual(projection);
  });

  it.each(["EPSG:32661", "EPSG:32600", "EPSG:2154", "25832N", "WGS84", ""])("does not take %j for a zone", (crs) => {
    if (crs) expect(() => projectionOf({ crs })).toThrow("is not known here");
    else expect(projectionOf({ crs })).toBeUndefined();
  });

  it("takes one of the two", () => {
    expect(() => projectionOf({ zone: "32N", crs: "EPSG:25832" })).toThrow("not both");
  });
});
