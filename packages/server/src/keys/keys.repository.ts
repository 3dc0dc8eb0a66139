import {
  type ChangeKeyRequest,
  type KeyCall,
  type KeyKind,
  type KeySummary,
  type MadeKey,
  type MakeKeyRequest,
  PROGRAM_KINDS,
  PROGRAM_LIMIT,
} from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Rows } from "../database/tables.ts";
import { hashOf, newSecret } from "./secrets.ts";

/** A key as the checks need it. */
export interface StoredKey {
  id: number;
  kind: KeyKind;
  name: string;
  origins: string[];
  /** Kinds of lookup that it is kept to; all when empty. */
  calls: KeyCall[];
  /** Countries that it is kept to; all when empty. */
  countries: string[];
  endsAt: Date | null;
  /** Lookups in a minute and in a day; null for no limit. */
  perMinute: number | null;
  perDay: number | null;
}

/** Whether the last day of a key is over. */
export const hasEnded = ({ endsAt }: Pick<StoredKey, "endsAt">) => endsAt !== null && endsAt.getTime() <= Date.now();

/** Makes a key and tells every process. The key itself is in the answer and nowhere else. */
export async function makeKey(database: Knex, { kind, ...rules }: MakeKeyRequest): Promise<MadeKey> {
  const key = `bt_${kind}_${newSecret()}`;
  const [row] = await database("keys")
    .insert({ kind, ...columnsOf(rules), key_hash: hashOf(key) })
    .returning("*");
  await tell(database);
  return { ...summaryOf(row), key };
}

/** Keys that were not withdrawn, those that have ended too. */
export async function listKeys(database: Knex): Promise<KeySummary[]> {
  return (await database("keys").whereNull("withdrawn_at").orderBy("id")).map(summaryOf);
}

/** Changes what a key may be used for. @returns undefined when there is no such key */
export async function changeKey(database: Knex, id: number, rules: ChangeKeyRequest): Promise<KeySummary | undefined> {
  const [row] = await database("keys").where({ id }).whereNull("withdrawn_at").update(columnsOf(rules)).returning("*");
  if (row) await tell(database);
  return row && summaryOf(row);
}

/**
 * Makes a key for the same use as another, which ends after some hours, or when it would have anyway.
 * @returns undefined when there is no such key
 */
export async function replaceKey(database: Knex, id: number, overlap: number): Promise<MadeKey | undefined> {
  return database.transaction(async (transaction) => {
    const [before] = await transaction("keys")
      .where({ id })
      .whereNull("withdrawn_at")
      .update({ ends_at: transaction.raw("least(ends_at, now() + ? * interval '1 hour')", [overlap]) })
      .returning("*");
    if (!before) return undefined;
    return makeKey(transaction, { ...summaryOf(before), endsAt: null });
  });
}

/** Withdraws a key at once. @returns false when there is no such key */
export async function withdrawKey(database: Knex, id: number): Promise<boolean> {
  const gone = await database("keys")
    .where({ id })
    .whereNull("withdrawn_at")
    .update({ withdrawn_at: database.fn.now() });
  if (gone) await tell(database);
  return gone === 1;
}

/** Notes when keys were used last. @param uses moments by the key's id */
export async function noteUses(database: Knex, uses: ReadonlyMap<number, Date>): Promise<void> {
  for (const [id, used_at] of uses)
    await database("keys")
      .where({ id })
      .andWhere((query) => query.whereNull("used_at").orWhere("used_at", "<", used_at))
      .update({ used_at });
}

/** Every key that was not withdrawn, by its hash. */
export async function readKeys(database: Knex): Promise<Map<string, StoredKey>> {
  const rows = await database("keys").whereNull("withdrawn_at");
  return new Map(
    rows.map(({ key_hash, id, kind, name, origins, calls, countries, ends_at, per_minute, per_day }) => [
      key_hash,
      {
        id,
        kind,
        name,
        origins,
        calls,
        countries,
        endsAt: ends_at,
        perMinute: per_minute ?? (PROGRAM_KINDS.has(kind) ? PROGRAM_LIMIT : null),
        perDay: per_day,
      },
    ]),
  );
}

const tell = (database: Knex) => database.raw("select pg_notify('bibliotope', 'keys')");

const columnsOf = ({ name, origins, calls, countries, endsAt, perMinute, perDay }: ChangeKeyRequest) => ({
  name,
  origins,
  calls,
  countries,
  ends_at: endsAt,
  per_minute: perMinute,
  per_day: perDay,
});

const summaryOf = (row: Rows["keys"]): KeySummary => ({
  id: row.id,
  kind: row.kind,
  name: row.name,
  origins: row.origins,
  calls: row.calls,
  countries: row.countries,
  createdAt: row.created_at.toISOString(),
  endsAt: row.ends_at?.toISOString() ?? null,
  perMinute: row.per_minute,
  perDay: row.per_day,
  usedAt: row.used_at?.toISOString() ?? null,
});
