import { describe, expect, it } from "vitest";
import { recorder } from "../../testing/recorder.ts";
import { project } from "../geo/index.ts";
import { drawOver, type Over } from "./over.ts";
import { DAY } from "./palettes.ts";
import type { View } from "./view.ts";

const size = { width: 600, height: 400 };
const drawn = (over: Over, view: View = { at: { lat: -35.5, lon: -21.5 }, zoom: 12 }) => {
  const { painter, calls } = recorder();
  drawOver(painter, view, size, DAY, [], over);
  return calls;
};
const texts = (calls: string[]) =>
  calls.flatMap((call) =>
    call.startsWith("fillText ") ? [JSON.parse(/^fillText ("(?:[^"\\]|\\.)*")/.exec(call)![1])] : [],
  );

describe("drawOver", () => {
  it("writes the length of a line beside it", () => {
    const points = [
      { lat: -35.5, lon: -21.5 },
      { lat: -35.5, lon: -21.4 },
    ];
    expect(texts(drawn({ lines: [{ points }] }))).toContain("9.1 km");
    expect(texts(drawn({ lines: [{ points, isBare: true }] }))).not.toContain("9.1 km");
  });

  it("adds up a line of several points", () => {
    const points = [
      { lat: -35.5, lon: -21.5 },
      { lat: -35.5, lon: -21.4 },
      { lat: -35.5, lon: -21.5 },
    ];
    expect(texts(drawn({ lines: [{ points }] }))).toContain("18.1 km");
  });

  it("draws a line over the 180th meridian in one short piece", () => {
    const points = [
      { lat: -17, lon: 179.8 },
      { lat: -17, lon: -179.8 },
    ];
    const calls = drawn({ lines: [{ points }] }, { at: { lat: -17, lon: 180 }, zoom: 9 });
    const spots = calls.flatMap((call) => (/^(move|line)To /.test(call) ? [Number(call.split(" ")[1])] : []));
    expect(spots.length).toBeGreaterThan(3);
    expect(Math.min(...spots)).toBeGreaterThan(0);
    expect(Math.max(...spots)).toBeLessThan(600);
  });

  it("draws a line whose points are all the same", () => {
    const at = { lat: -35.5, lon: -21.5 };
    expect(texts(drawn({ lines: [{ points: [at, at] }] }))).toContain("0 m");
  });

  it("writes the number of a group on it", () => {
    expect(texts(drawn({ groups: [{ ...project({ lat: -35.5, lon: -21.5 }), count: 1204 }] }))).toContain("1204");
  });

  it("draws a group in the colour of its markers", () => {
    const group = { ...project({ lat: -35.5, lon: -21.5 }), count: 3 };
    const hasInk = (calls: string[], colour: string) => calls.some((call) => call.includes(colour));
    expect(hasInk(drawn({ groups: [{ ...group, colour: "#2f6f62" }] }), "#2f6f62")).toBe(true);
    expect(hasInk(drawn({ groups: [group] }), "#2f6f62")).toBe(false);
  });

  it("keeps a marker's label within the picture: on the other side, or shortened", () => {
    const written = (lon: number, label: string) => {
      const calls = drawn({ markers: [{ at: { lat: -35.5, lon }, label }] });
      const [, text, x] = /^fillText ("A[^"]*") (\S+)/.exec(calls.find((call) => call.startsWith('fillText "A'))!)!;
      return { text: JSON.parse(text), isLeft: Number(x) < 0 };
    };
    expect(written(-21.5, "A mill")).toEqual({ text: "A mill", isLeft: false });
    expect(written(-21.41, "A mill by the sea")).toEqual({ text: "A mill by the sea", isLeft: true });
    expect(written(-21.59, "A mill by the sea")).toEqual({ text: "A mill by the sea", isLeft: false });
    const { text, isLeft } = written(-21.51, "A name broader than both sides of the picture. ".repeat(3));
    expect(text).toMatch(/^A name .*[^ ]…$/);
    expect(isLeft).toBe(false);
  });

  it("draws a marked marker above the others", () => {
    const at = { lat: -35.5, lon: -21.5 };
    const calls = drawn({
      markers: [
        { at, label: "above", marked: true },
        { at, label: "below" },
      ],
    });
    expect(texts(calls).filter((text) => text === "above" || text === "below")).toEqual(["below", "above"]);
  });
});
