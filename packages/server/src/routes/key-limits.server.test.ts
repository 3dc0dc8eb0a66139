import { setTimeout as wait } from "node:timers/promises";
import { type UsesAnswer, usesAnswer } from "@bibliotope/wire";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../../testing/own-server.ts";
import { ask, json, type Ready, signedIn } from "../../testing/shared.ts";
import { sized } from "../../testing/sizes.ts";
import { makeKey, withdrawKey } from "../keys/keys.repository.ts";

const RULES = { origins: [], calls: [], countries: [], endsAt: null, perMinute: null, perDay: null };

describe("what a key may ask", () => {
  let browser: Awaited<ReturnType<typeof signedIn>>;
  beforeAll(async () => {
    browser = await signedIn();
  });
  const make = async (rules: object): Promise<{ id: number; key: string }> =>
    (await browser.send("POST", "/api/keys", { kind: "srv", name: "Limited", ...rules })).json();
  const uses = async (id: number): Promise<UsesAnswer> =>
    usesAnswer.parse(await (await browser.get(`/api/uses?days=1&key=${id}`)).json());

  it("is said in headers, and refused with the time to wait", async () => {
    const { key } = await make({ perMinute: 3, perDay: 1000 });
    const first = await ask("/v1/suggest?q=12+harb", { key });
    expect(first.headers.get("ratelimit-policy")).toBe('"minute";q=3;w=60, "day";q=1000;w=86400');
    expect(first.headers.get("ratelimit")).toMatch(/^"minute";r=2;t=\d+, "day";r=999;t=86400$/);
    await ask("/v1/forward?q=12+harbour+row", { key });
    expect((await ask("/v1/countries", { key })).headers.get("ratelimit")).toBeNull();
    await ask("/v1/reverse?at=-35.1841,-21.6253", { key });
    const { status, headers, body } = await json("/v1/suggest?q=12+harb", { key });
    expect(status).toBe(429);
    expect(Number(headers.get("retry-after"))).toBeGreaterThan(50);
    expect(headers.get("ratelimit")).toMatch(/^"minute";r=0;t=\d+$/);
    expect(body).toMatchObject({ type: "/problems/too-many", status: 429 });
    expect(body.detail).toMatch(/^The key “Limited” allows 3 lookups per minute\. Try again in \d+ s\.$/);
    expect((await ask("/v1/countries", { key })).status).toBe(200);
  });

  it("has a limit of its own for programs, where everybody can read the key", async () => {
    const { key } = await make({ kind: "app" });
    expect((await ask("/v1/suggest?q=12", { key })).headers.get("ratelimit-policy")).toBe('"minute";q=300;w=60');
    const { key: more } = await make({ kind: "app", perMinute: 900 });
    expect((await ask("/v1/suggest?q=12", { key: more })).headers.get("ratelimit-policy")).toBe('"minute";q=900;w=60');
  });

  it.each([[{ perMinute: 0 }], [{ perDay: -1 }], [{ perMinute: 1.5 }]])("is no limit: %j", async (rules) => {
    const response = await browser.send("POST", "/api/keys", { kind: "srv", name: "Wrong", ...rules });
    expect(response.status).toBe(400);
  });

  it("is counted: by kind of lookup, by how it ended, with the time and the letters before a choice", async () => {
    const { id, key } = await make({ perMinute: 40 });
    const { body } = await json("/v1/suggest?q=12+harb", { key });
    const ref = body.suggestions[0].ref;
    await ask(`/v1/records/${ref}?typed=7`, { key });
    await ask(`/v1/records/${ref}?typed=4`, { key });
    await ask("/v1/suggest?q=zzzzzzzz", { key });
    await ask("/v1/reverse?at=95,0", { key });
    await ask("/v1/suggest?q=12", { key, headers: { origin: "https://members.example" } });
    await ask("/v1/records/nothing", { key });
    await Promise.all(Array.from({ length: 50 }, () => ask("/v1/distance?from=-35,-21&to=-36,-22", { key })));
    const { uses: counted, choices, median, p99 } = await uses(id);
    const count = (call: string, outcome: string) =>
      counted.filter((use) => use.call === call && use.outcome === outcome).reduce((sum, use) => sum + use.count, 0);
    expect([count("suggest", "matched"), count("suggest", "none"), count("suggest", "refused")]).toEqual([1, 1, 1]);
    expect([count("records", "matched"), count("records", "none"), count("reverse", "malformed")]).toEqual([2, 1, 1]);
    expect(count("distance", "matched") + count("distance", "limited")).toBe(50);
    // five lookups and a malformed one went before; the refused one came from a page and was no lookup
    expect(count("distance", "matched")).toBe(34);
    expect(choices).toEqual({ count: 2, letters: 11 });
    expect(median).toBeGreaterThan(0);
    expect(p99).toBeGreaterThanOrEqual(median!);
    const csv = await (await browser.get(`/api/uses.csv?days=1&key=${id}`)).text();
    expect(csv.split("\r\n")[0]).toBe("hour,key,name,call,outcome,count");
    expect(csv).toContain(`${id},Limited,records,matched,2`);
  });
});

/** Lookups that a key may ask in a minute, of five times as many that are requested. */
const MAY = sized(200, 1000);

/** Two processes on one database. */
describe("several server processes", { timeout: 240_000 }, () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let servers: OwnServer[];
  let ready: Ready[];
  const suggest = ({ url }: Ready, key: string) =>
    fetch(`${url}/v1/suggest?q=12+harb`, { headers: { authorization: `Bearer ${key}` } });

  beforeAll(async () => {
    ownDb = await ownDatabase("several_processes", "seeded");
    servers = [new OwnServer(ownDb.url, "seeded"), new OwnServer(ownDb.url, "seeded")];
    ready = [];
    for (const server of servers) {
      server.start();
      ready.push(await server.ready());
    }
  }, 200_000);
  afterAll(async () => {
    for (const server of servers) await server.end("SIGTERM");
    await ownDb.drop();
  });

  it("let exactly a fifth of all lookups pass, as the key may, and count all of them", { tags: ["long"] }, async () => {
    const { id, key } = await makeKey(ownDb.database, { kind: "srv", name: "Both", ...RULES, perMinute: MAY });
    await wait(500);
    const statuses: number[] = [];
    const ask = async (one: Ready, times: number) => {
      for (let i = 0; i < times; i++) {
        const response = await suggest(one, key);
        statuses.push(response.status);
        await response.arrayBuffer();
      }
    };
    await Promise.all(ready.flatMap((one) => Array.from({ length: 10 }, () => ask(one, MAY / 4))));
    expect(statuses).toHaveLength(5 * MAY);
    expect(statuses.filter((status) => status === 200)).toHaveLength(MAY);
    expect(statuses.filter((status) => status === 429)).toHaveLength(4 * MAY);
    await wait(6000);
    const counted = await ownDb
      .database("uses")
      .where({ key_id: id })
      .select("outcome")
      .sum({ count: "count" })
      .groupBy("outcome");
    const counts = (counted as unknown as { outcome: string; count: string }[]).map((row) => [
      row.outcome,
      Number(row.count),
    ]);
    expect(Object.fromEntries(counts)).toEqual({ matched: MAY, limited: 4 * MAY });
  });

  it("refuse a withdrawn key within a second, by the notice", async () => {
    // the middle of five: one may fall into a second in which the machine has other things to do
    const took: number[] = [];
    for (let n = 0; n < 5; n++) {
      const { id, key } = await makeKey(ownDb.database, { kind: "srv", name: `Soon gone ${n}`, ...RULES });
      await wait(500);
      for (const one of ready) expect((await suggest(one, key)).status).toBe(200);
      await withdrawKey(ownDb.database, id);
      const withdrawn = Date.now();
      for (const one of ready) while ((await suggest(one, key)).status === 200) await wait(10);
      took.push(Date.now() - withdrawn);
    }
    expect(took.sort((a, b) => a - b)[2]).toBeLessThan(1000);
  });

  it("refuse it within five seconds where no notice comes", async () => {
    const { id, key } = await makeKey(ownDb.database, { kind: "srv", name: "Gone unheard", ...RULES });
    await wait(500);
    for (const one of ready) expect((await suggest(one, key)).status).toBe(200);
    await ownDb.database("keys").where({ id }).update({ withdrawn_at: new Date() });
    const withdrawn = Date.now();
    for (const one of ready) while ((await suggest(one, key)).status === 200) await wait(50);
    // and what a busy machine adds
    expect(Date.now() - withdrawn).toBeLessThan(7500);
  });
});
