import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { forwardAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Heights } from "../heights/heights.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import type { Permits } from "../keys/permits.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import { lookupHandlers } from "../routes/lookups.route.ts";
import { type Handlers, Wire } from "./wire.ts";

const key = (kind: string) => ({ id: 1, kind, name: kind, origins: [], calls: [], countries: [], endsAt: null });
const wire = new Wire(
  {
    version: "0",
    index: { engine: undefined } as LiveIndex,
    ring: { find: key, used: () => undefined } as unknown as KeyRing,
    permits: {} as Permits,
    counter: { count: () => undefined } as unknown as UseCounter,
    place: { path: "", trusted: false },
  },
  lookupHandlers({} as Knex, {} as Heights) as unknown as Handlers,
);
const server = createServer((request, response) => wire.carry(request, response, request.url!));
const ask = (path: string, kind: string) =>
  fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/v1/${path}&access_token=${kind}`, {
    headers: kind === "web" ? { "Sec-Fetch-Site": "same-origin" } : {},
  });

beforeAll(() => new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve)));
afterAll(() => void server.close());

describe("while no index is there", () => {
  it("a try key is answered the same position for whatever it asks, and told so", async () => {
    const [first, second] = await Promise.all(
      ["forward?q=12+Nowhere+Street", "forward?town=Elsewhere&house=7"].map(async (path) => {
        const response = await ask(path, "try");
        expect(response.status).toBe(200);
        return forwardAnswer.parse(await response.json());
      }),
    );
    expect(first.advice).toEqual(["There is no data yet. A try key gets one fixed position for every request."]);
    expect(first.features[0].properties.line).toBe("12 Nowhere Street");
    expect(second.features[0].properties.line).toBe("7, Elsewhere");
    expect(second.features[0].geometry).toEqual(first.features[0].geometry);
  });

  it("other keys, and other lookups, are told to come back", async () => {
    for (const [path, kind] of [
      ["forward?q=x", "web"],
      ["forward?q=x", "srv"],
      ["suggest?q=x", "try"],
    ]) {
      const response = await ask(path, kind);
      expect(response.status, path).toBe(503);
      expect(response.headers.get("retry-after")).toBe("2");
    }
    expect((await ask("forward?limit=3", "try")).status).toBe(400);
  });
});
