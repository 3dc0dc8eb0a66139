import { randomUUID } from "node:crypto";
import { chmodSync, existsSync, fstatSync, mkdirSync, renameSync, statSync } from "node:fs";
import type { IncomingMessage, ServerResponse } from "node:http";
import { dirname } from "node:path";
import type { Request } from "express";
import pino, { type Logger } from "pino";
import { patternOf } from "./call-paths.ts";

/** Bytes from which another log file is begun, how many earlier ones are kept, and milliseconds between two looks. */
const [LARGEST, KEPT, LOOK_EVERY] = [50 * 2 ** 20, 5, 60_000];

interface LogOptions {
  largest?: number;
  every?: number;
  /** The least that is written. */
  level?: string;
  /** Ends the looks. */
  until?: AbortSignal;
}

/** Logs to a file that only its owner can read, one JSON object a line; a long one is put aside, and the oldest go. */
export function makeLog(
  file: string,
  { largest = LARGEST, every = LOOK_EVERY, level = "info", until }: LogOptions = {},
): Logger {
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  putAside(file, largest);
  const destination = pino.destination({ dest: file, mode: 0o600, sync: false });
  // a disk that is full, or a folder that is gone, is no reason to end
  destination.on("error", (error: Error) => console.error(`  The log cannot be written: ${error.message}`));
  const looks = setInterval(() => {
    putAside(file, largest);
    // another process may have put it aside
    if (isAnother(file, destination as unknown as { fd: number })) destination.reopen();
  }, every).unref();
  until?.addEventListener("abort", () => {
    clearInterval(looks);
    destination.end();
  });
  return pino({ level, base: undefined }, destination);
}

/** Logs to standard output, for a supervisor that keeps it: one JSON object a line. */
export const logToStdout = (level: string): Logger =>
  pino({ level, base: undefined }, pino.destination({ fd: 1, sync: true }));

/** Writes lines of another thread's logger to where a logger writes. */
export function lineWriter(logger: Logger): (line: string) => void {
  const stream = (logger as unknown as Record<symbol, { write(line: string): void }>)[pino.symbols.streamSym];
  return (line) => stream.write(line);
}

/** A logger whose lines somebody else writes. */
export const logBy = (level: string, write: (line: string) => void): Logger =>
  pino({ level, base: undefined }, { write });

/** True when a name leads to another file than the one that is written. */
function isAnother(file: string, { fd }: { fd: number }): boolean {
  const stats = statSync(file, { throwIfNoEntry: false });
  return fd >= 0 && stats?.ino !== fstatSync(fd).ino;
}

/** `server.log` becomes `server.log.1`, that one `server.log.2`. */
function putAside(file: string, largest: number): void {
  const stats = statSync(file, { throwIfNoEntry: false });
  if (!stats) return;
  // one of a version that let others read it
  if (stats.mode & 0o077) chmodSync(file, 0o600);
  if (stats.size < largest) return;
  for (let number = KEPT; number > 0; number--) {
    const from = number === 1 ? file : `${file}.${number - 1}`;
    if (existsSync(from)) renameSync(from, `${file}.${number}`);
  }
}

/**
 * Writes one line for each request once it is answered: method, route, status, time. The route is a pattern such as
 * `/v1/records/{ref}`: the path itself may hold what was looked up, as the query and the key may.
 */
export function logRequest(logger: Logger, request: IncomingMessage, response: ServerResponse): void {
  const began = performance.now();
  const id = idOf(request);
  const trace = TRACE.exec(request.headers.traceparent as string)?.[1];
  response.setHeader("X-Request-Id", id);
  loggers.set(response, logger);
  response.once("close", () => {
    const { statusCode: status, writableFinished: isWhole } = response;
    const entry = {
      req: { id, method: request.method, ...(trace ? { trace } : {}) },
      res: { status },
      route: routeOf(request),
      responseTime: Math.round(performance.now() - began),
    };
    if (status >= 500) logger.error(entry, "request errored");
    else logger.info(entry, isWhole ? "request completed" : "request aborted");
  });
}

/** An id that a proxy gave, where it is short and plain: it is in every answer and in the log. */
const GIVEN_ID = /^[\w-]{8,64}$/;
/** The id of a trace (W3C Trace Context), of which this request is a part. */
const TRACE = /^[0-9a-f]{2}-([0-9a-f]{32})-[0-9a-f]{16}-[0-9a-f]{2}/;

function idOf({ headers }: IncomingMessage): string {
  const given = headers["x-request-id"];
  return typeof given === "string" && GIVEN_ID.test(given) ? given : randomUUID();
}

/** Writes down a fault of ours, under the id that the answer has. */
export function logBroken(response: ServerResponse, error: unknown): void {
  const entry = { req: { id: response.getHeader("X-Request-Id") } };
  loggers.get(response)?.error({ ...entry, error: error instanceof Error ? error.stack : String(error) }, "broken");
}

const loggers = new WeakMap<ServerResponse, Logger>();

/** Folders of files that are the same for everybody. */
const FILES = /^\/(kit\/v1|assets)\//;

/** The pattern of a request's path, once it is answered; what no route takes is a star. */
export function routeOf(request: IncomingMessage): string {
  const { originalUrl, url, route } = request as Request;
  const path = (originalUrl ?? url).split("?", 1)[0];
  if (path.startsWith("/v1/")) return patternOf(path) ?? "/v1/*";
  if (path.startsWith("/api/")) return route ? `/api${route.path}` : "/api/*";
  if (route) return String([route.path].flat().find((one) => isOf(one, path)) ?? route.path);
  return `${FILES.exec(path)?.[0] ?? "/"}*`;
}

/** Whether a pattern begins as a path does. */
const isOf = (pattern: string, path: string) => pattern.split(/[/{]/)[1] === path.split("/")[1];
