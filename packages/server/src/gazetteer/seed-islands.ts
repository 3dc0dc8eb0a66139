import { generateIslands, WORLD_VERSION } from "@bibliotope/islands";
import type { Knex } from "knex";
import { LOCKS } from "../database/connect.ts";
import { livePublication, publish } from "../publication/publication.repository.ts";
import { holdsVersion, storeWorld } from "./gazetteer.repository.ts";

const ISLANDS = { name: "The islands", licence: "CC0-1.0", day: "2026-11-01" };

/**
 * Loads the made-up islands once, and again when the generator makes another world. All in one transaction: a start that is killed on the way leaves nothing behind.
 * @returns true when it was this call that loaded them
 */
export async function seedIslands(database: Knex, say: (words: string) => void): Promise<boolean> {
  return database.transaction(async (transaction) => {
    await transaction.raw("select pg_advisory_xact_lock(?)", [LOCKS.seed]);
    if (await holdsVersion(transaction, ISLANDS.name, WORLD_VERSION)) return false;
    say("Making the islands: terrain, towns, streets, addresses");
    const world = generateIslands();
    say(`Loading ${world.addresses.length.toLocaleString("en")} addresses into the database`);
    const version = await storeWorld(transaction, world, { ...ISLANDS, number: WORLD_VERSION });
    await publish(transaction, await inPlaceOfEarlier(transaction, version), { why: "Bundled demo data" });
    return true;
  });
}

/** What is live, with a new version in the place of the earlier one of the data set. */
async function inPlaceOfEarlier(transaction: Knex.Transaction, version: number): Promise<number[]> {
  const live = (await livePublication(transaction))?.versions ?? [];
  const same = await transaction("data_set_versions")
    .where("data_set_id", transaction("data_set_versions").select("data_set_id").where({ id: version }))
    .pluck("id");
  const others = live.filter((id) => !same.includes(id));
  const place = live.findIndex((id) => same.includes(id));
  return place < 0 ? [...others, version] : [...live.slice(0, place), version, ...live.slice(place + 1)];
}
