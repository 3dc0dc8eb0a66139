import { spawn } from "node:child_process";
import { existsSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { home, root } from "./places.mjs";
import { Trouble } from "./say.mjs";

/** What a shell calls the end by a signal that no server sends itself. */
const CODES = { SIGKILL: 137, SIGABRT: 134, SIGSEGV: 139, SIGBUS: 135 };

/**
 * Starts the compiled server. It ends when this process ends, however that happens.
 * @returns the process, a promise of its exit code, and one of what it writes when it is ready
 */
export function startServer({ url, folder, serverHome, port, quiet = false, env = {} }) {
  const readyFile = join(serverHome, "ready.json");
  rmSync(readyFile, { force: true });
  const child = spawn(process.execPath, [join(root, "packages/server/dist/main.js")], {
    stdio: ["ignore", quiet ? "ignore" : "inherit", "inherit", "ipc"],
    env: {
      ...process.env,
      NODE_ENV: "production",
      DATABASE_URL: url,
      BIBLIOTOPE_HOME: serverHome,
      BIBLIOTOPE_KEYS: join(folder, "keys.json"),
      BIBLIOTOPE_HEIGHTS: process.env.BIBLIOTOPE_HEIGHTS ?? join(home, "heights"),
      ...(port ? { PORT: String(port) } : {}),
      ...env,
    },
  });
  const ended = new Promise((resolve) => child.once("exit", (code, signal) => resolve(code ?? CODES[signal] ?? 0)));
  const ready = (async () => {
    for (;;) {
      if (child.exitCode !== null || child.signalCode !== null)
        throw new Trouble("The server ended before it was ready; what it said stands above.");
      if (existsSync(readyFile)) {
        try {
          return JSON.parse(readFileSync(readyFile, "utf8"));
        } catch {
          // half written: look again
        }
      }
      await wait(50);
    }
  })();
  const stop = async () => {
    if (child.exitCode === null && child.signalCode === null) child.kill("SIGTERM");
    await ended;
    rmSync(readyFile, { force: true });
  };
  return { child, ended, ready, stop };
}
