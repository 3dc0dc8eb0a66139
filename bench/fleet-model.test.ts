import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { answersOf, type Constants, leasesOf, type Machine, needsOf } from "./fleet-model.ts";

const machine = (more: Partial<Machine> = {}): Machine => ({
  processes: 1,
  cores: 4,
  costs: [1],
  beside: 0,
  asking: 0,
  ...more,
});

describe("a machine on paper", () => {
  it("answers as queueing theory says, where that has a formula", { tags: ["long"] }, () => {
    // one server, lookups at random moments, all of the same length: half the load is half a millisecond of waiting (Pollaczek and Khinchine)
    const even = answersOf(machine(), 500, 400);
    expect(even.rate).toBeCloseTo(500, -1);
    expect(even.busy * 4).toBeCloseTo(0.5, 1);
    const exponential = Array.from({ length: 2000 }, (_, i) => -Math.log(1 - (i + 0.5) / 2000));
    // exponential lengths: the time until the answer is exponential too, with mean 1 / (1 - 0.5)
    const varied = answersOf(machine({ costs: exponential }), 500, 400);
    expect(varied.median).toBeGreaterThan(2 * Math.LN2 * 0.93);
    expect(varied.median).toBeLessThan(2 * Math.LN2 * 1.07);
    expect(varied.p99).toBeGreaterThan(2 * Math.log(100) * 0.88);
    expect(varied.p99).toBeLessThan(2 * Math.log(100) * 1.12);
  });

  it("answers no more than its processes and its cores can, and all of that when it is asked as fast", {
    tags: ["long"],
  }, () => {
    const settings = fc.record({
      processes: fc.integer({ min: 1, max: 6 }),
      cores: fc.integer({ min: 1, max: 6 }),
      costs: fc.constantFrom([1], [0.5, 1.5], [0.2, 0.2, 2.6]),
      beside: fc.constantFrom(0, 0.2),
      asking: fc.constantFrom(0, 0.25),
    });
    fc.assert(
      fc.property(settings, ({ processes, cores, costs, beside, asking }) => {
        const each = 1 + beside + asking;
        const most = Math.min(processes, cores / each, asking ? 1 / asking : Number.POSITIVE_INFINITY) * 1000;
        const { rate, busy } = answersOf({ processes, cores, costs, beside, asking }, Number.POSITIVE_INFINITY, 4);
        expect(rate).toBeLessThan(most * 1.06);
        expect(rate).toBeGreaterThan(most * 0.85);
        expect(busy).toBeLessThanOrEqual(1 + 1e-9);
      }),
      { numRuns: 60 },
    );
  });
});

describe("permits on paper", () => {
  it("are leased in few blocks by one process, and not more often than lookups are asked", () => {
    expect(leasesOf(1, 100_000, 1000, 60).writes).toBeLessThan(20);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 5000 }), (processes, most) => {
        const { writes } = leasesOf(processes, most, 100, 60);
        expect(writes).toBeGreaterThan(0);
        expect(writes).toBeLessThanOrEqual(2 * Math.min(6000, most) + processes);
      }),
    );
  });

  it("are there for every process while a limit is far from used up", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), (processes) => {
        // as much as half of the limit is asked
        expect(leasesOf(processes, 100_000, 800, 60).refused).toBe(0);
      }),
      { numRuns: 40 },
    );
  });
});

it("a fleet needs more of the database with more machines, and the same memory of each", () => {
  const constants: Constants = {
    indexBytes: 40,
    segmentHolds: 5e7,
    baseBytes: 3e8,
    threadBytes: 1e8,
    buildMicroseconds: 6,
    lookup: 1,
    idleTransactions: 1,
    connections: 2,
    useTransactions: 0.4,
    rowTransactions: 500,
  };
  const fleet = { machines: 1000, threads: 4, addresses: 1e8, storeBytes: 1e9 };
  const needs = needsOf(fleet, constants);
  expect(needs).toMatchObject({ segments: 2, memory: 8.6e9, build: 600, sent: 4e12, sending: 4000, connections: 8000 });
  expect(needs.lookups).toBeCloseTo(2_666_667, -1);
  const more = needsOf({ ...fleet, machines: 2000 }, constants);
  expect(more.connections).toBe(2 * needs.connections);
  expect(more.keyTransactions).toBeGreaterThan(needsOf({ ...fleet, machines: 1 }, constants).keyTransactions);
  expect(more.memory).toBe(needs.memory);
  expect(more.heldTransactions).toBeLessThan(more.keyTransactions);
  expect(more.keyShare).toBeCloseTo(more.keyTransactions / 500, 9);
});
