import { type ChildProcess, spawn } from "node:child_process";
import { chmodSync, copyFileSync, cpSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ownDatabase } from "../testing/own-server.ts";
import { type Ready, readReady, required } from "../testing/shared.ts";
import { isLong } from "../testing/sizes.ts";

const root = fileURLToPath(new URL("../../..", import.meta.url));

/** The command itself, on a folder of its own. */
describe("npm start", { tags: ["long"], timeout: 240_000 }, () => {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-start-"));
  let command: ChildProcess;
  let said = "";
  let ready: Ready;
  let ownDb: Awaited<ReturnType<typeof ownDatabase>> | undefined;

  /** Waits for a server that is not the one before. */
  async function another(): Promise<Ready> {
    for (;;) {
      try {
        const next = readReady(folder);
        if (next.pid !== ready?.pid) return next;
      } catch {
        // not written yet
      }
      if (command.exitCode !== null) throw new Error(`npm start ended:\n${said}`);
      await wait(50);
    }
  }
  const lookUp = () =>
    fetch(`${ready.url}/v1/suggest?q=12+harb`, { headers: { authorization: `Bearer ${ready.keys.srv}` } });
  const postmaster = () => {
    return Number(readFileSync(join(clusterFolder(), "postmaster.pid"), "utf8").split("\n")[0]);
  };
  /** Where the private cluster lies: beside the rest, or under /var/lib where PostgreSQL's user may not enter. */
  const clusterFolder = () => {
    const port = new URL(ready.databaseUrl).port;
    const homes = [join(folder, "start"), ...far()];
    const found = homes.find((home) => {
      try {
        return readFileSync(join(home, "database", "postmaster.pid"), "utf8").split("\n")[3] === port;
      } catch {
        return false;
      }
    });
    if (!found) throw new Error(`no cluster listens on ${port}`);
    return join(found, "database");
  };
  const far = () => {
    try {
      return readdirSync("/var/lib/bibliotope").map((name) => join("/var/lib/bibliotope", name, "start"));
    } catch {
      return [];
    }
  };

  beforeAll(async () => {
    chmodSync(folder, 0o755);
    // what is built is built already
    copyFileSync(join(root, ".bibliotope", "build.digest"), join(folder, "build.digest"));
    // a cluster of its own takes half a minute to be made and filled
    ownDb = isLong ? undefined : await ownDatabase("npm_start", "seeded");
    if (ownDb)
      cpSync(join(required("BIBLIOTOPE_TEST_HOME"), required("BIBLIOTOPE_TEST_SEEDED")), folder, { recursive: true });
    const { DATABASE_URL: _, ...env } = process.env;
    command = spawn(process.execPath, [join(root, "scripts/start.mjs")], {
      env: { ...env, BIBLIOTOPE_FOLDER: folder, PORT: "5470", ...(ownDb ? { DATABASE_URL: ownDb.url } : {}) },
      stdio: ["ignore", "pipe", "pipe"],
    });
    for (const stream of [command.stdout!, command.stderr!])
      stream.on("data", (piece: Buffer) => {
        said += piece.toString();
      });
    ready = await another();
  }, 240_000);
  afterAll(async () => {
    if (command.exitCode === null) {
      command.kill("SIGTERM");
      await new Promise((resolve) => command.once("exit", resolve));
    }
    rmSync(folder, { recursive: true, force: true });
    await ownDb?.drop();
  });

  it("starts the server again when it has crashed, where it answered before, and says so", {
    tags: ["long"],
  }, async () => {
    const before = ready;
    expect((await lookUp()).status).toBe(200);
    process.kill(ready.pid, "SIGKILL");
    ready = await another();
    expect(said).toContain("The server ended by itself (it was killed");
    expect(said).toContain("Starting it again in 0.05 s");
    expect(ready.url).toBe(before.url);
    expect(ready.databaseUrl).toBe(before.databaseUrl);
    expect((await lookUp()).status).toBe(200);
  });

  it("waits longer before the next time", { tags: ["long"] }, async () => {
    process.kill(ready.pid, "SIGABRT");
    ready = await another();
    expect(said).toContain("code 134: it was out of memory, or Node itself failed");
    expect(said).toContain("Starting it again in 1 s");
    expect((await lookUp()).status).toBe(200);
  });

  it.runIf(isLong)("starts the database again when that has crashed; lookups go on meanwhile", async () => {
    const pid = ready.pid;
    process.kill(postmaster(), "SIGKILL");
    expect((await lookUp()).status).toBe(200);
    const signedIn = async () =>
      (await fetch(ready.signIn, { redirect: "manual" }).catch(() => undefined))?.headers.get("set-cookie");
    while (!(await signedIn())) await wait(200);
    expect(said).toContain("The database ended by itself. Starting it again");
    expect(readReady(folder).pid).toBe(pid);
  });

  it("ends with everything that it started", async () => {
    const cluster = isLong ? clusterFolder() : undefined;
    command.kill("SIGINT");
    expect(await new Promise((resolve) => command.once("exit", resolve))).toBe(0);
    await expect(fetch(`${ready.url}/healthz`)).rejects.toThrow();
    if (!cluster) return;
    expect(said).toContain("Stopping the database");
    expect(readdirSync(cluster)).not.toContain("postmaster.pid");
    if (cluster.startsWith("/var/lib/bibliotope/")) rmSync(join(cluster, "../.."), { recursive: true, force: true });
  });
});
