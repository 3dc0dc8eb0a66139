import type { World } from "@bibliotope/islands";
import { describe, expect, it } from "vitest";
import { atMost, percentile, timeEach } from "./measure.ts";
import { queryClasses } from "./queries.ts";

const english = (name: string) => [{ lang: "en", name }];
const at = { lat: -35, lon: -21 };
/** A town with four streets: enough to make queries from. */
const world: World = {
  areas: [
    {
      key: "t",
      parent: null,
      kind: "town",
      country: "QR",
      names: english("Tidewell"),
      at,
      population: 1,
      importance: 1,
      rings: [],
    },
  ],
  postcodes: [],
  streets: ["Harbour Row", "Mill Lane", "Chandler's Court", "Sexton's Green"].map((name, i) => ({
    key: `s${i}`,
    country: "QR",
    area: "t",
    kind: "street",
    names: english(name),
    at,
    importance: 1,
  })),
  addresses: Array.from({ length: 80 }, (_, i) => ({
    key: `a${i}`,
    country: "QR",
    street: `s${i % 4}`,
    number: i + 1,
    suffix: "",
    postcode: null,
    at,
  })),
  places: [],
  features: [],
};

describe("the queries", () => {
  const classes = queryClasses(world, 300);
  const of = (name: string) => classes.find((queries) => queries.name === name)!.queries;

  it("are the same each time", () => {
    expect(queryClasses(world, 300)).toEqual(classes);
  });

  it("are what their class says", () => {
    const clean = of("clean");
    of("cut after some letters").forEach((query, i) => {
      expect(clean[i].startsWith(query)).toBe(true);
    });
    const changed = of("one typing error").filter((query, i) => query !== clean[i]);
    expect(changed.length).toBeGreaterThan(250);
    of("one typing error").forEach((query, i) => {
      expect(Math.abs(query.length - clean[i].length)).toBeLessThanOrEqual(1);
    });
  });
});

describe("the figures", () => {
  it("say where a share of the values lies", () => {
    const values = Array.from({ length: 100 }, (_, i) => i);
    expect(percentile(values, 0.5)).toBe(50);
    expect(percentile(values, 0.99)).toBe(99);
    expect(percentile([3], 0.99)).toBe(3);
  });

  it("hold at most at their target", () => {
    expect(atMost("m", "c", "ms", 2, 2, "").holds).toBe(true);
    expect(atMost("m", "c", "ms", 2.1, 2, "").holds).toBe(false);
  });

  it("count each input once, whatever the rounds", () => {
    const seen: number[] = [];
    const { each, all } = timeEach([1, 2, 3], 4, (n) => seen.push(n));
    expect(each).toHaveLength(3);
    expect(all).toHaveLength(12);
    expect(seen).toHaveLength(15);
  });
});
