import { createReadStream, readFileSync } from "node:fs";
import { basename } from "node:path";
import { Readable } from "node:stream";
import { Client } from "@bibliotope/kit/client";

/** Where a server is, and what opens it. */
export interface ServerOptions {
  url?: string;
  key?: string;
}

/** What the server that npm start runs in this folder has written down for us. */
export interface Ready {
  url: string;
  signIn: string;
  databaseUrl: string;
  keys: { srv: string };
}

/** Where the server that npm start runs in this folder says that it is ready. */
const READY = process.env.BIBLIOTOPE_READY ?? ".bibliotope/ready.json";

/** @throws Error that says what to do when none runs */
export function readReady(): Ready {
  try {
    return JSON.parse(readFileSync(READY, "utf8"));
  } catch {
    throw new Error("No server runs here: start one with npm start, or give --url and --key.");
  }
}

/** The server and key that were given, else those of the server that npm start runs in this folder. */
export function serverOf({ url, key }: ServerOptions): { url: string; key: string } {
  if (url && key) return { url, key };
  const ready = readReady();
  return { url: url ?? ready.url, key: key ?? ready.keys.srv };
}

export const makeClient = (options: ServerOptions) => new Client(serverOf(options));

/** An answer of a server, or an Error with its own words. */
export async function answerOf<T>(asked: Promise<Response>): Promise<T> {
  const response = await asked.catch(() => undefined);
  if (!response) throw new Error("The server does not answer. Is npm start still running?");
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = (await response.json().catch(() => undefined)) as { detail?: string } | undefined;
  throw new Error(problem?.detail ?? `The server answers ${response.status}.`);
}

/** A file as the body of a request, read as it is sent. */
export function bodyOf(file: string): RequestInit & { duplex: "half" } {
  return {
    method: "POST",
    body: Readable.toWeb(createReadStream(file)) as unknown as RequestInit["body"],
    duplex: "half",
  };
}

/** Calls the workbench's own interface, signed in. */
export class Workbench {
  private constructor(
    private readonly url: string,
    private readonly headers: Record<string, string>,
  ) {}

  /** Signs in by the link that the server of this folder keeps for its owner. */
  static async open(): Promise<Workbench> {
    const { url, signIn } = readReady();
    const response = await fetch(signIn, { redirect: "manual" }).catch(() => undefined);
    const cookie = response?.headers.get("set-cookie")?.split(";")[0];
    if (!cookie) throw new Error("Signing in did not work: the link was used meanwhile. Try again.");
    const { csrf } = await answerOf<{ csrf: string }>(fetch(`${url}/api/session`, { headers: { cookie } }));
    return new Workbench(url, { cookie, "X-CSRF-Token": csrf });
  }

  get<T>(path: string): Promise<T> {
    return answerOf(fetch(`${this.url}/api${path}`, { headers: this.headers }));
  }

  send<T>(path: string, body: unknown): Promise<T> {
    const headers = { ...this.headers, "Content-Type": "application/json" };
    return answerOf(fetch(`${this.url}/api${path}`, { method: "POST", headers, body: JSON.stringify(body) }));
  }

  handIn<T>(file: string): Promise<T> {
    const headers = { ...this.headers, "Content-Type": "application/octet-stream" };
    const name = encodeURIComponent(basename(file));
    return answerOf(fetch(`${this.url}/api/files?name=${name}`, { ...bodyOf(file), headers }));
  }
}
