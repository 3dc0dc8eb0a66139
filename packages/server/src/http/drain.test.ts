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

/** A server that answers `/slow` after a while and `/endless` only when it is told to end. */
async function serve(slow: number): Promise<{ drain: Drain; ask: typeof ask }> {
  const drain = new Drain();
  const app = express();
  app.use((_request, response, next) => {
    drain.watch(response);
    next();
  });
  app.get("/readyz", (_request, response) => void response.status(drain.ending.aborted ? 503 : 200).end("?"));
  app.get("/slow", async (_request, response) => {
    response.write("begun ");
    await wait(slow);
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
  return { drain, ask };
}

describe("the end of a server", () => {
  it("says that it is not ready before it refuses connections, and waits for what is under way", async () => {
    const { drain, ask } = await serve(600);
    const answers = Array.from({ length: 24 }, () => ask("/slow"));
    const endless = ask("/endless");
    await wait(100);
    expect((await ask("/readyz")).status).toBe(200);
    const cut = drain.end(server, { unready: 200, most: 5000 });
    expect(await ask("/readyz")).toMatchObject({ status: 503 });
    await wait(300);
    await expect(ask("/readyz")).rejects.toThrow(/ECONNREFUSED|ECONNRESET|hang up/);
    expect(await Promise.all(answers)).toEqual(answers.map(() => ({ status: 200, text: "begun done" })));
    expect(await endless).toMatchObject({ text: "begun told" });
    expect(await cut).toBe(0);
  });

  it("cuts what takes too long, and says how much", async () => {
    const { drain, ask } = await serve(60_000);
    const answer = ask("/slow");
    answer.catch(() => undefined);
    await wait(50);
    expect(await drain.end(server, { unready: 0, most: 100 })).toBe(1);
    await expect(answer).rejects.toThrow();
  });

  it("waits for nobody when nothing is under way, though connections are kept open", async () => {
    const { drain, ask } = await serve(0);
    expect((await ask("/slow")).text).toBe("begun done");
    expect(await drain.end(server, { unready: 0, most: 60_000 })).toBe(0);
    await expect(ask("/slow")).rejects.toThrow();
  });
});
