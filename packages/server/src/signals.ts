import { Client } from "pg";
import { STEADY } from "./database/connect.ts";

/** What can change under a running process. */
export type Signal = "keys" | "forms" | "services" | "publication" | "corrections" | "restored";

/** Milliseconds between two looks, and after which a lost connection is made again. */
const [LOOK_EVERY, LISTEN_AGAIN] = [5000, 200];

/**
 * Listens to PostgreSQL for changes that other processes made. A notice can be lost, so everything is also looked at
 * every few seconds; with the database away it keeps trying.
 */
export class Signals {
  #client: Client | undefined;
  #timer: NodeJS.Timeout | undefined;
  #closed = false;

  constructor(
    private readonly url: string,
    private readonly handlers: Record<Signal, () => Promise<void>>,
    private readonly log: { warn(details: object, words: string): void },
  ) {}

  async start(): Promise<void> {
    await this.#listen().catch(() => undefined);
    this.#timer = setInterval(() => void this.#poll(), LOOK_EVERY);
  }

  async stop(): Promise<void> {
    this.#closed = true;
    clearInterval(this.#timer);
    await this.#client?.end().catch(() => undefined);
  }

  async #listen(): Promise<void> {
    const client = new Client({
      connectionString: this.url,
      ...STEADY,
      connectionTimeoutMillis: 2000,
      application_name: "bibliotope signals",
    });
    client.on("error", () => this.#lost(client));
    client.on("end", () => this.#lost(client));
    client.on("notification", ({ payload }) => void this.#handle(payload as Signal));
    await client.connect();
    await client.query("listen bibliotope");
    this.#client = client;
  }

  /** Listens again soon: what happens meanwhile is not heard of, and found only by looking. */
  #lost(client: Client): void {
    if (this.#client !== client) return;
    this.#client = undefined;
    setTimeout(() => void this.#poll(), LISTEN_AGAIN).unref();
  }

  async #poll(): Promise<void> {
    if (this.#closed) return;
    if (!this.#client) await this.#listen().catch(() => undefined);
    if (this.#client) for (const signal of Object.keys(this.handlers) as Signal[]) await this.#handle(signal);
  }

  async #handle(signal: Signal): Promise<void> {
    await this.handlers[signal]?.().catch((error: unknown) =>
      this.log.warn({ error: String(error), signal }, "could not read a change"),
    );
  }
}
