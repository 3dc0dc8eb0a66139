import { describe, expect, it } from "vitest";
import { describeMarkers, describeView, unsetWords } from "./describe.ts";

const at = { lat: -35.174, lon: -21.631 };

describe("what a map says of itself", () => {
  it("names the style, how much it shows, and where", () => {
    expect(describeView({ at, zoom: 14 }, { width: 600, height: 400 }, "heights")).toBe(
      "Heights, 4.7 km across, around 35.174° south, 21.631° west.",
    );
    expect(describeView({ at: { lat: 1, lon: 2 }, zoom: 14 }, { width: 0, height: 0 }, "streets")).toBe(
      "Streets, around 1.000° north, 2.000° east.",
    );
  });

  it("names the markers while they are few, and counts them when they are many", () => {
    expect(describeMarkers([{ at, label: "Old Mill" }, { at, name: "Keel" }, { at }], [0, 1, 2])).toBe(
      "There is a marker at Old Mill, Keel.",
    );
    const many = Array.from({ length: 400 }, () => ({ at }));
    expect(describeMarkers(many, [...many.keys()])).toBe("400 markers on the map.");
    expect(describeMarkers([], [])).toBe("");
  });

  it("has a word for what has no position", () => {
    expect(describeMarkers([{ at: undefined, name: "Nowhere" }], [])).toBe("This place has no position yet.");
    expect(describeMarkers([{ at, name: "Keel" }, { at: undefined }], [0])).toBe(
      "There is a marker at Keel. 1 of 2 places has no position yet.",
    );
    expect(unsetWords(2, 5)).toBe("2 of 5 places have no position yet.");
  });
});
