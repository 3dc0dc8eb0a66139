import type { Knex } from "knex";
import { nameKey } from "./name-key.ts";

/** Where it is known of whom something is, and what becomes of it when they are erased: it goes, or it stays without them. */
interface PersonalColumn {
  table: string;
  column: string;
  erased: "gone" | "nobody's";
  /** Columns that nobody gets out: hashes and secrets. */
  hidden?: readonly string[];
}

/** Everything that is known of a person, table by table. */
export const PERSONAL_COLUMNS: readonly PersonalColumn[] = [
  {
    table: "sessions",
    column: "user_id",
    erased: "gone",
    hidden: ["token_hash", "previous_hash", "family"],
  },
  { table: "sign_in_links", column: "user_id", erased: "gone", hidden: ["token_hash"] },
  { table: "sign_in_places", column: "user_id", erased: "gone" },
  { table: "passkeys", column: "user_id", erased: "gone", hidden: ["public_key"] },
  { table: "lookups", column: "user_id", erased: "gone" },
  { table: "batches", column: "made_by", erased: "nobody's" },
  { table: "batch_decisions", column: "made_by", erased: "nobody's" },
  { table: "corrections", column: "made_by", erased: "nobody's" },
  { table: "corrections", column: "decided_by", erased: "nobody's" },
  { table: "data_set_versions", column: "made_by", erased: "nobody's" },
  { table: "publications", column: "made_by", erased: "nobody's" },
  { table: "jobs", column: "made_by", erased: "nobody's" },
];
const OF_PERSON = ["password_hash", "codes_secret", "codes_step"];

/** What is known of somebody. */
export interface PersonData {
  person: Record<string, unknown>;
  held: Record<string, Record<string, unknown>[]>;
}

/** Everything that is known of a person, as it lies in the database, but for hashes and secrets. @returns undefined for nobody */
export async function dataOfPerson(database: Knex, id: number): Promise<PersonData | undefined> {
  return database.transaction(async (transaction) => {
    const [person] = await rowsOf(transaction, { table: "users", column: "id", hidden: OF_PERSON }, id);
    if (!person) return undefined;
    const existing: PersonData["held"] = {};
    for (const one of PERSONAL_COLUMNS) existing[nameOf(one)] = await rowsOf(transaction, one, id);
    existing["sign_in_tries by name"] = await transaction("sign_in_tries").where({
      name_key: person.name_key as string,
    });
    return { person, held: existing };
  });
}

const nameOf = ({ table, column }: Pick<PersonalColumn, "table" | "column">) => `${table} by ${column}`;

async function rowsOf(
  database: Knex,
  { table, column, hidden = [] }: Pick<PersonalColumn, "table" | "column" | "hidden">,
  id: number,
): Promise<Record<string, unknown>[]> {
  const { rows } = await database.raw("select to_jsonb(held) - ?::text[] as row from ?? held where ?? = ?", [
    [...hidden],
    table,
    column,
    id,
  ]);
  return rows.map(({ row }: { row: Record<string, unknown> }) => row);
}

/** Takes everything away that is known of a person; what they made for others stays, without them. */
export async function eraseData(database: Knex, id: number): Promise<void> {
  const person = await database("users").where({ id }).first("name");
  if (!person) return;
  for (const { table, column, erased } of PERSONAL_COLUMNS) {
    const rows = database(table).where({ [column]: id });
    await (erased === "gone" ? rows.delete() : rows.update({ [column]: null }));
  }
  await database("sign_in_tries")
    .where({ name_key: nameKey(person.name) })
    .delete();
}
