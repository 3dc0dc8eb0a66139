import { once } from "node:events";
import { Agent, createServer, get, type IncomingMessage, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { setTimeout as wait } from "node:timers/promises";
import express from "express";
import { afterEach, describe, expect, it } from "vitest";
import { Drain } from "./drain.ts";

let server: Server;
afterEach(() => {
  server.closeAllConnections();
  server.close();
});

/** A server that answers `/slow` when it is let go and `/endless` only when it is told to end. */
async function serve(): Promise<{ drain: Drain; ask: typeof ask; letGo: () => void }> {
  let letGo = () => {};
  const isLetGo = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  const drain = new Drain();
  const app = express();
  app.use((_request, response, next) => {
    drain.watch(response);
    next();
  });
  app.get("/readyz", (_request, response) => void response.status(drain.ending.aborted ? 503 : 200).end("?"));
  app.get("/slow", async (_request, response) => {
    response.write("begun ");
    await isLetGo;
    response.end("done");
  });
  app.get("/endless", (_request, response) => {
    response.write("begun ");
    drain.ending.addEventListener("abort", () => response.end("told"));
  });
  server = createServer(app).listen(0, "127.0.0.1");
  await once(server, "listening");
  const { port } = server.address() as AddressInfo;
  const agent = new Agent({ keepAlive: true });
  async function ask(path: string): Promise<{ status: number | undefined; text: string }> {
    const request = get({ port, path, agent, host: "127.0.0.1" });
    const [response] = (await once(request, "response")) as [IncomingMessage];
    let text = "";
    for await (const piece of response) text += piece;
    return { status: response.statusCode, text };
  }
  return { drain, ask, letGo };
}

/** Waits until so many answers are under way. */
async function begun(drain: Drain, count: number): Promise<void> {
  while (drain.underWay < count) await wait(5);
}

describe("the end of a server", () => {
  it("says that it is not ready before it refuses connections, and waits for what is under way", async () => {
    const { drain, ask, letGo } = await serve();
    const answers = Array.from({ length: 24 }, () => ask("/slow"));
    const endless = ask("/endless");
    await begun(drain, 25);
    expect((await ask("/readyz")).status).toBe(200);
    const cut = drain.end(server, { unready: 1000, most: 60_000 });
    expect(await ask("/readyz")).toMatchObject({ status: 503 });
    while (server.listening) await wait(5);
    await expect(ask("/readyz")).rejects.toThrow(/ECONNREFUSED|ECONNRESET|hang up/);
    letGo();
    expect(await Promise.all(answers)).toEqual(answers.map(() => ({ status: 200, text: "begun done" })));
    expect(await endless).toMatchObject({ text: "begun told" });
    expect(await cut).toBe(0);
  });

  it("cuts what takes too long, and says how much", async () => {
    const { drain, ask } = await serve();
    const answer = ask("/slow");
    answer.catch(() => undefined);
    await begun(drain, 1);
    expect(await drain.end(server, { unready: 0, most: 100 })).toBe(1);
    await expect(answer).rejects.toThrow();
  });

  it("waits for nobody when nothing is under way, though connections are kept open", async () => {
    const { drain, ask, letGo } = await serve();
    letGo();
    expect((await ask("/slow")).text).toBe("begun done");
    expect(await drain.end(server, { unready: 0, most: 60_000 })).toBe(0);
    await expect(ask("/slow")).rejects.toThrow();
  });
});
