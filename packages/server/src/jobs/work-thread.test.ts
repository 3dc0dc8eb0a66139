import { describe, expect, it } from "vitest";
import { Busy } from "../http/busy.ts";
import { InTurn } from "./in-turn.ts";
import { OutOfTime, WorkThread } from "./work-thread.ts";

/** What the thread of this test does, written down here: it shares nothing with the code that it is handed its work by. */
const SOURCE = `
import { parentPort, threadId } from "node:worker_threads";
parentPort.on("message", ({ id, call, options }) => {
  if (call === "add") parentPort.postMessage({ id, result: options[0] + options[1] });
  if (call === "thread") parentPort.postMessage({ id, result: threadId });
  if (call === "fail") parentPort.postMessage({ id, failed: "Error: " + options });
  if (call === "end") process.exit(3);
  if (call === "hang") for (;;);
});`;
type TestWork = {
  add(pair: [number, number]): number;
  thread(nothing: null): number;
  fail(words: string): never;
  end(nothing: null): void;
  hang(nothing: null): void;
};
const start = (turns = new InTurn(8, 8), most = {}) =>
  new WorkThread<TestWork>(new URL(`data:text/javascript,${encodeURIComponent(SOURCE)}`), turns, most);

describe("a thread that does one kind of work", () => {
  it("does what it is handed, each for who asked, in one thread", async () => {
    const thread = start();
    const sums = await Promise.all(Array.from({ length: 8 }, (_, i) => thread.run("add", [i, 1])));
    expect(sums).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(await thread.run("thread", null)).toBe(await thread.run("thread", null));
    await expect(thread.run("fail", "it is blue")).rejects.toThrow("it is blue");
  });

  it("is ended when a piece takes too long, and another does what comes next", {
    tags: ["long"],
    timeout: 30_000,
  }, async () => {
    const thread = start(new InTurn(1, 8), { time: 3000 });
    const before = await thread.run("thread", null);
    const hung = thread.run("hang", null);
    const next = thread.run("thread", null);
    await expect(hung).rejects.toBeInstanceOf(OutOfTime);
    expect(await next).not.toBe(before);
  });

  it("that ends by itself fails what it had, and is started again", async () => {
    const thread = start();
    await expect(thread.run("end", null)).rejects.toThrow("ended early");
    expect(await thread.run("add", [2, 3])).toBe(5);
  });

  it("refuses what would wait behind too much", { tags: ["long"], timeout: 30_000 }, async () => {
    const thread = start(new InTurn(1, 1), { time: 3000 });
    const hung = thread.run("hang", null);
    const waiting = thread.run("add", [1, 1]);
    await expect(thread.run("add", [1, 1])).rejects.toBeInstanceOf(Busy);
    await expect(hung).rejects.toBeInstanceOf(OutOfTime);
    expect(await waiting).toBe(2);
  });
});
