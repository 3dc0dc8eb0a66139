import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Frame, framesMeet } from "./clip.ts";
import { FrameTree } from "./frame-tree.ts";

const side = fc.double({ min: 0, max: 1, noNaN: true });
const frame = fc.tuple(side, side, side, side).map(
  ([ax, ay, bx, by]): Frame => ({
    left: Math.min(ax, bx),
    top: Math.min(ay, by),
    right: Math.max(ax, bx),
    bottom: Math.max(ay, by),
  }),
);

describe("FrameTree", () => {
  it("finds what a walk through the whole list finds, in its order", () => {
    fc.assert(
      fc.property(fc.array(frame, { maxLength: 600 }), frame, (frames, request) => {
        const all = frames.flatMap((one, place) => (framesMeet(one, request) ? [place] : []));
        expect(new FrameTree(frames).meeting(request)).toEqual(all);
      }),
    );
  });

  it("finds nothing in an empty list", () => {
    expect(new FrameTree([]).meeting({ left: 0, top: 0, right: 1, bottom: 1 })).toEqual([]);
  });

  it("holds a list of many levels", () => {
    const frames = Array.from({ length: 5000 }, (_, i) => {
      const [left, top] = [(i % 100) / 100, Math.floor(i / 100) / 50];
      return { left, top, right: left + 0.001, bottom: top + 0.001 };
    });
    const found = new FrameTree(frames).meeting({ left: 0.5, top: 0.5, right: 0.5, bottom: 0.5 });
    expect(found).toEqual([2550]);
  });
});
