import { generateIslands } from "@bibliotope/islands";
import type { Knex } from "knex";
import { LOCKS } from "../database/connect.ts";
import { publish } from "../publication/publication.repository.ts";
import { storeWorld } from "./gazetteer.repository.ts";

export const ISLANDS = { name: "The islands", licence: "CC0-1.0", day: "2026-11-01" };

/**
 * Loads the made-up islands once. All in one transaction: a start that is killed on the way leaves nothing behind.
 * @returns true when it was this call that loaded them
 */
export async function seedIslands(database: Knex, say: (words: string) => void): Promise<boolean> {
  return database.transaction(async (transaction) => {
    await transaction.raw("select pg_advisory_xact_lock(?)", [LOCKS.seed]);
    if (await transaction("data_sets").where({ name: ISLANDS.name }).first()) return false;
    say("Making the islands: terrain, towns, streets, addresses");
    const world = generateIslands();
    say(`Loading ${world.addresses.length.toLocaleString("en")} addresses into the database`);
    await publish(transaction, [await storeWorld(transaction, world, ISLANDS)]);
    return true;
  });
}
