import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readUrlView, writeUrlView } from "./url-view.ts";

const view = { at: { lat: -35.17399, lon: -21.6309 }, zoom: 16.4 };

describe("the view in a page's address", () => {
  it("comes back as typed, beside what else is there", () => {
    const hash = writeUrlView("#tab=two", view, "heights");
    expect(hash).toBe("#tab=two&at=-35.17399,-21.63090&zoom=16.4&style=heights");
    expect(readUrlView(hash)).toEqual({ view, mapStyle: "heights" });
    expect(writeUrlView(hash, view, "streets")).toBe("#tab=two&at=-35.17399,-21.63090&zoom=16.4");
  });

  it.each(["", "#", "#at=1", "#at=,&zoom=7", "#at=99,0&zoom=7", "#at=1,2&zoom=99", "#at=1,2&zoom=x", "#style=sky"])(
    "leaves out what is none: %s",
    (hash) => {
      expect(readUrlView(hash)).toEqual({});
    },
  );

  it("reads anything without an error", () => {
    fc.assert(fc.property(fc.string(), (text) => void readUrlView(`#at=${text}&zoom=${text}`)));
  });
});
