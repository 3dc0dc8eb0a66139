import { createReadStream, readFileSync, statSync } from "node:fs";
import { basename } from "node:path";
import { Readable } from "node:stream";
import { type OwnAnswer, type OwnCallName, type OwnRequest, ownRequest } from "@bibliotope/wire";
import { ENDS, Stop } from "./ends.ts";

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
  /** Without the demo there is no server key. */
  keys: { srv?: string };
}

/** Where the server that npm start runs in this folder writes its addresses. */
const READY = process.env.BIBLIOTOPE_READY ?? ".bibliotope/ready.json";

/** @throws Error with what to do when none runs */
export function readReady(): Ready {
  try {
    return JSON.parse(readFileSync(READY, "utf8"));
  } catch {
    throw new Stop("No server is running here. Start one with npm start, or use --url and --key.", ENDS.noAnswer);
  }
}

/** The server and key that were given, else those of the server that npm start runs in this folder. */
export function serverOf({ url, key }: ServerOptions): { url: string; key: string } {
  if (url && key) return { url, key };
  const ready = readReady();
  const own = key ?? ready.keys.srv;
  if (!own)
    throw new Stop("This server has no demo keys. Create a server key in the workbench, and use --key.", ENDS.wrongUse);
  return { url: url ?? ready.url, key: own };
}

/** An answer of a server. @throws Stop with its own words where it has none */
export async function answerOf<T>(request: Promise<Response>): Promise<T> {
  const response = await request.catch(() => undefined);
  if (!response) throw new Stop("The server does not respond. Is npm start still running?", ENDS.noAnswer);
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = (await response.json().catch(() => undefined)) as { detail?: string } | undefined;
  throw new Stop(
    problem?.detail ?? `The server returned status ${response.status}.`,
    response.status >= 500 ? ENDS.noAnswer : ENDS.failed,
    response.status,
  );
}

/** A file as the body of a request, read as it is sent. @throws Stop where there is none */
export function bodyOf(file: string): RequestInit & { duplex: "half" } {
  const found = statSync(file, { throwIfNoEntry: false });
  if (!found) throw new Stop(`There is no file ${file}.`, ENDS.wrongUse);
  if (found.isDirectory()) throw new Stop(`${file} is a folder, not a file.`, ENDS.wrongUse);
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

  /** Signs in by the link that the server of this folder keeps for the owner. */
  static async open(): Promise<Workbench> {
    const { url, signIn } = readReady();
    // where it listens: its public URL may lead through a proxy that this machine does not reach, or does not trust
    const link = `${url}/sign-in${new URL(signIn).search}`;
    const response = await fetch(link, { redirect: "manual" }).catch(() => undefined);
    const cookie = response?.headers.get("set-cookie")?.split(";")[0];
    if (!cookie) throw new Stop("Signing in failed because the link was already used. Try again.");
    const { csrf } = await new Workbench(url, { cookie }).ask("session", {});
    return new Workbench(url, { cookie, "X-CSRF-Token": csrf });
  }

  /** @throws Stop with the server's own words where it refuses */
  ask<N extends OwnCallName>(name: N, request: OwnRequest<N>): Promise<OwnAnswer<N>> {
    const { url, method, body } = ownRequest(name, request);
    const headers = { ...this.headers, ...(body ? { "Content-Type": "application/json" } : {}) };
    return answerOf(fetch(`${this.url}${url}`, { method, headers, body: body && JSON.stringify(body) }));
  }

  /** Hands a file in as it is. */
  handIn(file: string): Promise<OwnAnswer<"handIn">> {
    const headers = { ...this.headers, "Content-Type": "application/octet-stream" };
    const { url, method } = ownRequest("handIn", { asks: { name: basename(file) } });
    return answerOf(fetch(`${this.url}${url}`, { ...bodyOf(file), method, headers }));
  }
}
