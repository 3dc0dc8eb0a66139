import { connect, type Socket } from "node:net";
import { HEADERS } from "./typed.ts";

/** What came of one request; status 0 where whoever asked had no more patience. */
export interface Came {
  status: number;
  took: number;
}

/** Milliseconds after which a client has no more patience. */
const PATIENCE = 1000;
/** Connections that are opened at once. */
const AT_A_TIME = 50;

/**
 * Asks over sockets of its own, one request on each at a time, with as little work as can be: what is measured is to be the
 * server. A client that leaves closes its socket.
 */
export class Asker {
  readonly #free: Line[] = [];

  readonly #head: string;

  /** @param headers of each request; a browser's when not given */
  constructor(
    private readonly port: number,
    headers: Readonly<Record<string, string>> = HEADERS,
  ) {
    this.#head = Object.entries({ host: "127.0.0.1", ...headers })
      .map(([name, value]) => `${name}: ${value}\r\n`)
      .join("");
  }

  /** Opens connections beforehand, some at a time: what is to be measured is no crowd at the door. */
  async open(connections: number): Promise<void> {
    for (let opened = 0; opened < connections; opened += AT_A_TIME) {
      const lines = Array.from({ length: AT_A_TIME }, () => new Line(this.port, (free) => this.#free.push(free)));
      await Promise.all(lines.map((line) => line.opened));
      this.#free.push(...lines);
    }
  }

  ask(path: string): Promise<Came> {
    let line = this.#free.pop();
    while (line?.isClosed) line = this.#free.pop();
    line ??= new Line(this.port, (free) => this.#free.push(free));
    return line.ask(`GET ${path} HTTP/1.1\r\n${this.#head}\r\n`);
  }
}

/** One connection. */
class Line {
  readonly #socket: Socket;
  #resolve: ((came: Came) => void) | undefined;
  #began = 0;
  #held = "";
  #timer: NodeJS.Timeout | undefined;

  /** When the connection stands. */
  readonly opened: Promise<unknown>;

  constructor(
    port: number,
    private readonly free: (line: Line) => void,
  ) {
    this.#socket = connect({ port, host: "127.0.0.1", noDelay: true });
    this.#socket.setEncoding("latin1");
    this.#socket.on("data", (piece: string) => this.#hear(piece));
    this.#socket.on("error", () => this.#come(0));
    this.#socket.on("close", () => this.#come(0));
    this.opened = new Promise((resolve) => this.#socket.once("connect", resolve));
  }

  get isClosed(): boolean {
    return this.#socket.destroyed;
  }

  ask(text: string): Promise<Came> {
    this.#began = performance.now();
    this.#held = "";
    this.#socket.write(text);
    this.#timer = setTimeout(() => this.#socket.destroy(), PATIENCE);
    return new Promise((resolve) => {
      this.#resolve = resolve;
    });
  }

  #hear(piece: string): void {
    this.#held += piece;
    const head = this.#held.indexOf("\r\n\r\n");
    if (head < 0) return;
    const length = Number(/content-length: (\d+)/i.exec(this.#held)?.[1] ?? 0);
    if (this.#held.length < head + 4 + length) return;
    this.#come(Number(this.#held.slice(9, 12)));
    this.free(this);
  }

  #come(status: number): void {
    clearTimeout(this.#timer);
    this.#resolve?.({ status, took: performance.now() - this.#began });
    this.#resolve = undefined;
  }
}
