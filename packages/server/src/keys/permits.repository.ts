import type { Knex } from "knex";

/** An amount that a key may ask in a window of time, which begins with the first request. */
export interface Amount {
  name: "minute" | "day" | "pictures";
  most: number;
  /** How long a window lasts. */
  seconds: number;
}

/** What a process was given of an amount. */
export interface Leased {
  /** Number of the window. */
  turn: number;
  granted: number;
  /** What nobody has taken of it yet. */
  left: number;
  /** Seconds until the window ends. */
  endsIn: number;
}

/**
 * Of what is left, one process takes at most this part at a time: blocks shrink as the limit comes near, and when each of
 * many has taken one, more than half is still there.
 */
const partOf = (processes: number) => 1 / Math.max(8, 2 * processes);

/**
 * Takes permits out of a key's amount for this process alone: as many as are wanted, or a block of them while many are
 * left, but never more than there are.
 * @param processes of the same database
 */
export async function lease(
  database: Knex,
  key: number,
  amount: Amount,
  { wanted, processes }: { wanted: number; processes: number },
): Promise<Leased> {
  return database.transaction(async (transaction) => {
    const stored = () => transaction("permits").where({ key_id: key, amount: amount.name });
    await transaction("permits")
      .insert({ key_id: key, amount: amount.name, turn: 0, began: transaction.raw("to_timestamp(0)"), taken: 0 })
      .onConflict()
      .ignore();
    const [row] = await stored()
      .forUpdate()
      .select("turn", "taken", {
        age: transaction.raw<number>("extract(epoch from clock_timestamp() - began)::float8"),
      });
    const isOver = row.age >= amount.seconds;
    const taken = isOver ? 0 : row.taken;
    const left = Math.max(0, amount.most - taken);
    const granted = Math.min(left, Math.max(wanted, Math.floor(left * partOf(processes))));
    const turn = isOver ? row.turn + 1 : row.turn;
    await stored().update({
      turn,
      taken: taken + granted,
      ...(isOver ? { began: transaction.raw("clock_timestamp()") } : {}),
    });
    return { turn, granted, left: left - granted, endsIn: amount.seconds - (isOver ? 0 : row.age) };
  });
}

/** Gives back what was not used of a window, if that window still goes on. */
export async function giveBack(
  database: Knex,
  key: number,
  amount: string,
  { turn, unused }: { turn: number; unused: number },
): Promise<void> {
  await database("permits")
    .where({ key_id: key, amount, turn })
    .update({ taken: database.raw("greatest(0, taken - ?)", [unused]) });
}

/** How many server processes stand on this database. */
export async function countProcesses(database: Knex): Promise<number> {
  const row = await database("pg_stat_activity")
    .where({ application_name: "bibliotope signals", datname: database.raw("current_database()") })
    .count({ count: "*" })
    .first();
  return Math.max(1, Number(row?.count ?? 1));
}
