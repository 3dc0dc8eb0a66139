import type { KeyAnswer } from "@bibliotope/wire";
import { afterEach, describe, expect, it, vi } from "vitest";
import { StandIn } from "../testing/index.ts";
import { lacking } from "./lacking.ts";

const KEY: KeyAnswer = { kind: "web", calls: [], countries: [], endsAt: null, perMinute: null, perDay: null };
/** A client whose key may ask for some kinds of lookup, and how often that was asked. */
function keptTo(...calls: string[]) {
  let count = 0;
  const standIn = new StandIn({ answers: [{ call: "key", answer: { ...KEY, calls } }] });
  const fetch = (url: string, init?: RequestInit) => {
    count += url.includes("/v1/key?") ? 1 : 0;
    return standIn.fetch(url, init);
  };
  return {
    client: Object.assign(standIn.client(), { options: { ...standIn.client().options, fetch } }),
    count: () => count,
  };
}

describe("what a page's key lacks", () => {
  const warned = vi.spyOn(console, "warn").mockImplementation(() => undefined);
  afterEach(() => warned.mockClear());

  it("is nothing for a key that may ask for it all", async () => {
    expect(await lacking(keptTo("suggest", "records").client, ["suggest", "records"])).toEqual([]);
    expect(warned).not.toHaveBeenCalled();
  });

  it("is told, and said in the console with what to do", async () => {
    expect(await lacking(keptTo("suggest").client, ["suggest", "reverse"])).toEqual(["reverse"]);
    expect(warned.mock.lastCall?.[0]).toMatch(/uses reverse, which its key does not allow.*Keys in the workbench/);
  });

  it("is asked once for a page", async () => {
    const { client, count } = keptTo("suggest");
    await Promise.all([lacking(client, ["suggest"]), lacking(client, ["reverse"])]);
    await lacking(client, ["still"]);
    expect(count()).toBe(1);
  });

  it("is all of it for a key that is refused", async () => {
    const problem = { type: "", title: "", status: 403, detail: "not from there" };
    const standIn = new StandIn({ answers: [{ call: "key", answer: problem }] });
    expect(await lacking(standIn.client(), ["suggest", "reverse"])).toEqual(["suggest", "reverse"]);
  });

  it("is nothing while nobody answers, and requested again the next time", async () => {
    const standIn = new StandIn({ answers: [{ call: "key", answer: { ...KEY, calls: ["suggest"] } }] });
    let isAway = true;
    const client = standIn.client();
    Object.assign(client.options, {
      fetch: (url: string, init?: RequestInit) =>
        isAway ? Promise.reject(new TypeError("away")) : standIn.fetch(url, init),
    });
    expect(await lacking(client, ["reverse"])).toEqual([]);
    isAway = false;
    expect(await lacking(client, ["reverse"])).toEqual(["reverse"]);
  });
});
