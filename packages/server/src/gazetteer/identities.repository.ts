import type { Knex } from "knex";
import { copyRows } from "../database/copy.ts";

/** The identity of every natural key; new ones are given in the order of the keys. */
export async function identitiesOf(
  transaction: Knex.Transaction,
  dataSet: number,
  keys: readonly string[],
): Promise<Map<string, number>> {
  await transaction.raw("create temporary table given_keys (number int, key text) on commit drop");
  await copyRows(transaction, "given_keys", ["number", "key"], [...keys.entries()]);
  await transaction.raw("analyze given_keys");
  const given = await giveIdentities(transaction, dataSet, "given_keys");
  const rows: { identity: number; key: string }[] = await transaction(given).select("identity", "key");
  return new Map(rows.map(({ identity, key }) => [key, identity]));
}

/**
 * Finds the identity of every key of a table of the transaction's own, and gives new ones in the order of the numbers.
 * Nothing else may give identities of the data set until the transaction ends.
 *
 * @param table or view from our own code, with the columns `number` and `key`
 * @returns a table with `identity` and `key`, and `number`: the lowest with that key
 */
export async function giveIdentities(transaction: Knex.Transaction, dataSet: number, table: string): Promise<string> {
  const given = `${table}_given`;
  await transaction.raw(
    `create temporary table ?? on commit drop as
     select coalesce(k.id, nextval('identities_id_seq')::int) as identity, k.id is null as is_new, k.number, k.key
     from (
       select t.key, min(t.number) as number, i.id
       from ?? t left join identities i on i.data_set_id = ?::int and i.natural_key = t.key
       group by t.key, i.id order by 2
     ) k`,
    [given, table, dataSet],
  );
  await transaction.raw(
    `insert into identities (id, data_set_id, natural_key)
     select identity, ?::int, key from ?? where is_new order by number`,
    [dataSet, given],
  );
  await transaction.raw("analyze ??", [given]);
  return given;
}

/** What is known of a record that is not in the data now: undefined when no version ever known it. */
export async function everStored(database: Knex, identity: number): Promise<{ replacedBy: number | null } | undefined> {
  return database("identities").where({ id: identity }).first({ replacedBy: "replaced_by" });
}

/** Notes which identities another one represents, so that an old ref leads to the new one. */
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
