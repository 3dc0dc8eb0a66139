import { type ChildProcessByStdio, spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { once } from "node:events";
import { appendFileSync, createReadStream, existsSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import { open } from "node:fs/promises";
import { join } from "node:path";
import type { Readable, Writable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { readReady } from "./server.ts";

/** Where Debian keeps PostgreSQL's programs, a folder for each version. */
const PROGRAMS = "/usr/lib/postgresql";
/** Times that it is tried to take the database, when others hold parts of it. */
const TRIES = 5;
/** Error codes of PostgreSQL when two wait for one another, or one for too long. */
const IS_BLOCKED = /deadlock detected|lock timeout|terminating connection due to administrator command/;

/** Writes all that the database holds into a file, put in place when it is complete. */
export async function backup(file: string): Promise<void> {
  const aside = `${file}.part`;
  // it holds all that the database does: nobody else is to read it
  process.umask(0o077);
  try {
    await ended(start("pg_dump", ["--format=custom", "--no-owner", "--file", aside, "--dbname", address()]));
    // PostgreSQL reads no further than its own end
    appendFileSync(aside, sealOf(await digestOf(aside)));
    renameSync(aside, file);
  } catch (error) {
    rmSync(aside, { force: true });
    throw error;
  }
}

/**
 * Puts back what `backup` wrote, in one transaction: all of it or nothing. What was there before is gone, whatever it
 * was: a database in use, an older or a newer one, an empty one. A server that runs begins anew on it by itself.
 * @param say hears of a backup that has no digest
 * @throws Error for one that is damaged; then nothing was changed
 */
export async function restore(file: string, say: (line: string) => void): Promise<void> {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  await checkSeal(file, say);
  const list = piped("pg_restore", ["--list", file]);
  let listed = "";
  list.stdout.on("data", (piece: Buffer) => {
    listed += piece.toString();
  });
  await ended(list);
  const hasPublic = /^\d+; \d+ \d+ SCHEMA - public /m.test(listed);
  for (let tries = 1; ; tries++) {
    try {
      return await putBack(file, hasPublic);
    } catch (error) {
      if (tries === TRIES || !IS_BLOCKED.test(String(error))) throw error;
    }
  }
}

/** What is at the end of a backup: the digest of all before it. */
const sealOf = (digest: string) => `\nBibliotope backup, sha-256 ${digest}\n`;
const SEAL_BYTES = sealOf("0".repeat(64)).length;

/** @param bytes of the file that are read; all of them when not given */
async function digestOf(file: string, bytes?: number): Promise<string> {
  const hash = createHash("sha256");
  if (bytes !== 0) await pipeline(createReadStream(file, bytes === undefined ? {} : { end: bytes - 1 }), hash);
  return hash.digest("hex");
}

/** @throws Error when the digest at the end is not that of what is before it */
async function checkSeal(file: string, say: (line: string) => void): Promise<void> {
  const body = statSync(file).size - SEAL_BYTES;
  const end = Buffer.alloc(SEAL_BYTES);
  const handle = await open(file);
  try {
    if (body >= 0) await handle.read(end, 0, SEAL_BYTES, body);
  } finally {
    await handle.close();
  }
  const found = /^\nBibliotope backup, sha-256 ([0-9a-f]{64})\n$/.exec(end.toString("latin1"))?.[1];
  if (!found)
    say(
      "This backup has no digest: it is from an earlier version or was cut short. Only PostgreSQL can tell whether it is complete.",
    );
  else if (found !== (await digestOf(file, body)))
    throw new Error(`${file} is damaged: its digest does not match. Nothing was changed.`);
}

/** Everything of ours goes, whoever uses it now. */
const EMPTY = `
set lock_timeout = '15s';
select count(pg_terminate_backend(pid)) from pg_stat_activity
  where datname = current_database() and pid <> pg_backend_pid() and usename = current_user and backend_type = 'client backend';
begin;
do $$
declare name text;
begin
  for name in select nspname from pg_namespace where nspname !~ '^pg_' and nspname <> 'information_schema' loop
    execute format('drop schema %I cascade', name);
  end loop;
end $$;
`;
/** The schema as PostgreSQL makes it in a new database; a backup names it only where it was changed. */
const PUBLIC = `
create schema public authorization pg_database_owner;
comment on schema public is 'standard public schema';
grant usage on schema public to public;
`;
/** Numbers in the database now mean other things than before: whoever stored some learns of it by another history. */
const OTHER_HISTORY = `
create table if not exists public.installation (history uuid not null default gen_random_uuid());
delete from public.installation;
insert into public.installation default values;
select pg_notify('bibliotope', 'restored');
commit;
`;

/** The commit is written only once all of the file was read: without it nothing has happened. */
async function putBack(file: string, hasPublic: boolean): Promise<void> {
  const script = ["--no-psqlrc", "--quiet", "--output=/dev/null", "--set=ON_ERROR_STOP=1", "--dbname", address()];
  const into = piped("psql", script);
  const done = ended(into);
  done.catch(() => undefined);
  const from = piped("pg_restore", ["--no-owner", "--file=-", file]);
  const completed = ended(from);
  completed.catch(() => undefined);
  try {
    into.stdin.write(`${EMPTY}${hasPublic ? "" : PUBLIC}`);
    await pipeline(from.stdout, into.stdin, { end: false });
    await completed;
    into.stdin.end(OTHER_HISTORY);
  } catch (error) {
    into.stdin.destroy();
    from.kill();
    // the database's error explains more than the broken pipe
    await done;
    throw error;
  }
  await done;
}

/** The database of the server that runs here, without the password. */
function address(): string {
  const url = new URL(databaseUrl());
  url.password = "";
  return url.href;
}

const databaseUrl = () => process.env.DATABASE_URL ?? readReady().databaseUrl;

/** Starts a program of PostgreSQL; the password is not seen by others. */
const start = (program: string, args: readonly string[]): ChildProcessByStdio<null, null, Readable> =>
  spawn(pathOf(program), args, { env: withPassword(), stdio: ["ignore", "inherit", "pipe"] });

/** The same, to be written to and read from. */
const piped = (program: string, args: readonly string[]): ChildProcessByStdio<Writable, Readable, Readable> =>
  spawn(pathOf(program), args, { env: withPassword(), stdio: ["pipe", "pipe", "pipe"] });

const withPassword = () => ({
  ...process.env,
  PGPASSWORD: decodeURIComponent(new URL(databaseUrl()).password),
});

/** @throws Error with the last that a program said, when it fails */
async function ended(child: ChildProcessByStdio<Writable | null, Readable | null, Readable>): Promise<void> {
  let said = "";
  child.stderr.on("data", (piece: Buffer) => {
    said += piece.toString();
  });
  // a broken pipe is reported by the program at its end
  child.stdin?.on("error", () => undefined);
  const [code] = await once(child, "close");
  if (code === 0) return;
  throw new Error(said.trim().split("\n").slice(-3).join("\n") || `${child.spawnfile} ended with ${code}.`);
}

function pathOf(program: string): string {
  const versions = existsSync(PROGRAMS) ? readdirSync(PROGRAMS).sort((a, b) => Number(b) - Number(a)) : [];
  return versions.map((version) => join(PROGRAMS, version, "bin", program)).find((path) => existsSync(path)) ?? program;
}
