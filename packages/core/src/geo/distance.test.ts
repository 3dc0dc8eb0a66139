import { describe, expect, it } from "vitest";
import { sphereDistance } from "./distance.ts";

describe("sphereDistance", () => {
  it("is zero for the same position and half a turn for opposite ones", () => {
    expect(sphereDistance({ lat: 12, lon: 34 }, { lat: 12, lon: 34 })).toBe(0);
    expect(sphereDistance({ lat: 90, lon: 0 }, { lat: -90, lon: 0 })).toBeCloseTo(Math.PI * 6371008.8, 0);
  });
});
