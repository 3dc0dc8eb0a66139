import { readFileSync, writeFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../../testing/own-server.ts";
import type { Ready } from "../../testing/shared.ts";

const [PORT, METRICS] = ["5740", "5745"];

/** Makes an error that nobody expects in the second thread, once, when a file tells it to. */
const BREAKS = `--import=data:text/javascript,${encodeURIComponent(
  `import { existsSync, rmSync } from "node:fs";
   import { workerData } from "node:worker_threads";
   if (workerData?.number === 2) setInterval(() => {
     if (!existsSync(process.env.BIBLIOTOPE_HOME + "/break-now")) return;
     rmSync(process.env.BIBLIOTOPE_HOME + "/break-now");
     throw new Error("broken by a test");
   }, 50).unref();`,
)}`;

describe("a server with three threads", { timeout: 240_000 }, () => {
  let own: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready & { ports: number[] };
  const start = async (settings: Record<string, string> = {}) => {
    server = new OwnServer(own.url, "seeded", PORT, {
      BIBLIOTOPE_THREADS: "3",
      BIBLIOTOPE_METRICS_PORT: METRICS,
      ...settings,
    });
    server.start();
    ready = (await server.ready()) as typeof ready;
  };
  beforeAll(async () => {
    own = await ownDatabase("threaded", "seeded");
    await start();
  });
  afterAll(async () => {
    await server.end("SIGKILL");
    await own.drop();
  });
  const at = (thread: number, path: string, init: RequestInit & { key?: string } = {}) => {
    const headers = { authorization: `Bearer ${init.key ?? ready.keys.srv}`, ...init.headers };
    return fetch(`http://localhost:${ready.ports[thread]}${path}`, { ...init, headers });
  };
  const everywhere = <T>(work: (thread: number) => Promise<T>) => Promise.all([0, 1, 2].map(work));
  /** Waits until something holds: what one thread was told, the others hear of. */
  const soon = (work: () => Promise<void>) => expect.poll(work, { timeout: 10_000 }).toBeUndefined();

  it("answers on a port each, or on one where Node can share it", async () => {
    const [major, minor] = process.versions.node.split(".").map(Number);
    const isShared = major > 22 || (major === 22 && minor >= 12);
    expect(new Set(ready.ports).size).toBe(isShared ? 1 : 3);
    expect(ready.url).toBe(`http://localhost:${ready.ports[0]}`);
  });

  it.each([
    "/v1/suggest?q=12+harb",
    "/v1/forward?q=12+Harbour+Row",
    "/v1/reverse?at=-35.83,-21.83&height=1",
    "/v1/tiles/features/16/28831/39618",
    "/v1/tiles/heights/12/1801/2476",
    "/v1/still?at=-35.83,-21.83&width=400&height=300",
    "/v1/countries",
    "/readyz",
  ])("gives the same answer from each: %s", async (path) => {
    const answers = await everywhere(async (thread) => {
      const answer = await at(thread, path);
      expect(answer.status).toBe(200);
      return Buffer.from(await answer.arrayBuffer()).toString("base64");
    });
    expect(answers[0].length).toBeGreaterThan(20);
    expect(answers).toEqual([answers[0], answers[0], answers[0]]);
  });

  it("refuses in one thread as in another what the map cannot do, and goes on", { tags: ["long"] }, async () => {
    const pictures = await everywhere((thread) =>
      Promise.all(
        Array.from({ length: 100 }, async (_, i) => {
          const path = `/v1/still?at=-35.83,-21.${80 + thread}${i}&width=1200&height=1200`;
          const answer = await at(thread, path, { signal: AbortSignal.timeout(60_000) });
          await answer.arrayBuffer();
          return [answer.status, answer.status === 503 ? answer.headers.has("retry-after") : true];
        }),
      ),
    );
    for (const [status, isTold] of pictures.flat()) {
      expect([200, 503]).toContain(status);
      expect(isTold).toBe(true);
    }
    expect((await at(1, "/v1/tiles/features/16/28831/39618")).status).toBe(200);
  });

  it("keeps limits exact over all of them, and changes reach each", async () => {
    const opened = await fetch(ready.signIn, { redirect: "manual" });
    const cookie = opened.headers
      .getSetCookie()
      .map((one) => one.split(";", 1)[0])
      .join("; ");
    const { csrf } = await (await fetch(`${ready.url}/api/session`, { headers: { cookie } })).json();
    const headers = { cookie, "x-csrf-token": csrf, "content-type": "application/json" };
    const made = await at(1, "/api/keys", {
      method: "POST",
      headers,
      body: JSON.stringify({
        kind: "srv",
        name: "Limited",
        origins: [],
        calls: [],
        countries: [],
        endsAt: null,
        perMinute: 90,
        perDay: null,
      }),
    });
    expect(made.status).toBe(201);
    const { key } = await made.json();
    // this call uses up none of the limit
    for (const thread of [0, 1, 2])
      await soon(async () => {
        const { status } = await at(thread, "/v1/countries", { key });
        if (status !== 200) throw new Error(`${status}`);
      });
    const statuses = await Promise.all(
      Array.from({ length: 240 }, async (_, i) => (await at(i % 3, "/v1/suggest?q=harb", { key })).status),
    );
    const granted = statuses.filter((status) => status === 200).length;
    expect(statuses.every((status) => status === 200 || status === 429)).toBe(true);
    expect(granted).toBe(90);
  });

  it("adds lookups of all threads up in its metrics", async () => {
    const read = async () => {
      const text = await (await fetch(`http://127.0.0.1:${METRICS}/metrics`)).text();
      const names = text.split("\n").flatMap((line) => /^# TYPE (\S+)/.exec(line)?.[1] ?? []);
      expect(new Set(names).size).toBe(names.length);
      const sumOf = (sample: string) =>
        text
          .split("\n")
          .filter((line) => line.startsWith(sample))
          .reduce((sum, line) => sum + Number(line.split(" ").at(-1)), 0);
      return {
        reverse: sumOf('bibliotope_lookups_total{call="reverse"'),
        ready: sumOf("bibliotope_index_ready"),
        publication: sumOf("bibliotope_index_publication"),
        newest: sumOf("bibliotope_newest_publication"),
      };
    };
    const before = await read();
    await everywhere((thread) => at(thread, "/v1/reverse?at=-35.83,-21.83"));
    const after = await read();
    expect(after.reverse - before.reverse).toBe(3);
    expect(after).toMatchObject({ ready: 1, publication: after.newest });
  });

  it("finishes what every thread has under way when it is told to end", { tags: ["long"] }, async () => {
    const slow = [0, 1, 2, 0, 1, 2].map((thread) =>
      at(thread, "/v1/suggest?q=12+harb&situation=slow", { key: ready.keys.try }),
    );
    await everywhere((thread) => at(thread, "/healthz"));
    const gone = server.end("SIGTERM");
    for (const answer of slow) {
      const { status, body } = await answer.then(async (one) => ({ status: one.status, body: await one.json() }));
      expect([status, body.suggestions.length > 0]).toEqual([200, true]);
    }
    expect(await gone).toBe(0);
  });

  it("replaces a thread that ended by an error: what it had under way is answered, the others go on", {
    tags: ["long"],
  }, async () => {
    await start({ NODE_OPTIONS: BREAKS });
    const slow = at(1, "/v1/suggest?q=12+harb&situation=slow", { key: ready.keys.try });
    await at(1, "/healthz");
    writeFileSync(`${server.home}/break-now`, "");
    expect((await slow).status).toBe(200);
    const statusOf = (thread: number) =>
      at(thread, "/v1/suggest?q=12+harb").then(
        ({ status }) => status,
        () => "refused",
      );
    await expect.poll(() => statusOf(1), { timeout: 30_000, interval: 20 }).toBe("refused");
    for (const thread of [0, 2]) expect(await statusOf(thread)).toBe(200);
    await expect.poll(() => statusOf(1), { timeout: 30_000 }).toBe(200);
    expect(readFileSync(`${server.home}/log/server.log`, "utf8")).toMatch(/"thread":2.*broken by a test/);
  });
});
