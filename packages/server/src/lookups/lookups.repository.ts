import type { EarlierLookup, EarlierLookups, KeepLookupRequest } from "@bibliotope/wire";
import type { Knex } from "knex";

/** For how long lookups are kept, and how many of one user at most. */
const KEEP_DAYS = 30;
const MOST = 200;

/** The earlier lookups of a user, the latest first; those too old are gone for good. */
export async function listLookups(database: Knex, userId: number): Promise<EarlierLookups> {
  await database("lookups")
    .where("asked_at", "<", database.raw("now() - ? * interval '1 day'", [KEEP_DAYS]))
    .delete();
  const user = await database("users").where({ id: userId }).first("keeps_lookups");
  const rows = await database("lookups").where({ user_id: userId }).orderBy("asked_at", "desc").limit(MOST);
  const lookups = rows.map(
    ({ asked: query, outcome, found, asked_at }): EarlierLookup => ({
      query,
      outcome,
      found,
      askedAt: asked_at.toISOString(),
    }),
  );
  return { keeps: user?.keeps_lookups ?? false, days: KEEP_DAYS, lookups };
}

/** Keeps a lookup, unless its user does not want that. The same one requested again moves to the front. */
export async function keepLookup(
  database: Knex,
  userId: number,
  { query, outcome, found }: KeepLookupRequest,
): Promise<void> {
  const user = await database("users").where({ id: userId }).first("keeps_lookups");
  if (!user?.keeps_lookups) return;
  await database("lookups")
    .insert({ asked: query, outcome, found, user_id: userId, asked_at: database.fn.now() })
    .onConflict(["user_id", "asked"])
    .merge();
  const tooMany = database("lookups").where({ user_id: userId }).orderBy("asked_at", "desc").offset(MOST).select("id");
  await database("lookups").whereIn("id", tooMany).delete();
}

export async function forgetLookups(database: Knex, userId: number): Promise<void> {
  await database("lookups").where({ user_id: userId }).delete();
}

/** Whether lookups are kept from now on; switching it off forgets those that were. */
export async function setKeepsLookups(database: Knex, userId: number, keeps: boolean): Promise<void> {
  await database("users").where({ id: userId }).update({ keeps_lookups: keeps });
  if (!keeps) await forgetLookups(database, userId);
}
