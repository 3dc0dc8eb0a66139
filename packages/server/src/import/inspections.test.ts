import { describe, expect, it } from "vitest";
import { Busy } from "../http/busy.ts";
import { TableError } from "./bytes.ts";
import type { FileToInspect } from "./inspect.ts";
import { Inspections } from "./inspections.ts";

/** A thread that does something else than look at a file. */
const doing = (code: string) =>
  new URL(
    `data:text/javascript,${encodeURIComponent(`import { parentPort } from "node:worker_threads"; parentPort.once("message", (task) => { ${code} });`)}`,
  );
const task = (more: object = {}) =>
  ({ path: "", params: {}, country: undefined, readings: [], ...more }) as FileToInspect;
const most = { memory: 64, time: 10_000 };

describe("looking at files", () => {
  it("ends a thread that takes too long, with a sentence for the person", async () => {
    const inspections = new Inspections(doing("for (;;);"), { ...most, time: 300 });
    const looked = inspections.inspect(task());
    await expect(looked).rejects.toThrow(TableError);
    await expect(looked).rejects.toThrow("took longer than 0.3 s");
  });

  it("ends a thread that takes too much memory, and nothing else with it", { tags: ["long"] }, async () => {
    const inspections = new Inspections(doing("const all = []; for (;;) all.push(new Array(1000).fill({}));"), most);
    const looked = inspections.inspect(task());
    await expect(looked).rejects.toThrow(TableError);
    await expect(looked).rejects.toThrow("took more than 64 MB of memory");
  });

  it("looks at two at once whoever comes when, lets twenty wait, and refuses more", { tags: ["long"] }, async () => {
    // how many run now, how many ran at most, and how many have begun: the first waits for a second
    const counts = new Int32Array(new SharedArrayBuffer(12));
    const code = `const counts = new Int32Array(task.counts);
      if (Atomics.add(counts, 2, 1) === 0) Atomics.wait(counts, 2, 1, 9000);
      else Atomics.notify(counts, 2);
      const now = Atomics.add(counts, 0, 1) + 1;
      if (now > Atomics.load(counts, 1)) Atomics.store(counts, 1, now);
      setTimeout(() => { Atomics.sub(counts, 0, 1); parentPort.postMessage({ seen: "it" }); }, 20);`;
    const inspections = new Inspections(doing(code), most);
    const again = async () => {
      expect(await inspections.inspect(task({ counts: counts.buffer }))).toBe("it");
      // one who comes the moment that another ends
      return inspections.inspect(task({ counts: counts.buffer }));
    };
    const all = Array.from({ length: 10 }, again);
    const more = Array.from({ length: 12 }, () => inspections.inspect(task({ counts: counts.buffer })));
    await expect(inspections.inspect(task())).rejects.toThrow(Busy);
    expect(await Promise.all([...all, ...more])).toEqual(new Array(22).fill("it"));
    expect(counts[1]).toBe(2);
  });

  it("has a thread ready for the next file, which keeps nothing of the last one", async () => {
    const inspections = new Inspections(
      doing(`globalThis.files = (globalThis.files ?? 0) + 1; parentPort.postMessage({ seen: globalThis.files });`),
      most,
    );
    for (let i = 0; i < 4; i++) expect(await inspections.inspect(task())).toBe(1);
    const both = [inspections.inspect(task()), inspections.inspect(task())];
    expect(await Promise.all(both)).toEqual([1, 1]);
  });

  it("goes on after a thread that failed before its file came", async () => {
    const broken = new Inspections(new URL("data:text/javascript,throw new Error('broken')"), most);
    for (let i = 0; i < 3; i++) await expect(broken.inspect(task())).rejects.toThrow();
  });
});
