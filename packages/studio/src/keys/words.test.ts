import type { KeySummary } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { keptTo, standing } from "./words.ts";

const KEY: KeySummary = {
  id: 1,
  kind: "srv",
  name: "One",
  origins: [],
  calls: [],
  countries: [],
  createdAt: "2026-11-01T00:00:00Z",
  endsAt: null,
  usedAt: null,
};

describe("a key in words", () => {
  it("says what it is kept to, and nothing when it may do everything", () => {
    expect(keptTo(KEY)).toEqual([]);
    expect(keptTo({ ...KEY, kind: "web" })).toEqual(["no origin yet"]);
    const web: KeySummary = { ...KEY, kind: "web", origins: ["https://a.example", "https://*.b.example"] };
    expect(keptTo({ ...web, calls: ["suggest", "still"], countries: ["QR"] })).toEqual([
      "https://a.example, https://*.b.example",
      "suggestions, pictures",
      "QR",
    ]);
  });

  it("says whether it works", () => {
    const now = Date.parse("2026-11-25T00:00:00Z");
    expect(standing(KEY, now)).toBe("never used");
    expect(standing({ ...KEY, usedAt: "2026-11-24T00:00:00Z" }, now)).toBe("in use");
    expect(standing({ ...KEY, endsAt: "2026-11-26T00:00:00Z" }, now)).toBe("ends");
    expect(standing({ ...KEY, endsAt: "2026-11-25T00:00:00Z" }, now)).toBe("ended");
  });
});
