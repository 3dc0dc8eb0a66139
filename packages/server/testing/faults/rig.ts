import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { chmodSync, copyFileSync, cpSync, mkdtempSync, readFileSync, rmSync, statfsSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath, pathToFileURL } from "node:url";
import { Door, ownDatabase } from "../own-server.ts";
import { type Ready, readReady, required } from "../shared.ts";

const root = fileURLToPath(new URL("../../../..", import.meta.url));
const PRELOAD = pathToFileURL(join(root, "packages/server/testing/faults/preload.mjs")).href;
/** Megabytes of the small disk that the server writes to. */
const DISK = 400;
const PORT = 5690;

/** `npm start` with a database behind a door, on a small disk where one can be had: what is ill-treated. */
export class Rig {
  readonly folder = mkdtempSync(join(tmpdir(), "bibliotope-faults-"));
  readonly clock = join(this.folder, "..", `${this.folder.split("/").pop()}.clock`);
  /** True where the server's folder is a disk of its own, which can be filled. */
  readonly hasDisk: boolean;
  said = "";
  door!: Door;
  #doorPort = 0;
  own!: Awaited<ReturnType<typeof ownDatabase>>;
  #command!: ChildProcess;

  private constructor() {
    this.hasDisk = mounted(this.folder);
  }

  static async start(name: string): Promise<Rig> {
    const rig = new Rig();
    chmodSync(rig.folder, 0o755);
    copyFileSync(join(root, ".bibliotope", "build.digest"), join(rig.folder, "build.digest"));
    const seeded = join(required("BIBLIOTOPE_TEST_HOME"), required("BIBLIOTOPE_TEST_SEEDED"));
    cpSync(seeded, rig.folder, { recursive: true });
    rig.own = await ownDatabase(name, "seeded");
    const url = new URL(rig.own.url);
    rig.door = new Door({ host: "127.0.0.1", port: Number(url.port) });
    rig.#doorPort = await rig.door.open();
    url.port = String(rig.#doorPort);
    rig.#command = spawn(process.execPath, [join(root, "scripts/start.mjs")], {
      env: {
        ...process.env,
        BIBLIOTOPE_FOLDER: rig.folder,
        BIBLIOTOPE_TEST_CLOCK: rig.clock,
        DATABASE_URL: url.href,
        NODE_OPTIONS: `--import=${PRELOAD}`,
        PORT: String(PORT),
      },
      stdio: ["ignore", "pipe", "pipe"],
    });
    for (const stream of [rig.#command.stdout!, rig.#command.stderr!])
      stream.on("data", (piece: Buffer) => {
        rig.said += piece.toString();
      });
    await rig.ready(120_000);
    return rig;
  }

  /** What the server that runs now wrote; undefined while none is ready. */
  now(): Ready | undefined {
    try {
      return readReady(this.folder);
    } catch {
      return undefined;
    }
  }

  /** Waits until a server is ready. @throws Error with what was said when none is */
  async ready(within = 60_000): Promise<Ready> {
    for (const end = Date.now() + within; Date.now() < end; await wait(50)) {
      const ready = this.now();
      if (ready && (await fetch(`${ready.url}/readyz`).catch(() => undefined))?.ok) return ready;
    }
    throw new Error(`no server is ready:\n${this.said}`);
  }

  signal(signal: NodeJS.Signals): void {
    const pid = this.now()?.pid;
    if (pid) send(pid, signal);
  }

  async shutDoor(): Promise<void> {
    await this.door.shut();
  }

  async openDoor(): Promise<void> {
    await this.door.open(this.#doorPort);
  }

  /** Sets the server's clock. @param off milliseconds from the true one */
  setClock(off: number): void {
    writeFileSync(this.clock, String(off));
  }

  /** Fills the disk, but for nothing. */
  fillDisk(): void {
    const { bavail, bsize } = statfsSync(this.folder);
    try {
      writeFileSync(join(this.folder, "filled"), Buffer.alloc(Math.max(0, bavail * bsize)));
    } catch {
      // what there was room for is taken
    }
  }

  freeDisk(): void {
    rmSync(join(this.folder, "filled"), { force: true });
  }

  log(): string {
    return readFileSync(join(this.folder, "log", "server.log"), "utf8");
  }

  async end(): Promise<void> {
    this.#command.kill("SIGTERM");
    if (this.#command.exitCode === null) await new Promise((resolve) => this.#command.once("exit", resolve));
    await this.door.shut();
    await this.own.drop();
    if (this.hasDisk) execFileSync("umount", [this.folder]);
    rmSync(this.folder, { recursive: true, force: true });
    rmSync(this.clock, { force: true });
  }
}

/** Sends a signal to a process that may be gone. @returns whether it was there */
export function send(pid: number, signal: NodeJS.Signals): boolean {
  try {
    return process.kill(pid, signal);
  } catch {
    return false;
  }
}

/** Puts a small disk at a folder. @returns false where that is not allowed */
function mounted(folder: string): boolean {
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", `size=${DISK}m`, "tmpfs", folder], { stdio: "ignore" });
    return true;
  } catch {
    return false;
  }
}
