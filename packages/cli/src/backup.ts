import { spawn } from "node:child_process";
import { existsSync, readdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { readReady } from "./server.ts";

/** Where Debian keeps PostgreSQL's programs, a folder for each version. */
const PROGRAMS = "/usr/lib/postgresql";

/** Writes all that the database holds into a file, put in place when it is whole. */
export async function backup(file: string): Promise<void> {
  const aside = `${file}.part`;
  try {
    await run("pg_dump", ["--format=custom", "--no-owner", "--file", aside]);
    renameSync(aside, file);
  } catch (error) {
    rmSync(aside, { force: true });
    throw error;
  }
}

/** Puts back what `backup` wrote, in one transaction: all of it or nothing. What was there before is gone. */
export async function restore(file: string): Promise<void> {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  await run("pg_restore", ["--clean", "--if-exists", "--no-owner", "--single-transaction", "--exit-on-error", file]);
}

/** Runs a program of PostgreSQL on the database of the server that runs here; the password is not seen by others. */
function run(program: string, args: readonly string[]): Promise<void> {
  const url = new URL(process.env.DATABASE_URL ?? readReady().databaseUrl);
  const password = decodeURIComponent(url.password);
  url.password = "";
  const child = spawn(pathOf(program), ["--dbname", url.href, ...args], {
    env: { ...process.env, PGPASSWORD: password },
    stdio: ["ignore", "inherit", "pipe"],
  });
  let said = "";
  child.stderr.on("data", (piece: Buffer) => {
    said += piece.toString();
  });
  return new Promise((resolve, reject) => {
    child.on("error", reject);
    child.on("exit", (code) =>
      code === 0
        ? resolve()
        : reject(new Error(said.trim().split("\n").slice(-3).join("\n") || `${program} ended with ${code}.`)),
    );
  });
}

function pathOf(program: string): string {
  const versions = existsSync(PROGRAMS) ? readdirSync(PROGRAMS).sort((a, b) => Number(b) - Number(a)) : [];
  return versions.map((version) => join(PROGRAMS, version, "bin", program)).find((path) => existsSync(path)) ?? program;
}
