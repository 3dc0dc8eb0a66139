import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { forwardAnswer } from "@bibliotope/wire";
import express from "express";
import type { Knex } from "knex";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { LiveIndex } from "../publication/live-index.ts";
import { lookupRoutes } from "../routes/lookups.route.ts";
import { problems } from "./problem.ts";

const app = express();
app.use((request, response, next) => {
  response.locals.key = { kind: request.query.access_token };
  next();
});
app.use("/v1", lookupRoutes({ engine: undefined } as unknown as LiveIndex, {} as Knex));
app.use(problems);
const server = createServer(app);
const ask = (path: string, kind: string) =>
  fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/v1/${path}&access_token=${kind}`);

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
    expect(first.advice).toEqual([
      "No data is there yet: a try key is answered one fixed position, whatever it asks for.",
    ]);
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
