import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { MapFeature } from "./features.ts";
import { type Label, labelsOf, placeLabels } from "./labels.ts";

const name = (text: string) => [{ lang: "en", name: text }];
const feature = (geometry: MapFeature["geometry"], properties: MapFeature["properties"], id?: string): MapFeature => ({
  type: "Feature",
  id,
  geometry,
  properties,
});

describe("labelsOf", () => {
  it("reads names of points, streets and parks", () => {
    const labels = labelsOf([
      feature(
        { type: "Point", coordinates: [-21, -35] },
        { layer: "name", rank: 1, names: name("Tidewell"), what: "town" },
      ),
      feature(
        {
          type: "LineString",
          coordinates: [
            [-21, -35],
            [-20.99, -35],
          ],
        },
        { layer: "street", rank: 3, names: name("Mill Lane") },
        "qr-1",
      ),
      feature(
        {
          type: "Polygon",
          coordinates: [
            [
              [0, 0],
              [1, 0],
              [1, 1],
              [0, 0],
            ],
          ],
        },
        { layer: "park", rank: 2, names: name("Sexton's Green") },
      ),
      feature(
        {
          type: "LineString",
          coordinates: [
            [0, 0],
            [1, 1],
          ],
        },
        { layer: "street", rank: 3 },
      ),
    ]);
    expect(labels.map(({ text, what }) => [text, what])).toEqual([
      ["Tidewell", "town"],
      ["Mill Lane", "street"],
      ["Sexton's Green", "park"],
    ]);
  });

  it("lays a street's name along it, never upside down", () => {
    const along = (coordinates: [number, number][]) =>
      labelsOf([feature({ type: "LineString", coordinates }, { layer: "street", rank: 2, names: name("x") })])[0].turn;
    expect(
      along([
        [0, 0],
        [1, 0],
      ]),
    ).toBeCloseTo(0, 6);
    expect(
      along([
        [1, 0],
        [0, 0],
      ]),
    ).toBeCloseTo(0, 6);
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (lon, lat) => {
          const turn = along([
            [0, 0],
            [lon, lat],
          ]);
          expect(turn).toBeGreaterThan(-Math.PI / 2 - 1e-9);
          expect(turn).toBeLessThanOrEqual(Math.PI / 2 + 1e-9);
        },
      ),
    );
  });
});

describe("labelsOf, for a reader", () => {
  const pelania = feature(
    { type: "Point", coordinates: [-22.6, -36.6] },
    {
      layer: "name",
      rank: 1,
      what: "town",
      names: [
        { lang: "qth", name: "Πελανία" },
        { lang: "qth-Latn", name: "Pelania" },
      ],
    },
    "qy-1",
  );
  const peak = feature({ type: "Point", coordinates: [0, 0] }, { layer: "name", rank: 2, what: "peak", height: 867 });
  const ring: [number, number][] = [
    [0, 0],
    [1, 0],
    [2, 0.1],
    [2, 2],
    [0, 2],
    [0, 0],
  ];
  const contour = (properties: object = {}) =>
    feature({ type: "Polygon", coordinates: [ring] }, { layer: "contour", rank: 2, height: 300, ...properties });

  it("takes the reader's language, with the local name beside", () => {
    const names = (langs?: string[]) => labelsOf([pelania], { langs }).map(({ text, local }) => [text, local]);
    expect(names()).toEqual([["Πελανία", undefined]]);
    expect(names(["qth-Latn"])).toEqual([["Pelania", "Πελανία"]]);
    expect(names(["fr", "de-CH"])).toEqual([["Πελανία", undefined]]);
  });

  it("knows what belongs on which style", () => {
    const on = (style: "streets" | "ground" | "heights") =>
      labelsOf([pelania, peak, contour()], { style }).map(({ what }) => what);
    expect(on("streets")).toEqual(["town"]);
    expect(on("heights")).toEqual(["town", "peak", "contour"]);
    expect(on("ground")).toEqual([]);
  });

  it("writes a contour's height where no tile cut it", () => {
    const [whole] = labelsOf([contour()], { style: "heights" });
    const [cut] = labelsOf([contour({ cuts: [[2, 3, 4]] })], { style: "heights" });
    expect(whole.text).toBe("300");
    expect(cut.run).toBeLessThan(whole.run);
    expect(cut.y).toBeCloseTo(0.5, 3);
    expect(labelsOf([contour({ rank: 3 })], { style: "heights" })).toEqual([]);
  });
});

describe("placeLabels", () => {
  const label = (text: string, x: number, y: number, more: Partial<Label> = {}): Label => ({
    text,
    key: text,
    what: "town",
    rank: 2,
    x,
    y,
    turn: 0,
    run: 0,
    ...more,
  });
  const place = (labels: Label[]) =>
    placeLabels(
      labels,
      ({ x, y }) => ({ x, y }),
      1,
      () => 60,
    ).map((placed) => placed.label.text);

  it("puts the important one where two would overlap", () => {
    expect(place([label("Small", 100, 100), label("Large", 110, 104, { rank: 1 })])).toEqual(["Large"]);
    expect(place([label("Small", 100, 100), label("Large", 300, 100, { rank: 1 })])).toEqual(["Large", "Small"]);
  });

  it("shows a name once, though it is in several tiles", () => {
    expect(place([label("Mill", 0, 0), label("Mill", 500, 500)])).toEqual(["Mill"]);
  });

  it("leaves out names that the edge of a picture would cut", () => {
    const within = { width: 200, height: 100 };
    const placed = placeLabels(
      [label("Cut", 20, 50), label("Whole", 120, 50), label("Low", 120, 96)],
      ({ x, y }) => ({ x, y }),
      1,
      () => 60,
      { within },
    );
    expect(placed.map((one) => one.label.text)).toEqual(["Whole"]);
  });

  it("writes a street's local name behind the reader's where the street is long enough", () => {
    const street = (run: number) =>
      placeLabels(
        [label("Harbour Street", 0, 0, { what: "street", local: "Οδός Λιμένος", run })],
        ({ x, y }) => ({ x, y }),
        1,
        ({ text }) => 6 * text.length,
      ).map((placed) => [placed.label.text, placed.label.local]);
    expect(street(300)).toEqual([["Harbour Street · Οδός Λιμένος", undefined]]);
    expect(street(120)).toEqual([["Harbour Street", undefined]]);
    expect(street(60)).toEqual([]);
  });

  it("leaves out a street that is shorter than its name", () => {
    expect(place([label("Mill Lane", 0, 0, { what: "street", run: 30 })])).toEqual([]);
    expect(place([label("Mill Lane", 0, 0, { what: "street", run: 90 })])).toEqual(["Mill Lane"]);
  });

  it("moves the name of a point off a marker, and lets a street's name go", () => {
    const at = (labels: Label[]) =>
      placeLabels(
        labels,
        ({ x, y }) => ({ x, y }),
        1,
        () => 60,
        { kept: [{ left: 95, top: 95, right: 115, bottom: 138 }] },
      ).map(({ label: { text }, x, y }) => [text, x, y]);
    expect(at([label("Town", 100, 105)])).toEqual([["Town", 100, 81]]);
    expect(at([label("Town", 100, 104), label("Above", 100, 80, { rank: 1 })])).toEqual([
      ["Above", 100, 80],
      ["Town", 100, 150],
    ]);
    expect(at([label("Lane", 100, 100, { what: "street", run: 90 })])).toEqual([]);
  });

  it("writes the height of a contour only along a long stretch", () => {
    expect(place([label("200", 0, 0, { what: "contour", run: 100 })])).toEqual([]);
    expect(place([label("200", 0, 0, { what: "contour", run: 200 })])).toEqual(["200"]);
  });

  it("is the same whatever order the tiles came in", () => {
    const labels = Array.from({ length: 30 }, (_, i) =>
      label(`n${i}`, (i * 37) % 200, (i * 53) % 120, { rank: i % 3 }),
    );
    fc.assert(
      fc.property(fc.shuffledSubarray(labels, { minLength: labels.length }), (shuffled) => {
        expect(place(shuffled)).toEqual(place(labels));
      }),
    );
  });
});
