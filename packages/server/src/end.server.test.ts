import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../testing/own-server.ts";
import type { Ready } from "../testing/shared.ts";

describe("a server that is told to end", () => {
  let held: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready;
  beforeAll(async () => {
    held = await ownDatabase("ending", "seeded");
    server = new OwnServer(held.url, "seeded");
    server.start();
    ready = await server.ready();
  });
  afterAll(async () => {
    await server.end("SIGKILL");
    await held.drop();
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
});
