import type { KeyKind, KeySummary, MakeKeyAsking } from "@bibliotope/wire";
import type { Knex } from "knex";
import { hashOf, newSecret } from "./secrets.ts";

/** A key as the checks need it. */
export interface HeldKey {
  id: number;
  kind: KeyKind;
  name: string;
  origins: string[];
}

/** Makes a key and tells every process. The key itself is in the answer and nowhere else. */
export async function makeKey(
  database: Knex,
  { kind, name, origins }: MakeKeyAsking,
): Promise<KeySummary & { key: string }> {
  const key = `bt_${kind}_${newSecret()}`;
  const [row] = await database("keys")
    .insert({ kind, name, origins, key_hash: hashOf(key) })
    .returning(["id", "created_at"]);
  await database.raw("select pg_notify('bibliotope', 'keys')");
  return { id: row.id, kind, name, origins, createdAt: row.created_at.toISOString(), key };
}

export async function listKeys(database: Knex): Promise<KeySummary[]> {
  const rows = await database("keys").whereNull("withdrawn_at").orderBy("id");
  return rows.map((row) => ({
    id: row.id,
    kind: row.kind,
    name: row.name,
    origins: row.origins,
    createdAt: row.created_at.toISOString(),
  }));
}

/** Every key that may be used, by its hash. */
export async function readKeys(database: Knex): Promise<Map<string, HeldKey>> {
  const rows = await database("keys").whereNull("withdrawn_at").select("id", "kind", "name", "origins", "key_hash");
  return new Map(rows.map(({ key_hash, ...key }) => [key_hash, key]));
}
