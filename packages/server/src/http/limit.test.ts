import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import express from "express";
import { expect, it } from "vitest";
import { limitByKey } from "./limit.ts";
import { problems } from "./problem.ts";

it("lets each key ask so many times a minute, and says when to ask again", async () => {
  const app = express();
  app.use((request, response, next) => {
    response.locals.key = { id: Number(request.query.key) };
    next();
  });
  app.get("/v1/still", limitByKey(3, "pictures"), (_request, response) => void response.send("a picture"));
  app.use(problems);
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const ask = (key: number) => fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/v1/still?key=${key}`);
  const answers = [];
  for (let i = 0; i < 4; i++) answers.push(await ask(1));
  expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 429]);
  expect(answers[0].headers.get("ratelimit")).toMatch(/r=2/);
  expect(Number(answers[3].headers.get("retry-after"))).toBeGreaterThan(0);
  expect(await answers[3].json()).toMatchObject({
    type: "/problems/too-many",
    status: 429,
    detail: "A key may ask for 3 pictures a minute. Ask again after the time in Retry-After.",
  });
  expect((await ask(2)).status).toBe(200);
  server.close();
});
