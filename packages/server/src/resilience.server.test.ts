import { existsSync, readdirSync, readFileSync, statSync, unlinkSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { SAMPLE_FORMS } from "@bibliotope/islands";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { Door, OwnServer, ownDatabase } from "../testing/own-server.ts";
import type { Ready } from "../testing/shared.ts";
import { isLong, sized } from "../testing/sizes.ts";
import { makeKey } from "./keys/keys.repository.ts";
import { publish } from "./publication/publication.repository.ts";

/** Lookups that are requested during a rebuild, at least. */
const LOOKUPS = sized(1000, 10_000);

/** One database and one server, ill-treated in turn. */
describe("a server that is ill-treated", { tags: ["long"], timeout: 240_000 }, () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let door: Door;
  let doorPort: number;
  let server: OwnServer;
  let ready: Ready;
  const count = async (table: string) => Number((await ownDb.database(table).count({ count: "*" }))[0].count);
  const suggest = () =>
    fetch(`${ready.url}/v1/suggest?q=12+harb`, { headers: { authorization: `Bearer ${ready.keys.srv}` } });

  /** Starts the server, unless a test before has. */
  const up = async () => {
    if (ready) return;
    server.start();
    ready = await server.ready();
  };

  beforeAll(async () => {
    // the demo data is there already, but its index is not
    ownDb = await ownDatabase("ill_treated", isLong ? "empty" : "seeded");
    const url = new URL(ownDb.url);
    door = new Door({ host: "127.0.0.1", port: Number(url.port) });
    doorPort = await door.open();
    url.port = String(doorPort);
    server = new OwnServer(url.href);
  });

  afterAll(async () => {
    await server.end("SIGTERM");
    await door.shut();
    await ownDb.drop();
  });

  it.runIf(isLong)("leaves nothing half-loaded when it is killed during the first seed", async () => {
    server.start();
    await server.saying(/Loading [\d,]+ addresses/);
    await wait(400);
    await server.end("SIGKILL");
    await wait(300);
    expect(await count("data_sets")).toBe(0);
    expect(await count("addresses")).toBe(0);
    expect(await count("publications")).toBe(0);
  });

  it("leaves no half-written segment when it is killed during the build", { tags: ["long"] }, async () => {
    server.start();
    await server.saying("Building the index");
    await server.end("SIGKILL");
    expect(await count("data_sets")).toBe(1);
    expect(await count("addresses")).toBeGreaterThan(50_000);
    const whole = readdirSync(join(server.home, "segments")).filter((file) => file.endsWith(".segment"));
    expect(whole).toEqual([]);
  });

  it("is whole at the next start, with everything loaded once", { tags: ["long"] }, async () => {
    await up();
    expect(server.said).not.toContain("Making the islands");
    expect(await count("data_sets")).toBe(1);
    expect(await count("form_versions")).toBe(SAMPLE_FORMS.length);
    expect((await suggest()).status).toBe(200);
    expect(readdirSync(join(server.home, "segments"))).toHaveLength(1);
  });

  it("keeps secrets for its owner only, and only their hashes in the database", async () => {
    await up();
    for (const file of ["ready.json", "keys.json"]) expect(statSync(join(server.home, file)).mode & 0o777).toBe(0o600);
    const stored = JSON.stringify([await ownDb.database("keys"), await ownDb.database("sign_in_links")]);
    for (const key of Object.values(ready.keys)) expect(stored).not.toContain(key);
    expect(stored).not.toContain(new URL(ready.signIn).searchParams.get("token"));
  });

  it("writes neither keys nor what was looked up into its log", async () => {
    await fetch(`${ready.url}/v1/suggest?q=secretquestion&access_token=${ready.keys.web}`, {
      headers: { "sec-fetch-site": "same-origin" },
    });
    await wait(300);
    const log = readFileSync(join(server.home, "log", "server.log"), "utf8");
    expect(log).toContain('"route":"/v1/suggest"');
    expect(log).not.toMatch(/secretquestion|bt_(web|srv|app|try)_|Bearer/);
  });

  it("goes on with lookups while the database is away, says that it cannot save, and saves again afterwards", async () => {
    const signedIn = await fetch(ready.signIn, { redirect: "manual" });
    const cookie = signedIn.headers.get("set-cookie")!.split(";")[0];
    const session = (await (await fetch(`${ready.url}/api/session`, { headers: { cookie } })).json()) as {
      csrf: string;
    };
    const draft = (await (await fetch(`${ready.url}/api/forms/become-a-reader`, { headers: { cookie } })).json()) as {
      revision: number;
      definition: { title: string };
    };
    const save = () =>
      fetch(`${ready.url}/api/forms/become-a-reader/draft`, {
        method: "PUT",
        headers: { cookie, "content-type": "application/json", "x-csrf-token": session.csrf },
        body: JSON.stringify({
          revision: draft.revision,
          definition: { ...draft.definition, title: "Become a reader today" },
        }),
      });

    await door.shut();
    const lookups = await Promise.all([suggest(), suggest()]);
    expect(lookups.map(({ status }) => status)).toEqual([200, 200]);
    expect(
      (await fetch(`${ready.url}/v1/forms/become-a-reader`, { headers: { authorization: `Bearer ${ready.keys.srv}` } }))
        .status,
    ).toBe(200);
    const refused = await save();
    expect(refused.status).toBe(503);
    expect(refused.headers.get("retry-after")).toBe("5");
    expect((await refused.json()) as object).toMatchObject({
      type: "/problems/no-database",
      detail: expect.stringContaining("nothing was saved"),
    });

    await door.open(doorPort);
    let saved = await save();
    for (let tries = 0; saved.status !== 200 && tries < 20; tries++) {
      await wait(250);
      saved = await save();
    }
    expect(saved.status).toBe(200);
  });

  it("takes a damaged segment as none, and builds it again", { tags: ["long"] }, async () => {
    await server.end("SIGTERM");
    const [file] = readdirSync(join(server.home, "segments")).map((name) => join(server.home, "segments", name));
    const bytes = readFileSync(file);
    bytes[Math.floor(bytes.length / 2)] ^= 1;
    writeFileSync(file, bytes);
    server.start();
    ready = await server.ready();
    expect(server.said).toContain("Building the index");
    expect((await suggest()).status).toBe(200);
  });

  it("swaps the index under load: thousands of lookups during a rebuild, and none fails", {
    tags: ["long"],
  }, async () => {
    const segments = join(server.home, "segments");
    const [file] = readdirSync(segments).filter((name) => name.endsWith(".segment"));
    let isSwapped = false;
    const slowest = { milliseconds: 0 };
    const failures: number[] = [];
    const expected = await (await suggest()).json();
    let requestCount = 0;
    const askAndAsk = async () => {
      while (requestCount < LOOKUPS || !isSwapped) {
        requestCount++;
        const began = performance.now();
        const answer = await suggest();
        const body = await answer.json();
        slowest.milliseconds = Math.max(slowest.milliseconds, performance.now() - began);
        if (answer.status !== 200) failures.push(answer.status);
        else if (body.suggestions[0].ref !== expected.suggestions[0].ref) failures.push(-1);
      }
    };
    const lookups = Array.from({ length: sized(1, 8) }, askAndAsk);
    // the same versions published anew, with their segment gone: it is built again while lookups go on
    unlinkSync(join(segments, file));
    const versions = await ownDb.database("publication_versions").where({ publication_id: 1 }).pluck("version_id");
    await ownDb.database.transaction((transaction) => publish(transaction, versions));
    for (; !isSwapped; await wait(100)) isSwapped = existsSync(join(segments, file));
    await wait(1000);
    await Promise.all(lookups);
    expect(failures).toEqual([]);
    expect(requestCount).toBeGreaterThanOrEqual(LOOKUPS);
    console.info(`  ${requestCount} lookups during a rebuild, the slowest took ${slowest.milliseconds.toFixed(0)} ms`);
  });

  it("takes the next port when its own is taken, and removes ready.json when it stops", {
    tags: ["long"],
  }, async () => {
    const second = new OwnServer(ownDb.url, "empty", new URL(ready.url).port);
    second.start();
    const other = await second.ready();
    expect(second.said).toMatch(/Port \d+ is in use, trying/);
    expect(other.url).not.toBe(ready.url);
    await second.end("SIGTERM");
    expect(readdirSync(second.home)).not.toContain("ready.json");
  });

  it("tells other processes of a new key", async () => {
    const { key } = await makeKey(ownDb.database, {
      kind: "srv",
      name: "Made elsewhere",
      origins: [],
      calls: [],
      countries: [],
      endsAt: null,
      perMinute: null,
      perDay: null,
    });
    let status = 0;
    for (let tries = 0; status !== 200 && tries < 40; tries++) {
      await wait(100);
      status = (await fetch(`${ready.url}/v1/countries`, { headers: { authorization: `Bearer ${key}` } })).status;
    }
    expect(status).toBe(200);
  });

  it("begins again a batch that lost the database on its way, and ends it whole", { tags: ["long"] }, async () => {
    const rows = Array.from({ length: 6000 }, (_, i) => `"${1 + (i % 60)} Harbour Row, Tidewell"`);
    const headers = { authorization: `Bearer ${ready.keys.srv}` };
    const made = await fetch(`${ready.url}/v1/batches?name=lost.csv`, {
      method: "POST",
      headers: { ...headers, "content-type": "text/csv" },
      body: ["address", ...rows].join("\n"),
    });
    const { id } = (await made.json()) as { id: string };
    const state = async () =>
      (await (await fetch(`${ready.url}/v1/batches/${id}`, { headers })).json()) as { state: string; done: number };
    while ((await state()).state === "waiting") await wait(20);
    door.cut();
    for (let now = await state(); now.state !== "done"; now = await state()) {
      expect(["waiting", "running", undefined]).toContain(now.state);
      await wait(200);
    }
    expect((await state()).done).toBe(6000);
  });

  it("waits at its start for a database that is not there yet", { tags: ["long"] }, async () => {
    await server.end("SIGTERM");
    await door.shut();
    server.start();
    await server.saying("The database does not respond; waiting for it");
    await door.open(doorPort);
    ready = await server.ready();
    expect((await suggest()).status).toBe(200);
  });
});
