import { closeSync, openSync, readFileSync, rmSync, writeSync } from "node:fs";
import { setTimeout as wait } from "node:timers/promises";
import { say } from "./say.mjs";

/**
 * Holds a lock file while the body runs, so that two commands do not set up at once. A lock whose process is gone is taken over.
 */
export async function withLock(file, waiting, body) {
  for (let isSaid = false; !tryLock(file); isSaid = true) {
    if (!isSaid) say(waiting);
    await wait(500);
  }
  try {
    return await body();
  } finally {
    rmSync(file, { force: true });
  }
}

/** Takes a lock if nobody living has it. @returns true when it is ours now */
export function tryLock(file) {
  try {
    const handle = openSync(file, "wx", 0o600);
    writeSync(handle, String(process.pid));
    closeSync(handle);
    return true;
  } catch (error) {
    if (error.code !== "EEXIST") throw error;
    if (!isAlive(holderOf(file))) rmSync(file, { force: true });
    return false;
  }
}

export function holderOf(file) {
  try {
    return Number(readFileSync(file, "utf8")) || process.pid;
  } catch {
    return 0;
  }
}

export function isAlive(pid) {
  if (!pid) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === "EPERM";
  }
}
