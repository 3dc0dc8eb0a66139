import type { Knex } from "knex";
import { copyRows } from "../database/copy.ts";

/** The identity of every natural key; new ones are given in the order of the keys. */
export async function identitiesOf(
  transaction: Knex.Transaction,
  dataSet: number,
  keys: readonly string[],
): Promise<Map<string, number>> {
  await transaction.raw("create temporary table given_keys (number int, natural_key text) on commit drop");
  await copyRows(transaction, "given_keys", ["number", "natural_key"], [...keys.entries()]);
  await transaction.raw(
    `insert into identities (data_set_id, natural_key)
     select ?::int, natural_key from given_keys g
     where not exists (select from identities i where i.data_set_id = ?::int and i.natural_key = g.natural_key)
     order by number on conflict do nothing`,
    [dataSet, dataSet],
  );
  const rows: { id: number; natural_key: string }[] = await transaction("identities")
    .join("given_keys", "given_keys.natural_key", "identities.natural_key")
    .where("identities.data_set_id", dataSet)
    .select("identities.id", "identities.natural_key");
  return new Map(rows.map(({ id, natural_key }) => [natural_key, id]));
}

/** What is known of a record that is not held now: undefined when no version ever held it. */
export async function everHeld(database: Knex, identity: number): Promise<{ replacedBy: number | null } | undefined> {
  return database("identities").where({ id: identity }).first({ replacedBy: "replaced_by" });
}

/** Notes which identities another one stands for, so that who keeps an old ref is told the new one. */
export async function noteReplaced(database: Knex, replaced: ReadonlyMap<number, number>): Promise<void> {
  if (!replaced.size) return;
  await database.transaction(async (transaction) => {
    await transaction.raw("create temporary table given_replaced (identity int, by int) on commit drop");
    await copyRows(transaction, "given_replaced", ["identity", "by"], replaced);
    await transaction.raw(
      `update identities i set replaced_by = g.by from given_replaced g
       where i.id = g.identity and i.replaced_by is distinct from g.by`,
    );
  });
}
