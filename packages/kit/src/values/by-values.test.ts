import { describe, expect, it } from "vitest";
import { byValues, mapGeoJson, type Values } from "./index.ts";

const at = (i: number) => ({ lat: -35 - i / 100, lon: -21 });
const markers = Array.from({ length: 10 }, (_, i) => ({ at: at(i), name: `Row ${i}` }));
const values: Values[] = markers.map((_, i) => ({
  price: i === 9 ? null : `€ ${100 * (i + 1)}`,
  sold: i,
  how: i % 2 ? "let" : "sold",
  note: `<b>${"x".repeat(60)}</b>`,
}));

describe("markers by their values", () => {
  it("have the colour of a column, and its legend says what each means", () => {
    const { markers: shown, legend } = byValues(markers, values, { colour: "price" }, "en");
    expect(new Set(shown.map(({ colour }) => colour)).size).toBe(6);
    expect(legend).toHaveLength(1);
    expect(legend[0]).toMatchObject({ by: "colour", column: "price", mean: "500" });
    expect(legend[0].steps.map(({ words, count }) => [words, count])).toEqual([
      ["100", 1],
      ["200 to 300", 2],
      ["400 to 500", 2],
      ["600 to 700", 2],
      ["800 to 900", 2],
      ["no value", 1],
    ]);
    for (const { colour } of shown) expect(legend[0].steps.filter((step) => step.colour === colour)).toHaveLength(1);
    expect(shown.map(({ name }) => name)).toEqual(markers.map(({ name }) => name));
  });

  it("have the size of a column of numbers, and of no other", () => {
    const { markers: shown, legend } = byValues(markers, values, { size: "sold" }, "en");
    const sizes = shown.map(({ size }) => size!);
    expect(sizes).toEqual(sizes.toSorted((a, b) => a - b));
    expect(legend[0].steps.map(({ words }) => words)).toEqual(["0", "9"]);
    expect(byValues(markers, values, { size: "how" }, "en").legend).toEqual([
      { by: "size", column: "how", steps: [], trouble: "Only numeric columns can set the size." },
    ]);
  });

  it("have a label of a column, cut where it is long", () => {
    const { markers: shown } = byValues(markers, values, { label: "note" }, "en");
    expect(shown[0].label).toHaveLength(40);
    expect(shown[0].colour).toBe(undefined);
  });

  it("stand in groups with their count or their mean, in the colour of the mean", () => {
    const counted = byValues(markers, values, { colour: "price" }, "en");
    expect(counted.ofGroup?.({ count: 3, mean: 850 })).toEqual({ colour: counted.legend[0].steps[4].colour });
    const meant = byValues(markers, values, { colour: "price", groups: "mean" }, "en");
    expect(meant.ofGroup?.({ count: 3, mean: 312_400 })).toMatchObject({ words: "312K" });
    expect(meant.ofGroup?.({ count: 2 })?.words).toBe(undefined);
    expect(
      byValues(markers, values, { size: "sold", groups: "mean" }, "en").ofGroup?.({ count: 2, mean: 4.25 }),
    ).toEqual({
      words: "4.25",
    });
    expect(byValues(markers, values, { colour: "how", groups: "mean" }, "en").ofGroup).toBe(undefined);
    expect(counted.markers[9].value).toBe(undefined);
  });

  it("go out as GeoJSON with all that is known of them", () => {
    const unset = [...markers, { at: undefined, name: "Nowhere" }];
    expect(mapGeoJson(unset, values)).toMatchObject({
      type: "FeatureCollection",
      features: [
        {
          geometry: { type: "Point", coordinates: [-21, -35] },
          properties: { name: "Row 0", price: "€ 100", sold: 0 },
        },
        ...Array.from({ length: 9 }, () => ({})),
        { geometry: null, properties: { name: "Nowhere" } },
      ],
    });
  });
});
