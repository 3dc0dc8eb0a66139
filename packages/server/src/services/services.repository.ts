import type { Service } from "@bibliotope/core/service";
import type { AllowedHost } from "@bibliotope/wire";
import type { Knex } from "knex";

/** A service as it is stored. */
export interface StoredService {
  service: Service;
  revision: number;
  savedAt: Date;
}

export async function listServices(database: Knex): Promise<StoredService[]> {
  const rows = await database("services").orderBy("name").select("definition", "revision", "saved_at");
  return rows.map(({ definition, revision, saved_at }) => ({ service: definition, revision, savedAt: saved_at }));
}

/** Stores a service over the revision that it was made from. @returns its new revision; undefined where somebody was before */
export async function saveService(database: Knex, service: Service, from: number): Promise<number | undefined> {
  const definition = JSON.stringify(service);
  const rows = from
    ? await database("services")
        .where({ name: service.name, revision: from })
        .update({ definition, revision: from + 1, saved_at: database.fn.now() })
        .returning("revision")
    : await database("services")
        .insert({ name: service.name, definition, revision: 1 })
        .onConflict("name")
        .ignore()
        .returning("revision");
  if (rows.length) await tell(database);
  return rows[0]?.revision;
}

export async function dropService(database: Knex, name: string): Promise<boolean> {
  const count = await database("services").where({ name }).del();
  if (count) await tell(database);
  return count > 0;
}

export interface StoredSecret {
  name: string;
  sealed: Buffer;
  setAt: Date;
}

export async function listSecrets(database: Knex): Promise<StoredSecret[]> {
  const rows = await database("service_secrets").orderBy("name");
  return rows.map(({ name, sealed, set_at }) => ({ name, sealed, setAt: set_at }));
}

export async function setSecret(database: Knex, name: string, sealed: Buffer): Promise<void> {
  await database("service_secrets").insert({ name, sealed, set_at: database.fn.now() }).onConflict("name").merge();
  await tell(database);
}

export async function dropSecret(database: Knex, name: string): Promise<boolean> {
  const count = await database("service_secrets").where({ name }).del();
  if (count) await tell(database);
  return count > 0;
}

export async function listHosts(database: Knex): Promise<AllowedHost[]> {
  const rows = await database("service_hosts").orderBy("id");
  return rows.map(({ id, scheme, host, port, is_inside, for_pictures, stand_in }) => ({
    ...{ id, scheme, host, port },
    isInside: is_inside,
    forPictures: for_pictures,
    standIn: stand_in,
  }));
}

export async function allowHost(
  database: Knex,
  { scheme, host, port, isInside, forPictures }: Omit<AllowedHost, "id" | "standIn">,
  standIn: string | null = null,
): Promise<void> {
  const row = { scheme, host, port, is_inside: isInside, for_pictures: forPictures, stand_in: standIn };
  await database("service_hosts").insert(row).onConflict(["scheme", "host", "port"]).merge();
  await tell(database);
}

export async function refuseHost(database: Knex, id: number): Promise<boolean> {
  const count = await database("service_hosts").where({ id }).del();
  if (count) await tell(database);
  return count > 0;
}

/** Forms whose definitions name a service, by the service. */
export async function formsUsing(database: Knex): Promise<Map<string, { ref: string; title: string }[]>> {
  const rows: { ref: string; title: string; services: string[] }[] = await database("forms")
    .whereRaw("jsonb_typeof(draft -> 'services') = 'array'")
    .orderBy("ref")
    .select("ref", database.raw("draft ->> 'title' as title"))
    .select(
      database.raw("array(select rule ->> 'ask' from jsonb_array_elements(draft -> 'services') as rule) as services"),
    );
  const found = new Map<string, { ref: string; title: string }[]>();
  for (const { ref, title, services } of rows)
    for (const name of new Set(services)) found.set(name, [...(found.get(name) ?? []), { ref, title }]);
  return found;
}

const tell = (database: Knex) => database.raw("select pg_notify('bibliotope', 'services')");
