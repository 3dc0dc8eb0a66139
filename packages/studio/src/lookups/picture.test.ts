import { describe, expect, it } from "vitest";
import { imageCode, pictureOf } from "./picture.ts";
import type { AnswerBody } from "./use-answer.ts";

const suggestion = (ref: string, line: string, lat: number) => ({ ref, line, at: { lat, lon: -21.5 } });
const body = (...lines: string[]) =>
  ({ suggestions: lines.map((line, i) => suggestion(`qr-00000${i}`, line, -35 - i)) }) as unknown as AnswerBody;

describe("pictureOf", () => {
  it("shows the one record that was found", () => {
    expect(pictureOf({ call: "suggest", words: { q: "x" } }, body("12 Harbour Row"))).toEqual({
      words: { of: "qr-000000" },
      alt: "Map of 12 Harbour Row",
    });
  });

  it("shows all candidates, numbered as they are named", () => {
    expect(pictureOf({ call: "suggest", words: { q: "x" } }, body("A", "B"))).toEqual({
      words: { points: "-35,-21.5;-36,-21.5" },
      alt: "Map of 2 places. 1: A; 2: B",
    });
  });

  it("shows the line of a distance", () => {
    const words = { from: "-35,-21", to: "-36,-22" };
    expect(pictureOf({ call: "distance", words }, { metres: 189_380 })).toEqual({
      words: { line: "-35,-21;-36,-22" },
      alt: "Map with a line of 189 km from -35,-21 to -36,-22",
    });
  });

  it("shows nothing where nothing was found", () => {
    expect(pictureOf({ call: "forward", words: {} }, { outcome: "none", features: [] })).toBeUndefined();
    expect(pictureOf({ call: "forward", words: {} }, undefined)).toBeUndefined();
  });
});

describe("imageCode", () => {
  it("is an element that needs nothing but the key", () => {
    const code = imageCode(
      { words: { of: "qr-1" }, alt: "Map of A" },
      { width: 300, height: 200 },
      "https://here.example",
    );
    expect(code).toContain(
      'src="https://here.example/v1/still?of=qr-1&amp;width=300&amp;height=200&amp;access_token=KEY"',
    );
    expect(code).toContain('density=2&amp;access_token=KEY 2x"');
    expect(code).toContain('alt="Map of A"');
  });

  it("keeps hostile text within its attribute", () => {
    const code = imageCode(
      { words: { of: '"><script>' }, alt: '"><script>&' },
      { width: 300, height: 200 },
      "https://here.example",
    );
    expect(code).not.toContain("<script>");
    expect(code).toContain('alt="&quot;>&lt;script>&amp;"');
  });
});
