import { setTimeout as wait } from "node:timers/promises";
import knex, { type Knex } from "knex";
import { MIGRATIONS } from "./migrations/index.ts";

/**
 * Milliseconds that a connection may take. A database that is away refuses at once; this is for a machine that is
 * still for a while.
 */
const PATIENCE = 20_000;

/** Of connections that stay open and are asked little: one that is open at this end alone is found out. */
export const STEADY = {
  keepAlive: true,
  keepAliveInitialDelayMillis: 10_000,
  connectionTimeoutMillis: PATIENCE,
  query_timeout: 10_000,
} as const;

/** Connects to PostgreSQL; no request is made until the first query. @param url `postgres://…` @param name the connection's name, which the server shows */
export function connect(url: string, most = 8, name = "bibliotope"): Knex {
  return knex({
    client: "pg",
    connection: { connectionString: url, connectionTimeoutMillis: PATIENCE, keepAlive: true, application_name: name },
    pool: { min: 0, max: most, idleTimeoutMillis: 20_000 },
    acquireConnectionTimeout: PATIENCE + 5000,
    // the caller gets the error and logs it: the library would write it to the console too
    log: { warn: () => undefined, error: () => undefined },
    migrations: {
      migrationSource: MIGRATIONS,
      tableName: "migrations",
      // a later version beside this one may have added some, while this one is started again
      disableMigrationsListValidation: true,
    },
  });
}

/** Milliseconds that a database which is away is waited for at the start, and between two looks. */
const [WAITED, LOOK_EVERY] = [60_000, 200];

/**
 * Waits until the database answers: it may be starting too.
 * @param say hears that it is waited for
 * @throws the database's Error when it refuses, or does not answer in a minute
 */
export async function untilThere(database: Knex, say: (words: string) => void): Promise<void> {
  const end = Date.now() + WAITED;
  for (let isSaid = false; ; await wait(LOOK_EVERY)) {
    try {
      return void (await database.raw("select 1"));
    } catch (error) {
      if (!isDatabaseAway(error) || Date.now() > end) throw error;
      if (!isSaid) say("The database does not respond; waiting for it");
      isSaid = true;
    }
  }
}

/** Brings the tables up to date; one process at a time, the others wait. */
export async function migrate(database: Knex): Promise<void> {
  await database.transaction(async (lock) => {
    await lock.raw("select pg_advisory_xact_lock(?)", [LOCKS.migrate]);
    await database.migrate.latest();
  });
}

/** Numbers of advisory locks, one list so that no two clash. */
export const LOCKS = { migrate: 487001, seed: 487002, build: 487003, jobs: 487004 } as const;

/** Codes of Node and PostgreSQL that mean: the database cannot be reached now. */
const AWAY = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "ENOENT",
  "EPIPE",
  "57P01",
  "57P02",
  "57P03",
  "08000",
  "08003",
  "08006",
]);

/** Codes of Node and PostgreSQL that mean: no room is left on a disk. */
const FULL = new Set(["ENOSPC", "EDQUOT", "53100", "58030"]);
/** The same for: as many connections as there may be are taken, or no memory is left for another. */
const CROWDED = new Set(["53200", "53300", "53400"]);

const codeOf = (error: unknown) =>
  (error instanceof Error ? (error as Error & { code?: string }).code : undefined) ?? "";

/** True when an error means that a disk is full: here or the database's. */
export const isDiskFull = (error: unknown): boolean => FULL.has(codeOf(error));

/** True when an error means that the database has no room for another connection now. */
export const isDatabaseCrowded = (error: unknown): boolean => CROWDED.has(codeOf(error));

/** Said in a thread of its own: an error that comes from one keeps no code. */
export class DatabaseAway extends Error {}

/** True when an error means that the database is away, rather than that the query was wrong. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code, name, message } = error as Error & { code?: string };
  return (
    error instanceof DatabaseAway ||
    AWAY.has(code ?? "") ||
    name === "KnexTimeoutError" ||
    /Connection terminated|timeout exceeded when trying to connect|terminating connection|connection error and is not queryable|E(?:CONNREFUSED|CONNRESET|PIPE)/i.test(
      message,
    )
  );
}

/** Values that PostgreSQL refuses to keep, by its codes, in words. */
const REFUSED: Readonly<Record<string, string>> = {
  "22021": "A text contains an invalid character.",
  "22P05": "A text contains an invalid character.",
  "22003": "A number is too large.",
};

/** What to say of a value that the database refused; undefined for other errors. */
export function refusedValue(error: unknown): string | undefined {
  const { code } = error instanceof Error ? (error as Error & { code?: string }) : {};
  return code === undefined ? undefined : REFUSED[code];
}
