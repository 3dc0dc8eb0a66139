import { readFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../testing/own-server.ts";
import type { Ready } from "../testing/shared.ts";

/** Makes errors in a server's process that nothing in it expects, when it is sent a signal. */
const BREAKS = `--import=data:text/javascript,${encodeURIComponent(
  'process.on("SIGUSR2", () => { throw new Error("broken by a test"); });process.on("SIGPIPE", () => void Promise.reject(new Error("let down by a test")));',
)}`;

describe("a server that is told to end", () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready;
  beforeAll(async () => {
    ownDb = await ownDatabase("ending", "seeded");
    server = new OwnServer(ownDb.url, "seeded");
    server.start();
    ready = await server.ready();
  });
  afterAll(async () => {
    await server.end("SIGKILL");
    await ownDb.drop();
  });
  const slow = () =>
    fetch(`${ready.url}/v1/suggest?q=12+harb&situation=slow`, {
      headers: { authorization: `Bearer ${ready.keys.try}` },
    });

  it("answers everything that is under way, says that it is not ready, and is gone with code 0", async () => {
    const answers = Array.from({ length: 24 }, slow);
    // all of them have come: a key may be used so often that none of them waits for another
    const isReady = () =>
      fetch(`${ready.url}/readyz`).then(
        ({ status }) => status,
        () => "refused" as const,
      );
    for (let i = 0; i < 5; i++) expect(await isReady()).toBe(200);
    const gone = server.end("SIGTERM");
    const seen = new Set<unknown>();
    while (!seen.has("refused")) seen.add(await isReady());
    expect(seen).toContain(503);
    const statuses = await Promise.all(
      answers.map(async (answer) => {
        const { status, body } = await answer.then(async (one) => ({ status: one.status, body: await one.json() }));
        return [status, body.suggestions.length > 0];
      }),
    );
    expect(statuses).toEqual(answers.map(() => [200, true]));
    expect(await gone).toBe(0);
  });

  it.each([
    ["SIGUSR2", "broken by a test"],
    ["SIGPIPE", "let down by a test"],
  ] as const)(
    "ends in the same way after an error that nobody expected (%s), which its log has",
    { tags: ["long"] },
    async (signal, words) => {
      server = new OwnServer(ownDb.url, "seeded", undefined, { NODE_OPTIONS: BREAKS });
      server.start();
      ready = await server.ready();
      const answers = Array.from({ length: 24 }, slow);
      for (let i = 0; i < 5; i++) await fetch(`${ready.url}/readyz`);
      expect(await server.end(signal)).toBe(70);
      for (const answer of answers) expect((await answer).status).toBe(200);
      expect(server.said).toContain("An unexpected error occurred");
      expect(readFileSync(join(server.home, "log", "server.log"), "utf8")).toContain(words);
    },
  );
});
