import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { makeLog } from "./log.ts";

let folder: string;
let ending: AbortController;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "bibliotope-log-"));
  ending = new AbortController();
});
afterEach(async () => {
  ending.abort();
  await wait(50);
  rmSync(folder, { recursive: true });
});

it("puts a long log aside, goes on in a new one, keeps five, and lets nobody else read any", {
  timeout: 20_000,
}, async () => {
  const file = join(folder, "log", "server.log");
  const log = makeLog(file, { largest: 2000, every: 20, until: ending.signal });
  for (let i = 0; i < 400; i++) {
    log.info({ i }, "something happened that takes a line of some length");
    if (i % 10 === 0) await wait(5);
  }
  await wait(200);
  const names = readdirSync(join(folder, "log")).sort();
  expect(names).toEqual(["server.log", ...Array.from({ length: 5 }, (_, i) => `server.log.${i + 1}`)]);
  for (const name of names) expect(statSync(join(folder, "log", name)).mode & 0o777).toBe(0o600);
  // what is kept is in order, and no line of it is lost or cut
  const kept = [...names.slice(1).reverse(), "server.log"].flatMap((name) =>
    readFileSync(join(folder, "log", name), "utf8")
      .trim()
      .split("\n")
      .filter(Boolean),
  );
  const numbers = kept.map((line) => JSON.parse(line).i as number);
  expect(numbers).toEqual(numbers.map((_, place) => numbers[0] + place));
  expect(numbers.at(-1)).toBe(399);
});

it("takes back what others could read of a log that is there", () => {
  const file = join(folder, "server.log");
  writeFileSync(file, "{}\n", { mode: 0o644 });
  makeLog(file, { until: ending.signal });
  expect(statSync(file).mode & 0o777).toBe(0o600);
});

it("goes on when its folder is gone, says so, and ends nothing", async () => {
  const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
  const file = join(folder, "gone", "server.log");
  const log = makeLog(file, { largest: 100, every: 20, until: ending.signal });
  log.info("a line before, which is long enough for another file to be begun after it, if only there were a place");
  await wait(60);
  rmSync(join(folder, "gone"), { recursive: true });
  for (let i = 0; i < 5; i++) {
    log.info({ i }, "after");
    await wait(30);
  }
  expect(said.mock.calls.flat().join()).toContain("The log cannot be written");
  said.mockRestore();
});
