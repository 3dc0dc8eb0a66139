import { describe, expect, it } from "vitest";
import { IDS, smallWorld } from "../../testing/small-world.ts";
import { refOf } from "../place/index.ts";

const engine = smallWorld();

describe("reverse", () => {
  it("gives the nearest address, then the areas around, from exact to broad", () => {
    const { outcome, candidates } = engine.reverse({ at: { lat: -35.82941, lon: -21.83 } });
    expect(outcome).toBe("matched");
    expect(candidates.map(({ kind }) => kind)).toEqual(["address", "district", "town", "county", "region", "country"]);
    expect(candidates[0]).toMatchObject({ line: "12 Harbour Row, Tidewell, Sallow, HT4 29" });
    expect(candidates[0].distance).toBeCloseTo(1.1, 1);
    expect(candidates[0].bearing).toBeCloseTo(0, 0);
    expect(candidates.slice(1).every(({ distance }) => distance === 0)).toBe(true);
  });

  it("names areas with what lies around them", () => {
    const { candidates } = engine.reverse({ at: { lat: -35.83, lon: -21.83 } });
    expect(candidates.map(({ line }) => line).slice(1)).toEqual([
      "Old Quay, Tidewell, Lorramere",
      "Tidewell, Sallow, Lorramere",
      "Sallow, The Reaches, Lorramere",
      "The Reaches, Lorramere",
      "Lorramere",
    ]);
    expect(candidates[2].box).toEqual([-21.85, -35.85, -21.75, -35.75]);
  });

  it("has no bearing on the very spot", () => {
    const [address] = engine.reverse({ at: { lat: -35.83, lon: -21.83 } }).candidates;
    expect(address.distance).toBe(0);
    expect(address).not.toHaveProperty("bearing");
  });

  it("leaves the address out when none lies within the radius", () => {
    const far = { lat: -35.81, lon: -21.81 };
    expect(engine.reverse({ at: far }).candidates[0].kind).toBe("town");
    expect(engine.reverse({ at: far, radius: 5000 }).candidates[0].kind).toBe("address");
  });

  it("says so when nothing is held there, and notices swapped coordinates", () => {
    expect(engine.reverse({ at: { lat: 50, lon: 10 } })).toMatchObject({ outcome: "none", candidates: [] });
    const { advice } = engine.reverse({ at: { lat: -21.83, lon: -35.83 } });
    expect(advice[0]).toContain("were latitude and longitude swapped");
    expect(advice[0]).toContain("-35.83,-21.83");
  });

  it("narrows like every lookup", () => {
    const at = { lat: -35.83, lon: -21.83 };
    expect(engine.reverse({ at, kinds: ["town"] }).candidates.map(({ kind }) => kind)).toEqual(["town"]);
    expect(engine.reverse({ at, limit: 2 }).candidates).toHaveLength(2);
    expect(engine.reverse({ at, countries: ["QY"] }).candidates).toEqual([]);
  });

  it("answers in the language that was asked for", () => {
    const at = { lat: -36.6, lon: -22.6 };
    expect(engine.reverse({ at }).candidates[0].line).toBe("Μεσαία, Πελανία ΘΑ-123, Άνω Λίμνα, Τετράγωνο 7, 1");
    expect(engine.reverse({ at, langs: ["qth-Latn"] }).candidates[0].line).toContain("Pelania");
    expect(engine.reverse({ at }).candidates.at(-1)!.line).toBe("Θαλμύρα");
  });
});

describe("record", () => {
  it("gives what a ref stands for", () => {
    expect(engine.record(refOf("QR", IDS.tidewell))).toMatchObject({
      kind: "town",
      line: "Tidewell, Sallow, Lorramere",
    });
    expect(engine.record(refOf("QR", IDS.firstAddress))).toMatchObject({
      kind: "address",
      line: "1 Harbour Row, Tidewell, Sallow, HT4 29",
    });
    expect(engine.record(refOf("QR", IDS.ht429))).toMatchObject({
      kind: "postcode",
      line: "HT4 29, Tidewell, Lorramere",
    });
    expect(engine.record("qr-zzzzzz")).toBeUndefined();
  });

  it("agrees with the line that was suggested, for every suggestion", () => {
    for (const q of ["12 harb", "tide", "ht4", "pelan", "library", "mill"]) {
      for (const { ref, kind, at } of engine.suggest({ q }).suggestions)
        expect(engine.record(ref)).toMatchObject({ ref, kind, at });
    }
  });
});
