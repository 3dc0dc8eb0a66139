import type { Knex } from "knex";
import { expect, it } from "vitest";
import { slowWrites, turn } from "../../testing/slow-writes.ts";
import { UseCounter } from "./use-counter.ts";

function slowDatabase() {
  const { open, write } = slowWrites();
  return { database: { transaction: write } as unknown as Knex, open };
}

it("is read only after what was being written", async () => {
  const { database, open } = slowDatabase();
  const counter = new UseCounter(database);
  counter.count(1, "suggest", "matched", 1);
  void counter.write();
  await turn();
  let read = false;
  const reader = counter.write().then(() => {
    read = true;
  });
  await turn();
  expect(read).toBe(false);
  open[0]!.end();
  await reader;
  expect(open).toHaveLength(1);
});

it("writes again what could not be written, by whoever comes next", async () => {
  const { database, open } = slowDatabase();
  const counter = new UseCounter(database);
  counter.count(1, "suggest", "matched", 1);
  const first = counter.write();
  const second = counter.write();
  await turn();
  open[0]!.fail();
  await expect(first).rejects.toThrow("gone");
  await turn();
  expect(open).toHaveLength(2);
  open[1]!.end();
  await second;
  await counter.write();
  expect(open).toHaveLength(2);
});
