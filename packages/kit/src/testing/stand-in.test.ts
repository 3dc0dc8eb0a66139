import { CALLS, type Call, type CallName, SITUATIONS } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import type { LookupError } from "../client/errors.ts";
import { StandIn } from "./index.ts";

const MILL = {
  ref: "qr-000001",
  line: "3 Mill Lane, Nowhere",
  at: { lat: -35.2, lon: -21.6 },
  parts: { house: "3", street: "Mill Lane", town: "Nowhere", postcode: "NW1 2" },
};
const OTHER = { ref: "qr-000002", line: "3 Mill Street, Nowhere", at: { lat: -35.3, lon: -21.6 } };
const records = [MILL, OTHER];

describe("a stand-in for the service", () => {
  it("knows the path of every call, and answers each as the wire's own schema has it", async () => {
    const standIn = new StandIn({ records, services: { courier: { days: ["Monday"] } } });
    const own: Record<string, string> = { ref: MILL.ref, q: "3 mill", starts: "nw", at: "-35.2,-21.6" };
    for (const [name, { path, methods, answers, example, tag }] of Object.entries(CALLS) as [CallName, Call][]) {
      const words = new URLSearchParams(Object.entries({ ...example, ...own }));
      const url = `https://here.example${path.replace(/\{(\w+)\}/g, (_, part: string) => words.get(part)!)}?${words}`;
      const answered = await standIn.answer(methods[0], url);
      // what a key may do is no lookup
      if (name !== "key") expect(standIn.requests.at(-1)?.call, name).toBe(name);
      // what is made for one form or one batch is for the test to write down
      if (["country", "form"].includes(name) || tag === "Batches" || name === "still") continue;
      expect(answered?.status, name).toBe(200);
      expect(answers.safeParse(JSON.parse(answered!.body)).error, name).toBeUndefined();
    }
  });

  it("answers for outside services, and plays how they end", async () => {
    const services = {
      courier: { days: ["Monday"], next: "Monday" },
      register: { standing: "otherwise", number: "4-118" },
    };
    const standIn = new StandIn({ services });
    const client = standIn.client();
    expect(await client.ask("courier", { town: "Nowhere" })).toMatchObject({
      outcome: "answered",
      values: services.courier,
    });
    expect(standIn.requests.at(-1)).toEqual({ call: "service", words: { name: "courier", town: "Nowhere" } });
    expect((await client.ask("register", {})).standing).toBe("otherwise");
    await expect(client.ask("baker", {})).rejects.toMatchObject({ trouble: "missing" });
    standIn.plays("down");
    expect(await client.ask("courier", {})).toMatchObject({ outcome: "down", values: { days: [], next: "" } });
    standIn.plays("limit");
    await expect(client.ask("courier", {})).rejects.toMatchObject({ trouble: "limit" });
  });

  it("finds its records by their words, and by what is near", async () => {
    const client = new StandIn({ records }).client();
    const { suggestions } = await client.suggest("3 mill la");
    expect(suggestions).toMatchObject([
      {
        ref: MILL.ref,
        line: MILL.line,
        sure: true,
        marks: [
          [0, 1],
          [2, 6],
          [7, 9],
        ],
      },
    ]);
    expect((await client.suggest("3 mill")).suggestions).toHaveLength(2);
    expect(await client.forward({ q: "3 Mill Lane Nowhere" })).toMatchObject({ outcome: "matched" });
    expect(await client.forward({ q: "mill" })).toMatchObject({ outcome: "ambiguous" });
    expect(await client.forward({ street: "No Lane" })).toMatchObject({ outcome: "none", features: [] });
    expect((await client.reverse({ lat: -35.2001, lon: -21.6 })).features[0].id).toBe(MILL.ref);
    const { properties } = await client.record(MILL.ref);
    expect(properties.autofill).toMatchObject({ "street-address": "3 Mill Lane", "postal-code": "NW1 2" });
    expect(await client.record("qr-000009").catch(({ trouble }: LookupError) => trouble)).toBe("missing");
  });

  it("gives the answers that a test has written down, the last that fits, and tells what it was asked", async () => {
    const standIn = new StandIn({ records });
    const empty = { q: "x", outcome: "none" as const, advice: [], source: [], suggestions: [] };
    standIn.answers({ call: "suggest", words: { q: "x" }, answer: empty });
    standIn.answers({
      call: "suggest",
      words: { q: "y" },
      answer: { type: "/problems/too-many", title: "Too often", status: 429, detail: "Wait." },
    });
    const client = standIn.client();
    expect(await client.suggest("x")).toEqual(empty);
    expect((await client.suggest("3 mill")).suggestions).toHaveLength(2);
    expect(await client.suggest("y").catch(({ trouble }: LookupError) => trouble)).toBe("limit");
    expect(standIn.requests.map(({ words }) => words.q)).toEqual(["x", "3 mill", "y"]);
  });

  it("plays every situation, and waits for nothing", async () => {
    const trouble = { down: "broken", limit: "limit", refused: "refused", malformed: "malformed", offline: "offline" };
    for (const situation of [...SITUATIONS, "offline"] as const) {
      const standIn = new StandIn({ records, plays: situation });
      const request = standIn.client().forward({ q: "3 Mill Lane Nowhere" });
      if (situation === "slow") standIn.release();
      const came = await request.catch(({ trouble }: LookupError) => trouble);
      if (situation in trouble) expect(came).toBe(trouble[situation as keyof typeof trouble]);
      else
        expect(came).toMatchObject({
          outcome: { none: "none", differs: "differs", several: "ambiguous", slow: "matched" }[situation as "none"],
        });
      expect((await standIn.client().countries()).countries).toEqual([]);
    }
  });

  it("keeps slow answers back until it is told to let go", async () => {
    const standIn = new StandIn({ records, plays: "slow" });
    let came = 0;
    const both = Promise.all(
      ["3 mill", "3 mill l"].map((q) =>
        standIn
          .client()
          .suggest(q)
          .then(() => came++),
      ),
    );
    await Promise.resolve();
    expect(came).toBe(0);
    standIn.release();
    await both;
    expect(came).toBe(2);
  });
});
