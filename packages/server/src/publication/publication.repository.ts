import type { Knex } from "knex";

/** What is live: an ordered list of data-set versions. */
export interface Publication {
  id: number;
  versions: number[];
}

/** The newest publication, or undefined before the first. */
export async function livePublication(database: Knex): Promise<Publication | undefined> {
  const newest = await database("publications").max({ id: "id" }).first();
  if (!newest?.id) return undefined;
  const versions = await database("publication_versions")
    .where({ publication_id: newest.id })
    .orderBy("position")
    .pluck("version_id");
  return { id: newest.id, versions };
}

/** Makes a list of versions live and tells every process. */
export async function publish(transaction: Knex.Transaction, versions: readonly number[]): Promise<number> {
  const [{ id }] = await transaction("publications").insert({ created_at: transaction.fn.now() }).returning("id");
  await transaction("publication_versions").insert(
    versions.map((version_id, position) => ({ publication_id: id, position, version_id })),
  );
  await transaction.raw("select pg_notify('bibliotope', 'publication')");
  return id;
}
