import { describe, expect, it } from "vitest";
import { lengthText } from "./length-text.ts";

describe("lengthText", () => {
  it.each([
    [0, "0 m"],
    [342.4, "342 m"],
    [999.4, "999 m"],
    [999.6, "1.0 km"],
    [12_440, "12.4 km"],
    [99_960, "100 km"],
    [1_204_600, "1,205 km"],
  ])("writes %d metres as %s", (metres, text) => {
    expect(lengthText(metres)).toBe(text);
  });

  it.each([
    ["de", 12_440, "12,4 km"],
    ["de", 1_204_600, "1.205 km"],
    ["fr", 1_204_600, "1\u00a0205\u00a0km"],
    ["el", 342, "342 μ."],
    ["pl", 500, "500 m"],
    ["ar", 500, "\u200f500 متر"],
  ])("writes it as people do in %s: %d metres as %s", (lang, metres, text) => {
    expect(lengthText(metres, lang)).toBe(text);
  });

  it("keeps the fraction of a round length", () => {
    expect(lengthText(500, "en", true)).toBe("500 m");
    expect(lengthText(20_000, "en", true)).toBe("20 km");
    expect(lengthText(2_500, "de", true)).toBe("2,5 km");
  });
});
