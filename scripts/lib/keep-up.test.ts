import { setTimeout as wait } from "node:timers/promises";
import { describe, expect, it } from "vitest";
import { keepUp } from "./keep-up.mjs";

/** A server that is ready after some milliseconds, or never, and ends with a code. */
interface Life {
  readyAfter?: number;
  endsAfter: number;
  code: number;
}

/** Lives one life after another. @returns the command's exit code, what was said, and when each began */
async function live(lives: readonly Life[], options: object = {}) {
  const stop = new AbortController();
  const said: string[] = [];
  const began: number[] = [];
  let count = 0;
  const start = async () => {
    const { readyAfter, endsAfter, code } = lives[count++];
    began.push(performance.now());
    const ready = readyAfter === undefined ? Promise.reject(new Error("never")) : wait(readyAfter);
    ready.catch(() => undefined);
    // its life is counted from when it is ready: on a busy machine two timers may come due at once
    const ended = ready.catch(() => undefined).then(() => wait(endsAfter - (readyAfter ?? 0), code));
    // the last of them runs until it is told to stop
    if (count === lives.length) void wait(endsAfter / 2).then(() => stop.abort());
    return { ready, ended };
  };
  const say = (words: string) => void said.push(words);
  const code = await keepUp({
    start,
    stop: stop.signal,
    say,
    pauses: { first: 5, second: 20, most: 50 },
    steady: 10_000,
    ...options,
  });
  return { code, said, pauses: began.slice(1).map((time, i) => time - began[i] - lives[i].endsAfter) };
}
const UP = { readyAfter: 1, endsAfter: 30, code: 134 };
const LAST = { readyAfter: 1, endsAfter: 40, code: 0 };

describe("what keeps a server running", () => {
  it("starts it again whatever it ended with, after pauses that grow up to the longest", async () => {
    const lives = [UP, { ...UP, code: 137 }, { ...UP, code: 1 }, UP, LAST];
    const { code, said, pauses } = await live(lives);
    expect(code).toBe(0);
    expect(said.map((words) => /([\d.]+ s)$/.exec(words)?.[1])).toEqual(["0.005 s", "0.02 s", "0.04 s", "0.05 s"]);
    expect(said[0]).toContain("out of memory");
    expect(said[1]).toContain("it was killed");
    for (const [i, least] of [5, 20, 40, 50].entries()) expect(pauses[i]).toBeGreaterThanOrEqual(least - 2);
  });

  it("begins with the first pause again when the server was well for long", async () => {
    const { said } = await live([UP, UP, UP, LAST], { steady: 5 });
    expect(said.map((words) => /([\d.]+ s)$/.exec(words)?.[1])).toEqual(["0.005 s", "0.005 s", "0.005 s"]);
  });

  it("gives up what never was ready: at once where it said why, else after five tries", async () => {
    expect(await live([{ endsAfter: 5, code: 2 }, LAST])).toMatchObject({ code: 2, said: [] });
    const crash = { endsAfter: 5, code: 134 };
    const { code, said } = await live([crash, crash, crash, crash, crash, LAST]);
    expect([code, said.length]).toEqual([134, 4]);
  });

  it("starts it again at once, without a word, when it wants to begin anew", async () => {
    const { code, said } = await live([{ ...UP, code: 75 }, LAST]);
    expect([code, said]).toEqual([0, []]);
  });

  it("ends in the middle of a pause when it is told to", async () => {
    const stop = new AbortController();
    const start = async () => ({ ready: Promise.resolve({}), ended: wait(5, 1) });
    const kept = keepUp({
      start,
      stop: stop.signal,
      say: () => undefined,
      pauses: { first: 60_000, second: 60_000, most: 60_000 },
    });
    await wait(30);
    stop.abort();
    expect(await kept).toBe(0);
  });
});
