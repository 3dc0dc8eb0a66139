import { readFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";

/** What a server writes when it is ready. */
export interface Ready {
  url: string;
  signIn: string;
  databaseUrl: string;
  keys: Record<"web" | "srv" | "app" | "try", string>;
  pid: number;
}

/** The server that was started for the tests of this worker, which run one after another. */
export function shared(): Ready {
  return readReady(sharedHome());
}

/** The folder of that server. */
export function sharedHome(): string {
  const count = Number(required("BIBLIOTOPE_TEST_SERVERS"));
  const worker = Number(process.env.VITEST_POOL_ID ?? 1);
  return join(required("BIBLIOTOPE_TEST_HOME"), `server-${((worker - 1) % count) + 1}`);
}

export function readReady(home: string): Ready {
  return JSON.parse(readFileSync(join(home, "ready.json"), "utf8"));
}

export function required(name: string): string {
  const value = process.env[name];
  if (!value)
    throw new Error(
      `${name} is not set: run server tests by npm run test:server -- FILE, which starts a database and servers for them`,
    );
  return value;
}

/** Asks the shared server with a key, by header. */
export async function ask(
  path: string,
  { key = shared().keys.srv, ...init }: RequestInit & { key?: string | null } = {},
): Promise<Response> {
  const headers = new Headers(init.headers);
  if (key !== null) headers.set("Authorization", `Bearer ${key}`);
  return fetch(`${shared().url}${path}`, { ...init, headers, redirect: "manual" });
}

/** Asks and reads JSON of any shape. */
export async function json(path: string, init?: Parameters<typeof ask>[1]): Promise<Answer> {
  return answerOf(await ask(path, init));
}

/** Reads an answer's JSON, where it has any. */
export async function answerOf(response: Response): Promise<Answer> {
  const { status, headers } = response;
  return { status, headers, body: status === 204 ? null : await response.json() };
}

/** An answer with its body, which is looked into at any depth. */
export interface Answer {
  status: number;
  headers: Headers;
  // biome-ignore lint/suspicious/noExplicitAny: its shape is what the tests look at
  body: any;
}
/** A signed-in browser, as far as HTTP goes: its cookie and its CSRF token. */
export async function signedIn(): Promise<{
  get: (path: string) => Promise<Response>;
  send: (method: string, path: string, body: unknown, headers?: Record<string, string>) => Promise<Response>;
  /** Hands a file in, as the workbench does. */
  handIn: (content: string | Buffer, name: string) => Promise<Response>;
  cookie: string;
  csrf: string;
}> {
  const { url } = shared();
  const cookie = await newSession();
  const { csrf } = (await (await fetch(`${url}/api/session`, { headers: { cookie } })).json()) as { csrf: string };
  return {
    cookie,
    csrf,
    get: (path) => fetch(`${url}${path}`, { headers: { cookie } }),
    send: (method, path, body, headers = {}) =>
      fetch(`${url}${path}`, {
        method,
        headers: { cookie, "content-type": "application/json", "x-csrf-token": csrf, ...headers },
        body: JSON.stringify(body),
      }),
    handIn: (content, name) =>
      fetch(`${url}/api/files?name=${encodeURIComponent(name)}`, {
        method: "POST",
        headers: { cookie, "content-type": "application/octet-stream", "x-csrf-token": csrf },
        body: new Uint8Array(Buffer.from(content)),
      }),
  };
}

async function newSession(): Promise<string> {
  // links work once, and other tests take them too: the newest may just be used up
  for (let tries = 0; tries < 50; tries++) {
    const response = await fetch(shared().signIn, { redirect: "manual" });
    const cookie = response.headers.get("set-cookie")?.split(";")[0];
    if (cookie) return cookie;
    await wait(100);
  }
  throw new Error("no sign-in link worked");
}
