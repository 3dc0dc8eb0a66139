import type { Knex } from "knex";

/** Minutes for which wrong passwords count. */
export const MINUTES = 15;
/** Wrong ones that are let through: for a name from one address; from one address for any names; for a name from anywhere. */
const [OF_BOTH, OF_ADDRESS, OF_NAME] = [5, 60, 40];
/** Days for which an address that somebody came in from is known to be their own. */
const KNOWN_DAYS = 90;

/** A try at the door that was noted, as long as its password is being looked at. */
export interface Try {
  id: string;
  isTooMany: boolean;
}

/**
 * Notes a try before its password is looked at, so that many at once are counted as well as one after another, by all
 * processes. Whoever came in from an address before is not kept out there by what others guess elsewhere.
 * @param name the key of the name; see `nameKey`
 */
export async function noteTry(database: Knex, name: string, address: string): Promise<Try> {
  const [{ id }] = await database("sign_in_tries").insert({ name_key: name, address }).returning("id");
  const { rows } = await database.raw(
    `select count(*) filter (where name_key = :name and address = :address)::int as both,
            count(*) filter (where address = :address)::int as address,
            count(*) filter (where name_key = :name)::int as name,
            exists (select from sign_in_places p join users u on u.id = p.user_id
                    where u.name_key = :name and p.address = :address
                      and p.seen_at > now() - :days * interval '1 day') as known
       from sign_in_tries
      where (name_key = :name or address = :address) and at > now() - :minutes * interval '1 minute'`,
    { name, address, days: KNOWN_DAYS, minutes: MINUTES },
  );
  const { both, address: ofAddress, name: ofName, known } = rows[0];
  return { id, isTooMany: both > OF_BOTH || ofAddress > OF_ADDRESS || (ofName > OF_NAME && !known) };
}

/** The password was right: what was tried from there for that name counts no more, and the address is known. */
export async function noteRight(database: Knex, user: number, name: string, address: string): Promise<void> {
  await database("sign_in_tries").where({ name_key: name, address }).delete();
  await database("sign_in_tries").where("at", "<", database.raw("now() - interval '1 day'")).delete();
  await database("sign_in_places")
    .insert({ user_id: user, address })
    .onConflict(["user_id", "address"])
    .merge({ seen_at: database.fn.now() });
}
