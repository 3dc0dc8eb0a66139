import type { Position } from "@bibliotope/core/geo";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Follower } from "./follow.ts";

const at = (lat: number) => ({ lat, lon: 0 });

describe("Follower", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("asks at most four times a second, and about the last position always", async () => {
    const requests: [number, number, boolean][] = [];
    const follower = new Follower<Position>(
      async ({ lat }, isLast) => void requests.push([performance.now(), lat, isLast]),
    );
    for (let i = 0; i < 100; i++) {
      follower.move(at(i), i === 99);
      await vi.advanceTimersByTimeAsync(10);
    }
    await vi.advanceTimersByTimeAsync(1000);
    expect(requests.length).toBeLessThanOrEqual(5);
    expect(requests.at(-1)!.slice(1)).toEqual([99, true]);
    for (let i = 1; i < requests.length; i++) expect(requests[i][0] - requests[i - 1][0]).toBeGreaterThanOrEqual(250);
  });

  it("gives up a question when a later one is asked", async () => {
    const signals: AbortSignal[] = [];
    const follower = new Follower<Position>((_at, _isLast, signal) => {
      signals.push(signal);
      return new Promise((_, reject) => signal.addEventListener("abort", () => reject(signal.reason)));
    });
    follower.move(at(1), false);
    await vi.advanceTimersByTimeAsync(300);
    follower.move(at(2), true);
    await vi.advanceTimersByTimeAsync(300);
    expect(signals.map(({ aborted }) => aborted)).toEqual([true, false]);
    follower.stop();
    expect(signals[1].aborted).toBe(true);
  });

  it("asks nothing more once it is stopped", async () => {
    const ask = vi.fn(async () => undefined);
    const follower = new Follower<Position>(ask);
    follower.move(at(1), false);
    follower.stop();
    await vi.advanceTimersByTimeAsync(1000);
    expect(ask).not.toHaveBeenCalled();
    follower.move(at(2), true);
    await vi.advanceTimersByTimeAsync(1000);
    expect(ask).toHaveBeenCalledTimes(1);
  });
});
