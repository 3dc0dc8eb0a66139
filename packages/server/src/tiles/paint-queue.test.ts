import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Busy } from "../http/busy.ts";
import { type Order, PaintQueue } from "./paint-queue.ts";

type Named = Order & { name: number };
const LARGE = 6_553_600;

/** What is done with a queue: something is requested, given up, or handed on. */
const step = fc.oneof(
  { weight: 4, arbitrary: fc.constantFrom(0, 0, 0, 10_000, LARGE).map((pixels) => ({ asks: pixels })) },
  { weight: 2, arbitrary: fc.nat().map((which) => ({ leaves: which })) },
  { weight: 2, arbitrary: fc.constantFrom("tile" as const, "still" as const).map((kind) => ({ takes: kind })) },
  { weight: 1, arbitrary: fc.constant({ again: true }) },
);

describe("what waits to be painted", () => {
  it("is handed on in the order in which it was requested, each once, and never when it was given up", () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 120 }), (steps) => {
        const queue = new PaintQueue<Named>();
        // the model: two plain lists
        const waiting = { tile: [] as Named[], still: [] as Named[] };
        const taken: Named[] = [];
        let name = 0;
        for (const one of steps) {
          if ("asks" in one) {
            const order = { name: name++, pixels: one.asks };
            const before = waiting.still.reduce((sum, { pixels }) => sum + pixels, 0);
            const isRefused = one.asks > 0 && before + one.asks > 60_000_000;
            if (isRefused) expect(() => queue.add(order)).toThrow(Busy);
            else {
              queue.add(order);
              waiting[one.asks ? "still" : "tile"].push(order);
            }
          } else if ("leaves" in one) {
            const all = [...waiting.tile, ...waiting.still];
            const order = all[one.leaves % Math.max(1, all.length)];
            if (!order) continue;
            expect(queue.drop(order)).toBe(true);
            expect(queue.drop(order)).toBe(false);
            for (const list of Object.values(waiting)) if (list.includes(order)) list.splice(list.indexOf(order), 1);
          } else if ("takes" in one) {
            const order = queue.next(one.takes);
            expect(order).toBe(waiting[one.takes].shift());
            if (order) taken.push(order);
          } else {
            queue.addAgain(taken);
            for (const kind of ["tile", "still"] as const)
              waiting[kind].unshift(...taken.filter(({ pixels }) => pixels > 0 === (kind === "still")));
            taken.length = 0;
          }
        }
        for (const kind of ["tile", "still"] as const) {
          const rest: Named[] = [];
          for (let order = queue.next(kind); order; order = queue.next(kind)) rest.push(order);
          expect(rest).toEqual(waiting[kind]);
        }
      }),
    );
  });

  it("says after how many seconds there is room, and takes pieces of the map all the same", () => {
    const queue = new PaintQueue<Named>();
    for (let name = 0; name < 9; name++) queue.add({ name, pixels: LARGE });
    expect(() => queue.add({ name: 9, pixels: LARGE })).toThrow(expect.objectContaining({ seconds: 12 }));
    for (let name = 0; name < 1000; name++) queue.add({ name, pixels: 0 });
    expect(() => queue.add({ name: 1000, pixels: 0 })).toThrow(Busy);
  });
});
