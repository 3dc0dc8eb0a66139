import { type ChildProcess, spawn } from "node:child_process";
import { cpSync, existsSync, mkdtempSync } from "node:fs";
import { connect, createServer, type Server, type Socket } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Transform } from "node:stream";
import { setTimeout as wait } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import knex, { type Knex } from "knex";
import { type Ready, readReady, required } from "./shared.ts";

const MAIN = fileURLToPath(new URL("../dist/main.js", import.meta.url));

/** A database of its own within the tests' cluster: empty, or with the demo data in it. */
export async function ownDatabase(
  name: string,
  from: "empty" | "seeded" = "empty",
): Promise<{ url: string; database: Knex; drop: () => Promise<void> }> {
  const admin = knex({ client: "pg", connection: required("BIBLIOTOPE_TEST_DATABASE"), pool: { min: 0, max: 1 } });
  await admin.raw("drop database if exists ?? with (force)", [name]);
  if (from === "empty") await admin.raw("create database ??", [name]);
  else await admin.raw("create database ?? template ??", [name, required("BIBLIOTOPE_TEST_SEEDED")]);
  const url = required("BIBLIOTOPE_TEST_DATABASE").replace(/\/[^/]+$/, `/${name}`);
  const database = knex({ client: "pg", connection: url, pool: { min: 0, max: 2 } });
  return {
    url,
    database,
    drop: async () => {
      await database.destroy();
      await admin.raw("drop database if exists ?? with (force)", [name]);
      await admin.destroy();
    },
  };
}

/** A server process of its own, with all that it says. */
export class OwnServer {
  readonly home = mkdtempSync(join(tmpdir(), "bibliotope-test-"));
  said = "";
  #child: ChildProcess | undefined;

  /**
   * @param from with the index of the demo data, for a database that was made with it
   * @param port that it asks for; it takes the next free one
   * @param settings more of its environment
   * @param args of Node, which starts it
   */
  constructor(
    private readonly databaseUrl: string,
    from: "empty" | "seeded" = "empty",
    private readonly port = "5170",
    private readonly settings: Readonly<Record<string, string>> = {},
    private readonly args: readonly string[] = [MAIN],
  ) {
    if (from === "seeded")
      cpSync(join(required("BIBLIOTOPE_TEST_HOME"), required("BIBLIOTOPE_TEST_SEEDED")), this.home, {
        recursive: true,
      });
  }

  start(): void {
    const child = spawn(process.execPath, this.args, {
      stdio: ["ignore", "pipe", "pipe", "ipc"],
      env: {
        ...process.env,
        DATABASE_URL: this.databaseUrl,
        BIBLIOTOPE_HOME: this.home,
        BIBLIOTOPE_KEYS: join(this.home, "keys.json"),
        PORT: this.port,
        ...this.settings,
      },
    });
    this.said = "";
    const hear = (piece: Buffer) => {
      this.said += piece.toString();
    };
    child.stdout!.on("data", hear);
    child.stderr!.on("data", hear);
    this.#child = child;
  }

  async saying(words: string | RegExp, within = 150_000): Promise<void> {
    for (const end = Date.now() + within; Date.now() < end; await wait(10)) {
      if (typeof words === "string" ? this.said.includes(words) : words.test(this.said)) return;
      if (this.#child?.exitCode !== null) break;
    }
    throw new Error(`the server did not say ${words}; it said:\n${this.said}`);
  }

  async ready(): Promise<Ready> {
    await this.saying("Bibliotope is ready");
    while (!existsSync(join(this.home, "ready.json"))) await wait(20);
    return readReady(this.home);
  }

  /** Ends it by a signal, and waits until it is gone. @returns its exit code */
  async end(signal: NodeJS.Signals): Promise<number | null> {
    this.#child?.kill(signal);
    return this.gone();
  }

  /** Waits until it is gone. @returns its exit code */
  async gone(): Promise<number | null> {
    const child = this.#child;
    if (child && child.exitCode === null && child.signalCode === null)
      await new Promise((resolve) => child.once("exit", resolve));
    return child?.exitCode ?? null;
  }
}

/** A door to a database that can be shut, as if the database were away; or slow, or silent, as a network is. */
export class Door {
  #server: Server | undefined;
  readonly #sockets = new Set<Socket>();
  /** Milliseconds that every piece waits; for ever when infinite, with nobody told: a connection that is open at one end alone. */
  delay = 0;

  constructor(private readonly to: { host: string; port: number }) {}

  async open(port = 0): Promise<number> {
    this.#server = createServer((socket) => {
      const beyond = connect(this.to);
      for (const [one, other] of [
        [socket, beyond],
        [beyond, socket],
      ] as const) {
        this.#sockets.add(one);
        one.pipe(this.#late()).pipe(other);
        one.on("error", () => other.destroy());
        one.on("close", () => {
          this.#sockets.delete(one);
          other.destroy();
        });
      }
    });
    await new Promise<void>((resolve) => this.#server!.listen(port, "127.0.0.1", resolve));
    const address = this.#server.address();
    return typeof address === "object" && address ? address.port : 0;
  }

  async shut(): Promise<void> {
    const closed = new Promise((resolve) => this.#server!.close(resolve));
    this.cut();
    await closed;
  }

  /** Cuts every connection; new ones are let through. */
  cut(): void {
    for (const socket of this.#sockets) socket.destroy();
  }

  /** Hands pieces on as late as it is set now, in their order. */
  #late(): Transform {
    return new Transform({
      transform: (piece, _, done) => {
        if (this.delay === Number.POSITIVE_INFINITY) return;
        if (this.delay) setTimeout(done, this.delay, null, piece);
        else done(null, piece);
      },
    });
  }
}
