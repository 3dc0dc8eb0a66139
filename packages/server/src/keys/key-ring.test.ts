import type { Knex } from "knex";
import { expect, it } from "vitest";
import { slowWrites, turn } from "../../testing/slow-writes.ts";
import { KeyRing } from "./key-ring.ts";
import type { StoredKey } from "./keys.repository.ts";

const KEY = { id: 7 } as StoredKey;

function slowDatabase() {
  const { open, write } = slowWrites();
  const query = { where: () => query, andWhere: () => query, update: write };
  return { database: (() => query) as unknown as Knex, open };
}

it("when keys were used is read only after what was being written", async () => {
  const { database, open } = slowDatabase();
  const ring = new KeyRing(database);
  ring.used(KEY);
  const first = ring.noteUses();
  await turn();
  let read = false;
  // somebody lists the keys while the server writes by itself
  const reader = ring.noteUses().then(() => {
    read = true;
  });
  await turn();
  expect(read).toBe(false);
  open[0]!.end();
  await Promise.all([first, reader]);
  expect(open).toHaveLength(1);
});

it("when keys were used is written by whoever comes next, where it could not be", async () => {
  const { database, open } = slowDatabase();
  const ring = new KeyRing(database);
  ring.used(KEY);
  const [first, second] = [ring.noteUses(), ring.noteUses()];
  await turn();
  open[0]!.fail();
  await expect(first).rejects.toThrow("gone");
  await turn();
  expect(open).toHaveLength(2);
  open[1]!.end();
  await second;
  await ring.noteUses();
  expect(open).toHaveLength(2);
});
