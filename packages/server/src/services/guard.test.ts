import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import type { AllowedHost } from "@bibliotope/wire";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { Caller } from "./caller.ts";
import type { Resolve } from "./guard.ts";

let server: Server;
let heard = 0;
beforeAll(async () => {
  server = createServer((_, response) => {
    heard++;
    response.setHeader("content-type", "application/json").end("{}");
  }).listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
});
afterAll(() => {
  server.close();
  server.closeAllConnections();
});

/** Asks a host that is not marked as inside, whose name leads to these addresses. */
async function ask(...to: string[][]): Promise<string> {
  let count = 0;
  const resolve: Resolve = async () => {
    const addresses = to[Math.min(count++, to.length - 1)];
    return addresses.map((address) => ({ address, family: address.includes(":") ? 6 : 4 }));
  };
  const { port } = server.address() as AddressInfo;
  const host: AllowedHost = {
    id: 1,
    scheme: "http",
    host: "rebound.example",
    port,
    isInside: false,
    forPictures: false,
    standIn: null,
  };
  const caller = new Caller(() => [host], resolve);
  const url = `http://rebound.example:${port}/`;
  const end = await caller.call({ method: "GET", url, headers: {} }, 300).then(
    () => "answered",
    (error: { outcome: string }) => error.outcome,
  );
  await caller.close();
  return end;
}

describe("a name that leads elsewhere", () => {
  it("reaches nothing inside: not at first, not the second time, not beside an address of the world", async () => {
    heard = 0;
    expect(await ask(["127.0.0.1"])).toBe("refused");
    expect(await ask(["192.0.2.1"], ["127.0.0.1"])).toBe("refused");
    expect(await ask(["::ffff:127.0.0.1"], ["::1"])).toBe("refused");
    // the one of the world is taken; nobody answers there
    expect(["slow", "down", "refused"]).toContain(await ask(["203.0.113.9", "127.0.0.1"]));
    expect(heard).toBe(0);
  });
});
