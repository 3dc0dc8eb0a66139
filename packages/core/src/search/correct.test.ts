import { describe, expect, it } from "vitest";
import { IDS, smallWorld } from "../../testing/small-world.ts";
import { type Correction, correct, joinCorrections, renamed } from "../index/index.ts";
import { Engine } from "./engine.ts";

const base = smallWorld();
const { segment } = base;
const identityOf = (q: string) => {
  const found = segment.resolve(base.forward({ q }).candidates[0].ref)!;
  return found.address === undefined
    ? segment.sections.thingIdentity[found.thing]
    : segment.sections.addressIdentity[found.address];
};
const corrected = (...corrections: Correction[]) => {
  const { overlay, missing } = correct(segment, corrections);
  return { engine: new Engine(overlay.finish()), missing };
};
const first = (engine: Engine, q: string) => engine.forward({ q }).candidates[0];

describe("corrections", () => {
  const twelve = identityOf("12 Harbour Row, Tidewell");

  it("give a name that is neither shortened nor written as the former one was", () => {
    const names = [{ name: "Mill Lane", abbr: "Mill Ln", written: "MILL LANE" }, { name: "Ruelle" }];
    expect(renamed(names, "Weir Lane")).toEqual([{ name: "Weir Lane" }, { name: "Ruelle" }]);
    expect([renamed(names, "Mill Lane"), renamed(names, undefined)]).toEqual([names, names]);
  });

  it("move and number an address", () => {
    const at = { lat: -35.2, lon: -21.4 };
    const { engine } = corrected({ identity: twelve, at, house: { number: 912, suffix: "c" } });
    const found = first(engine, "912c Harbour Row, Tidewell");
    expect(found).toMatchObject({ kind: "address", exactness: "surveyed", at });
    expect(found.ref).toBe(first(base, "12 Harbour Row, Tidewell").ref);
    expect(first(engine, "12 Harbour Row, Tidewell").line).not.toMatch(/^12 Harbour Row/);
  });

  it("remove a record, and rename a street and a place", () => {
    const removed = corrected({ identity: twelve, isRemoved: true }).engine;
    expect(removed.record(first(base, "12 Harbour Row, Tidewell").ref)).toBeUndefined();
    const street = corrected({ identity: IDS.harbourRow, name: "Osier Row" }).engine;
    expect(first(street, "12 Osier Row, Tidewell").line).toContain("12 Osier Row");
    const place = corrected({ identity: IDS.library, name: "House of Reeds" }).engine;
    expect(first(place, "House of Reeds").parts.place?.name).toBe("House of Reeds");
  });

  it("add an address to a street", () => {
    const added = {
      identity: 900_000,
      street: IDS.harbourRow,
      house: { number: 777, suffix: "" },
      at: { lat: -35.2, lon: -21.4 },
    };
    const { engine, missing } = corrected(added);
    expect(missing).toEqual([]);
    expect(first(engine, "777 Harbour Row, Tidewell")).toMatchObject({ kind: "address", exactness: "surveyed" });
    expect(corrected({ ...added, isRemoved: true }).missing).toEqual([]);
  });

  it("say what has nothing here to hold on to", () => {
    const at = { lat: 1, lon: 1 };
    expect(corrected({ identity: 800_000, at }, { identity: IDS.tidewell, at }).missing).toEqual([
      800_000,
      IDS.tidewell,
    ]);
    expect(corrected({ identity: 800_001, isRemoved: true }).missing).toEqual([800_001]);
    expect(corrected({ identity: 800_002, street: 800_003, at, house: { number: 1, suffix: "" } }).missing).toEqual([
      800_002,
    ]);
  });

  it("of one record are joined, the later over the earlier", () => {
    const at = { lat: 1, lon: 1 };
    expect(joinCorrections([{ identity: 1, at }, { identity: 2 }, { identity: 1, name: "x", at: undefined }])).toEqual([
      { identity: 1, at, name: "x" },
      { identity: 2 },
    ]);
  });
});
