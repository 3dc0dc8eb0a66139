import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Client } from "../client/client.ts";
import { LookupError } from "../client/errors.ts";
import { StandIn } from "../testing/index.ts";
import { type LookupState, lookup } from "./lookup.ts";

const AT = { lat: -35.2, lon: -21.6 };
const records = [{ ref: "qr-1", line: "3 Mill Lane, Nowhere", at: AT, parts: { town: "Nowhere" } }];
const settled = () => new Promise((resolve) => setTimeout(resolve));

/** A client whose records come when they are let come, in any order. @param isDeaf they come also when nobody wants them any more */
function slowly(isDeaf = false) {
  const waiting: { ref: string; end: (fails: boolean) => void }[] = [];
  const client = {
    record: (ref: string, _: object, signal: AbortSignal) =>
      new Promise((resolve, reject) => {
        if (!isDeaf) signal.addEventListener("abort", () => reject(signal.reason));
        const end = (fails: boolean) => (fails ? reject(new LookupError("broken", `no ${ref}`)) : resolve({ id: ref }));
        waiting.push({ ref, end });
      }),
  } as unknown as Client;
  return { client, waiting };
}

describe("a lookup without a search box", () => {
  it("goes from nothing over waiting to what was found", async () => {
    const where = lookup(new StandIn({ records }).client(), "reverse");
    const seen: string[] = [];
    where.subscribe(({ status }) => seen.push(status));
    where.set(AT);
    await settled();
    await settled();
    expect(seen).toEqual(["idle", "waiting", "done"]);
    expect(where.state.result?.features[0].id).toBe("qr-1");
    where.set(undefined);
    expect(where.state).toMatchObject({ status: "idle", result: undefined });
  });

  it("is of each kind", async () => {
    const standIn = new StandIn({ records, answers: [{ call: "height", answer: { metres: 12, source: [] } }] });
    const client = standIn.client();
    const all = [
      lookup(client, "forward", { q: "3 mill lane" }),
      lookup(client, "record", "qr-1"),
      lookup(client, "height", AT),
      lookup(client, "distance", [AT, { lat: -35.3, lon: -21.6 }]),
      lookup(client, "reverse", { at: AT, kinds: "address" }),
    ];
    await expect.poll(() => all.map(({ state }) => state.status)).toEqual(Array(5).fill("done"));
    const [forward, record, height, distance] = all.map(({ state }) => state.result as never);
    expect((forward as { outcome: string }).outcome).toBe("matched");
    expect((record as { id: string }).id).toBe("qr-1");
    expect(height).toBe(12);
    expect(distance).toBeCloseTo(11_095, -2);
    expect(standIn.requests.at(-1)?.words.kinds).toBe("address");
  });

  it("asks the same value once, and again when that is wanted", async () => {
    const standIn = new StandIn({ records });
    const where = lookup(standIn.client({ keep: 0 }), "record");
    where.set("qr-1");
    where.set("qr-1");
    await settled();
    where.again();
    await settled();
    expect(standIn.requests).toHaveLength(2);
  });

  it("says what went wrong, in words for the person, and never looks like nothing found", async () => {
    const standIn = new StandIn({ records, plays: "down" });
    const where = lookup(standIn.client(), "record", "qr-1");
    await expect.poll(() => where.state.status).toBe("failed");
    expect(where.state).toMatchObject({ result: undefined, error: { trouble: "broken" } });
    expect(where.state.error?.message).toMatch(/does not work at the moment/);
    standIn.plays();
    where.again();
    await expect.poll(() => where.state).toMatchObject({ status: "done", error: undefined });
  });

  it("keeps what was answered while the next is on its way, and says that it is of the value before", async () => {
    const { client, waiting } = slowly();
    const where = lookup(client, "record", "a");
    waiting[0].end(false);
    await settled();
    where.set("b");
    expect(where.state).toMatchObject({ status: "waiting", isOld: true, result: { id: "a" } });
    where.cancel();
    expect(where.state).toMatchObject({ status: "done", result: { id: "a" } });
    where.set("b");
    expect(waiting.map(({ ref }) => ref)).toEqual(["a", "b", "b"]);
  });

  it("is, whatever order answers come in, that of the last value alone", async () => {
    const act = fc.oneof(
      fc.record({ set: fc.constantFrom("a", "b", "c", undefined) }),
      fc.record({ ends: fc.nat(9), fails: fc.boolean() }),
      fc.constant({ cancel: true }),
      fc.constant({ again: true }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(act, { maxLength: 30 }), fc.boolean(), async (acts, isDeaf) => {
        const { client, waiting } = slowly(isDeaf);
        const where = lookup(client, "record");
        const states: LookupState<"record">[] = [];
        where.subscribe((state) => states.push(state));
        let wanted: string | undefined;
        for (const one of acts) {
          if ("set" in one) {
            where.set(one.set);
            wanted = one.set;
          } else if ("ends" in one) waiting[one.ends % Math.max(1, waiting.length)]?.end(one.fails);
          else if ("cancel" in one) where.cancel();
          else where.again();
          await settled();
          const { status, result, isOld, error } = where.state;
          if (wanted === undefined) expect(status).toBe("idle");
          // an answer that claims to be of this value is
          if (status === "done" && !isOld) expect((result as unknown as { id: string }).id).toBe(wanted);
          if (status === "waiting") expect(isOld).toBe(result !== undefined);
          expect(status === "failed").toBe(error !== undefined);
        }
        if (wanted === undefined) return;
        // asked once more and answered, it is that of the last value
        where.set(undefined);
        where.set(wanted);
        for (const { end } of waiting) end(false);
        await settled();
        expect(where.state).toMatchObject({ status: "done", isOld: false, result: { id: wanted } });
      }),
      { numRuns: 60 },
    );
  });
});
