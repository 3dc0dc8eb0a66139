import { describe, expect, it } from "vitest";
import { projectionOf, readingOf } from "./import.ts";

describe("--zone and --crs", () => {
  it.each([
    [{}, undefined],
    [{ zone: "32n" }, { system: "utm", zone: "32N" }],
    [{ crs: "EPSG:25832" }, { system: "utm", zone: "32N" }],
    [{ crs: "epsg:32733" }, { system: "utm", zone: "33S" }],
    [{ crs: "32601" }, { system: "utm", zone: "1N" }],
    [{ crs: "EPSG:2154" }, { system: "epsg", epsg: 2154 }],
    [{ crs: "EPSG:3857" }, { system: "web-mercator" }],
    [{ crs: "EPSG:4326" }, { system: "degrees" }],
  ])("%j is %j", (options, projection) => {
    expect(projectionOf(options)).toEqual(projection);
  });

  it.each(["EPSG:32661", "EPSG:32600", "EPSG:9999", "25832N", "WGS84", ""])("does not take %j for a zone", (crs) => {
    if (crs) expect(() => projectionOf({ crs })).toThrow("is not supported");
    else expect(projectionOf({ crs })).toBeUndefined();
  });

  it("takes one of the two", () => {
    expect(() => projectionOf({ zone: "32N", crs: "EPSG:25832" })).toThrow("not both");
  });
});

describe("--join", () => {
  const start = { heads: ["TYPE", "NAME", "NO", "LETTER", "X"], reading: { columns: [null, null, null, null, null] } };
  const read = (join: string[], column: string[] = []) =>
    readingOf(start as never, { dataSet: "", licence: "", source: "", day: "", column, join }).columns;

  it("makes one part of several columns, in their order", () => {
    const [way, street, house, suffix] = ["way", "street", "house", "suffix"].map((meaning) => ({ meaning }));
    expect(read(["TYPE+NAME=street", "NO+LETTER+X=house"])).toEqual([way, street, house, suffix, suffix]);
    expect(read(["TYPE+NAME=street"], ["TYPE="])[0]).toBeNull();
  });

  it.each(["TYPE=street", "TYPE+NAME", "TYPE+NAME=town", "TYPE+NAME+NO=street", "TYPE+ELSE=street"])(
    "says what is wrong with %j",
    (said) => expect(() => read([said])).toThrow(/joins nothing|there is no column/),
  );
});
