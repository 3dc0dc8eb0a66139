import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { expect, it } from "vitest";
import { failWith } from "./problem.ts";

/** What is answered to an error of Node's or PostgreSQL's. */
async function answerTo(code: string) {
  const server = createServer((request, response) =>
    failWith(Object.assign(new Error("said in its own words"), { code }), request, response),
  );
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  try {
    const response = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    const { detail, type } = (await response.json()) as { detail: string; type: string };
    return { status: response.status, after: response.headers.get("retry-after"), detail, type };
  } finally {
    server.close();
  }
}

it.each([
  ["53300", 503, "/problems/no-database", "no free connection"],
  ["53200", 503, "/problems/no-database", "no free connection"],
  ["53100", 507, "/problems/no-room", "The disk is full"],
  ["ENOSPC", 507, "/problems/no-room", "The disk is full"],
  ["ECONNREFUSED", 503, "/problems/no-database", "The database does not respond"],
])("%s is answered with %i, and when to ask again", async (code, status, type, words) => {
  const answer = await answerTo(code);
  expect(answer).toMatchObject({ status, type, detail: expect.stringContaining(words) });
  expect(Number(answer.after)).toBeGreaterThan(0);
  expect(answer.detail).not.toContain("its own words");
});
