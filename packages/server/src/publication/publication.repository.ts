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

/** Versions of the newest publications, the newest first. */
export async function lastPublications(database: Knex, most: number): Promise<number[][]> {
  const ids: number[] = await database("publications").orderBy("id", "desc").limit(most).pluck("id");
  const rows = await database("publication_versions").whereIn("publication_id", ids).orderBy("position");
  return ids.map((id) => rows.filter((row) => row.publication_id === id).map((row) => row.version_id));
}

/** Makes a list of versions live, the most trusted first, and tells every process. */
export async function publish(
  transaction: Knex.Transaction,
  versions: readonly number[],
  { why = "", madeBy = null, job = null }: { why?: string; madeBy?: number | null; job?: number | null } = {},
): Promise<number> {
  const [{ id }] = await transaction("publications").insert({ why, made_by: madeBy, job_id: job }).returning("id");
  await transaction("publication_versions").insert(
    versions.map((version_id, position) => ({ publication_id: id, position, version_id })),
  );
  await transaction.raw("select pg_notify('bibliotope', 'publication')");
  return id;
}
