import { type ChildProcess, spawn } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";

const SERVER = fileURLToPath(new URL("../../packages/server/dist/main.js", import.meta.url));

/** A server that runs, and the ports on which its threads answer. */
export interface Server {
  child: ChildProcess;
  ports: number[];
}

/** Starts the whole server. @param home its folder @param port of its first thread */
export async function startServer(
  home: string,
  database: string,
  { port, threads = 1 }: { port: number; threads?: number },
): Promise<Server> {
  const child = spawn(process.execPath, [SERVER], {
    stdio: ["ignore", "ignore", "inherit", "ipc"],
    env: {
      ...process.env,
      NODE_ENV: "production",
      DATABASE_URL: database,
      BIBLIOTOPE_HOME: home,
      BIBLIOTOPE_THREADS: String(threads),
      PORT: String(port),
    },
  });
  const file = join(home, "ready.json");
  for (let waited = 0; waited < 120_000; waited += 50) {
    await wait(50);
    if (child.exitCode !== null) throw new Error(`the server ended with code ${child.exitCode}`);
    try {
      const { ports, pid } = JSON.parse(readFileSync(file, "utf8")) as { ports: number[]; pid: number };
      if (pid === child.pid) return { child, ports };
    } catch {
      // not there yet
    }
  }
  throw new Error("the server was not ready within two minutes");
}

export async function endServer({ child }: Server): Promise<void> {
  const gone = new Promise((resolve) => child.once("exit", resolve));
  child.kill("SIGTERM");
  await gone;
}

/** Nanoseconds for which each thread of a process ran. */
export const threadTimes = (pid: number): Map<string, number> =>
  new Map(
    readdirSync(`/proc/${pid}/task`).map((thread) => [
      thread,
      Number(readFileSync(`/proc/${pid}/task/${thread}/schedstat`, "utf8").split(" ")[0]),
    ]),
  );
