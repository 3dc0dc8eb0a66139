import type { Knex } from "knex";

/** The kind of lookup `sheets` is called `tiles`, in what keys are limited to and in what was counted. */
export async function up(database: Knex): Promise<void> {
  await rename(database, "sheets", "tiles");
}

export async function down(database: Knex): Promise<void> {
  await rename(database, "tiles", "sheets");
}

async function rename(database: Knex, from: string, to: string): Promise<void> {
  await database("keys")
    .whereRaw("? = any(calls)", [from])
    .update({ calls: database.raw("array_replace(calls, ?, ?)", [from, to]) });
  // a process of the version before may still count under the other name while this one is being started
  await database.raw(
    `insert into uses (hour, key_id, call, outcome, bucket, count)
     select hour, key_id, ?, outcome, bucket, count from uses where call = ?
     on conflict (hour, key_id, call, outcome, bucket) do update set count = uses.count + excluded.count`,
    [to, from],
  );
  await database("uses").where({ call: from }).delete();
}
