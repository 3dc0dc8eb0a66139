import { createHash } from "node:crypto";
import { accessSync, constants, existsSync, mkdirSync } from "node:fs";
import { basename, join } from "node:path";
import { fileURLToPath } from "node:url";
import { hear, isRoot } from "./run.mjs";
import { Trouble } from "./say.mjs";

/** The clone. */
export const root = fileURLToPath(new URL("../..", import.meta.url)).replace(/\/$/, "");

/**
 * A program of an installed package. Types are compiled by the compiler that is a program of its own (TypeScript 7); what
 * asks TypeScript questions from JavaScript does so through the last version that answers them (5.9).
 */
export const bin = (name) =>
  name === "tsc" ? join(root, "node_modules/typescript-7/bin/tsc") : join(root, "node_modules/.bin", name);

const usualHome = join(root, ".bibliotope");
/** What the commands make and keep, beside the code; elsewhere where a test starts a second product from one clone. */
export const home = process.env.BIBLIOTOPE_FOLDER ?? usualHome;

/** Makes a folder of ours. @throws Trouble when the disk does not let us */
export function makeFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch (error) {
    throw new Trouble(
      `Cannot write to ${folder} (${error.code}).\nGive this user the right to write there, or clone to another folder.`,
    );
  }
  return folder;
}

/**
 * The folder for a private database and what belongs beside it. Within the clone where PostgreSQL may enter it. As root,
 * PostgreSQL runs as the user postgres, who cannot enter a clone under a closed home: then it lives under /var/lib.
 * @param purpose `start` or `test`: each command has its own
 */
export async function databaseHome(purpose) {
  const near = makeFolder(join(home, purpose));
  if (!isRoot) return near;
  const whose = home === usualHome ? root : home;
  const name = `${basename(root)}-${createHash("sha256").update(whose).digest("hex").slice(0, 10)}`;
  const far = join("/var/lib/bibliotope", name, purpose);
  const mayEnter = (await hear("runuser", ["-u", "postgres", "--", "test", "-x", near], { cwd: "/" })).code === 0;
  return mayEnter && !existsSync(far) ? near : makeFolder(far);
}
