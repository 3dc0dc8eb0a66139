import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { afterEach, beforeEach, expect, it } from "vitest";
import { makeLog } from "./log.ts";

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "bibliotope-log-"));
});
afterEach(() => rmSync(folder, { recursive: true }));

it("puts a long log aside, goes on in a new one, keeps five, and lets nobody else read any", {
  timeout: 20_000,
}, async () => {
  const file = join(folder, "log", "server.log");
  const log = makeLog(file, 2000, 20);
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
  makeLog(file);
  expect(statSync(file).mode & 0o777).toBe(0o600);
});
