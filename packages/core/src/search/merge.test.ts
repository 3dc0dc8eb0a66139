import { describe, expect, it } from "vitest";
import { Merger, type RecordSink, Segment, SegmentBuilder } from "../index/index.ts";
import { Engine } from "./engine.ts";

const names = (name: string) => [{ lang: "en", name }];
const at = { lat: -35.2, lon: -21.4 };

/** A street with two houses in a town; `first` is where its identities begin. */
function pour(
  sink: RecordSink,
  first: number,
  { town = "Tidewell", street = "Harbour Row", houses = [1, 2], where = at } = {},
): void {
  const thing = { at: where, importance: 0.5 };
  sink.addArea({
    ...thing,
    identity: first,
    kind: "country",
    parent: null,
    code: "QR",
    names: names("Lorramere"),
    rings: [],
  });
  sink.addArea({ ...thing, identity: first + 1, kind: "town", parent: first, names: names(town), rings: [] });
  sink.addPostcode({ ...thing, identity: first + 2, code: "HT4 29", area: first + 1 });
  sink.addStreet({ ...thing, identity: first + 3, kind: "street", area: first + 1, names: names(street) });
  sink.addPlace({ ...thing, identity: first + 4, area: first + 1, names: names("Old Mill"), facts: {}, address: null });
  for (const number of houses)
    sink.addAddress({
      identity: first + 4 + number,
      street: first + 3,
      number,
      suffix: "",
      postcode: first + 2,
      at: where,
    });
}

/** Pours records kind by kind over all sources, as a merger needs them. */
function merge(...sources: ((sink: RecordSink) => void)[]) {
  const builder = new SegmentBuilder();
  const merger = new Merger(builder);
  for (const kind of ["addArea", "addPostcode", "addStreet", "addAddress", "addPlace"] as const)
    sources.forEach((source, place) => {
      merger.from(place);
      const nothing = () => undefined;
      const only = {
        addArea: nothing,
        addPostcode: nothing,
        addStreet: nothing,
        addAddress: nothing,
        addPlace: nothing,
      };
      source({ ...only, [kind]: (merger[kind] as (record: unknown) => void).bind(merger) });
    });
  const segment = new Segment(builder.finish({ name: "m", sources: [] }));
  return {
    engine: new Engine(segment),
    counts: segment.meta.counts,
    replaced: merger.replaced,
    doubles: merger.doubles,
  };
}

describe("Merger", () => {
  it("takes what several sources hold from the first, and adds what only the later has", () => {
    const { counts, replaced, doubles, engine } = merge(
      (sink) => pour(sink, 100),
      (sink) => pour(sink, 200, { houses: [2, 3] }),
    );
    expect(counts).toMatchObject({ areas: 2, streets: 1, postcodes: 1, places: 1, addresses: 3 });
    expect(replaced.get(206)).toBe(106);
    expect(replaced.get(203)).toBe(103);
    expect(doubles).toBe(1);
    expect(engine.forward({ q: "3 Harbour Row, Tidewell" }).candidates[0].line).toContain("3 Harbour Row, Tidewell");
    expect(engine.forward({ q: "2 Harbour Row, Tidewell" }).outcome).toBe("matched");
  });

  it("leaves streets of one name in towns far apart as they are", () => {
    const { counts } = merge(
      (sink) => pour(sink, 100),
      (sink) => pour(sink, 200, { town: "Tidewell", where: { lat: -34, lon: -22 } }),
    );
    expect(counts).toMatchObject({ areas: 3, streets: 2, addresses: 4, places: 2 });
  });

  it("merges nothing within one source", () => {
    const twice = (sink: RecordSink) => {
      pour(sink, 100);
      sink.addStreet({ identity: 150, kind: "street", area: 101, names: names("Harbour Row"), at, importance: 0.5 });
      sink.addAddress({ identity: 151, street: 150, number: 1, suffix: "", postcode: null, at });
    };
    expect(merge(twice).counts).toMatchObject({ streets: 2, addresses: 3 });
    expect(merge((sink) => pour(sink, 300), twice).counts.addresses).toBe(2);
  });

  it("merges towns by name and place, whatever lies around them in each source", () => {
    const deep = (sink: RecordSink) => {
      const thing = { at, importance: 0.5, rings: [] };
      sink.addArea({ ...thing, identity: 1, kind: "country", parent: null, code: "QR", names: names("Lorramere") });
      sink.addArea({ ...thing, identity: 2, kind: "county", parent: 1, names: names("Sallow") });
      sink.addArea({ ...thing, identity: 3, kind: "town", parent: 2, names: names("TIDE-WELL") });
    };
    const { replaced } = merge(deep, (sink) => pour(sink, 100, { town: "Tide Well" }));
    expect(replaced.get(101)).toBe(3);
  });
});
