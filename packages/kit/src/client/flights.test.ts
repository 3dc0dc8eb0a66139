import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Flights } from "./flights.ts";

/** A flight that lands when it is told to. */
function flight() {
  const began: AbortSignal[] = [];
  let land: (answer: string) => void = () => undefined;
  let crash: (error: Error) => void = () => undefined;
  const fly = (signal: AbortSignal) => {
    began.push(signal);
    return new Promise<string>((resolve, reject) => {
      land = resolve;
      crash = reject;
    });
  };
  return { began, fly, land: (answer: string) => land(answer), crash: (error: Error) => crash(error) };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("equal requests", () => {
  it("share one flight", async () => {
    const flights = new Flights(0);
    const { began, fly, land } = flight();
    const both = Promise.all([flights.ask("a", fly), flights.ask("a", fly)]);
    void flights.ask("b", async () => "other");
    land("here");
    expect(await both).toEqual(["here", "here"]);
    expect(began).toHaveLength(1);
  });

  it("share a failure too, and the next one asks anew", async () => {
    const flights = new Flights(1000);
    const { began, fly, crash, land } = flight();
    const both = Promise.allSettled([flights.ask("a", fly), flights.ask("a", fly)]);
    crash(new Error("away"));
    expect((await both).map(({ status }) => status)).toEqual(["rejected", "rejected"]);
    const next = flights.ask("a", fly);
    land("back");
    expect(await next).toBe("back");
    expect(began).toHaveLength(2);
  });

  it("go on for the others when one no longer waits, and end when nobody does", async () => {
    const flights = new Flights(0);
    const { began, fly, land } = flight();
    const [first, second] = [new AbortController(), new AbortController()];
    const request = flights.ask("a", fly, first.signal);
    const also = flights.ask("a", fly, second.signal);
    first.abort();
    await expect(request).rejects.toThrow();
    expect(began[0].aborted).toBe(false);
    land("here");
    expect(await also).toBe("here");

    const alone = flights.ask("a", fly, second.signal);
    second.abort();
    await expect(alone).rejects.toThrow();
    expect(began[1].aborted).toBe(true);
    // what was given up is not joined by the next one
    const next = flights.ask("a", fly);
    land("again");
    expect(await next).toBe("again");
    expect(began).toHaveLength(3);
    await expect(flights.ask("a", fly, second.signal)).rejects.toThrow();
    expect(began).toHaveLength(3);
  });
});

describe("an answer", () => {
  it("is kept for a moment", async () => {
    const flights = new Flights(1000);
    let count = 0;
    const fly = async () => ++count;
    expect(await flights.ask("a", fly)).toBe(1);
    expect(await flights.ask("a", fly)).toBe(1);
    vi.advanceTimersByTime(1001);
    expect(await flights.ask("a", fly)).toBe(2);
  });

  it("is let go of when there are many", async () => {
    const flights = new Flights(60_000);
    let count = 0;
    const fly = async () => ++count;
    for (let i = 0; i < 150; i++) await flights.ask(String(i), fly);
    expect(await flights.ask("149", fly)).toBe(150);
    expect(await flights.ask("0", fly)).toBe(151);
  });
});
