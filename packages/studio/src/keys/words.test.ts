import type { KeySummary } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { keptTo, keyStatus, momentsOf, sumOf } from "./words.ts";

const KEY: KeySummary = {
  id: 1,
  kind: "srv",
  name: "One",
  origins: [],
  calls: [],
  countries: [],
  createdAt: "2026-11-01T00:00:00Z",
  endsAt: null,
  perMinute: null,
  perDay: null,
  usedAt: null,
};

describe("a key in words", () => {
  it("says what it is kept to, and nothing when it may do everything", () => {
    expect(keptTo(KEY)).toEqual([]);
    expect(keptTo({ ...KEY, kind: "web" })).toEqual(["no origins yet"]);
    const web: KeySummary = { ...KEY, kind: "web", origins: ["https://a.example", "https://*.b.example"] };
    expect(keptTo({ ...web, calls: ["suggest", "still"], countries: ["QR"] })).toEqual([
      "https://a.example, https://*.b.example",
      "suggestions, pictures",
      "QR",
    ]);
    expect(keptTo({ ...KEY, perMinute: 1200, perDay: 50_000 })).toEqual(["1,200 per minute", "50,000 per day"]);
    expect(keptTo({ ...KEY, kind: "app" })).toEqual(["300 per minute"]);
  });

  it("says whether it works", () => {
    const now = Date.parse("2026-11-25T00:00:00Z");
    expect(keyStatus(KEY, now)).toBe("never used");
    expect(keyStatus({ ...KEY, usedAt: "2026-11-24T00:00:00Z" }, now)).toBe("in use");
    expect(keyStatus({ ...KEY, endsAt: "2026-11-26T00:00:00Z" }, now)).toBe("ends");
    expect(keyStatus({ ...KEY, endsAt: "2026-11-25T00:00:00Z" }, now)).toBe("ended");
  });
});

describe("use in figures", () => {
  const at = "2026-11-25T10:00:00.000Z";

  it("sums lookups, and shares of those that were answered", () => {
    const use = (outcome: "matched" | "ambiguous" | "none" | "limited", count: number) => ({
      at,
      call: "forward" as const,
      outcome,
      count,
    });
    const tile = { at, call: "tiles" as const, outcome: "matched" as const, count: 5000 };
    const uses = [use("matched", 70), use("ambiguous", 10), use("none", 20), use("limited", 900), tile];
    expect(sumOf({ uses, choices: { count: 4, letters: 22 } })).toEqual({
      lookups: 1000,
      none: 0.2,
      several: 0.1,
      letters: 5.5,
    });
    expect(sumOf({ uses: [], choices: { count: 0, letters: 0 } })).toEqual({
      lookups: 0,
      none: 0,
      several: 0,
      letters: undefined,
    });
  });

  it("has a moment for each hour or day, those without a lookup too", () => {
    const hours = momentsOf({ step: "hour", from: at, to: "2026-11-25T12:30:00.000Z" });
    expect(hours.map((moment) => moment.slice(11, 13))).toEqual(["10", "11", "12"]);
    const days = momentsOf({ step: "day", from: "2026-11-24T00:00:00.000Z", to: at });
    expect(days.map((moment) => moment.slice(8, 10))).toEqual(["24", "25"]);
  });
});
