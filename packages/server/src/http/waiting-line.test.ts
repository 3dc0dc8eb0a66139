import { setImmediate as turn } from "node:timers/promises";
import { describe, expect, it } from "vitest";
import { WaitingLine } from "./waiting-line.ts";

const stays = () => false;

describe("a line of lookups", () => {
  it("does at once what nobody is before, and all in the order in which they came", async () => {
    const line = new WaitingLine();
    const done: number[] = [];
    for (let i = 0; i < 120; i++) expect(line.enter(() => done.push(i), stays)).toBe(true);
    expect(done.length).toBeGreaterThan(0);
    expect(done.length).toBeLessThan(20);
    while (line.length) await turn();
    await turn();
    expect(done).toEqual(Array.from({ length: 120 }, (_, i) => i));
  });

  it("refuses what would wait too long, before it is done, and takes others again as soon as it may", async () => {
    // time goes on by what is done alone: a machine that stands still for a moment is no fault of the line
    let now = 0;
    const line = new WaitingLine(() => now);
    let done = 0;
    const run = () => {
      done++;
      now += 2;
    };
    const waits: number[] = [];
    let refused = 0;
    for (let i = 0; i < 1500; i++) {
      const came = now;
      const isTaken = line.enter(() => {
        waits.push(now - came);
        run();
      }, stays);
      if (!isTaken) refused++;
      // more come while it works, three times as many as it can answer
      if (i % 24 === 23) await turn();
    }
    while (line.length) await turn();
    await turn();
    expect(refused).toBeGreaterThan(100);
    expect(done).toBe(1500 - refused);
    expect(Math.max(...waits)).toBeLessThan(200);
    expect(line.enter(run, stays)).toBe(true);
  });

  it("passes over whoever has gone away", async () => {
    const line = new WaitingLine();
    const done: number[] = [];
    const gone = new Set<number>();
    for (let i = 0; i < 60; i++)
      line.enter(
        () => done.push(i),
        () => gone.has(i),
      );
    for (let i = 20; i < 40; i++) gone.add(i);
    while (line.length) await turn();
    await turn();
    expect(done).toEqual(Array.from({ length: 60 }, (_, i) => i).filter((i) => i < 20 || i >= 40));
  });

  it("lets others have their turn between some of them", async () => {
    const line = new WaitingLine();
    let most = 0;
    let inTurn = 0;
    for (let i = 0; i < 100; i++)
      line.enter(() => {
        most = Math.max(most, ++inTurn);
      }, stays);
    while (line.length) {
      await turn();
      inTurn = 0;
    }
    expect(most).toBeLessThan(20);
  });
});
