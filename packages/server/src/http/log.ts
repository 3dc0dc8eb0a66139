import { randomUUID } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { Request } from "express";
import pino, { type Logger } from "pino";
import { patternOf } from "./call-paths.ts";

/** Logs to a file, one JSON object a line. */
export function makeLog(file: string): Logger {
  return pino(
    { level: process.env.LOG_LEVEL ?? "info", base: undefined },
    pino.destination({ dest: file, mkdir: true, sync: false }),
  );
}

/**
 * Writes one line for each request once it is answered: method, route, status, time. The route is a pattern such as
 * `/v1/records/{ref}`: the path itself may hold what was looked up, as the query and the key may.
 */
export function logRequest(logger: Logger, request: IncomingMessage, response: ServerResponse): void {
  const began = performance.now();
  const id = randomUUID();
  response.setHeader("X-Request-Id", id);
  loggers.set(response, logger);
  response.once("close", () => {
    const { statusCode: status, writableFinished: isWhole } = response;
    const told = {
      req: { id, method: request.method },
      res: { status },
      route: routeOf(request as Request),
      responseTime: Math.round(performance.now() - began),
    };
    if (status >= 500) logger.error(told, "request errored");
    else logger.info(told, isWhole ? "request completed" : "request aborted");
  });
}

/** Writes down a fault of ours, under the id that the answer has. */
export function logBroken(response: ServerResponse, error: unknown): void {
  const told = { req: { id: response.getHeader("X-Request-Id") } };
  loggers.get(response)?.error({ ...told, error: error instanceof Error ? error.stack : String(error) }, "broken");
}

const loggers = new WeakMap<ServerResponse, Logger>();

/** Folders of files that are the same for everybody. */
const FILES = /^\/(kit\/v1|assets)\//;

/** The pattern of a request's path; what no route takes is a star. */
function routeOf({ originalUrl, url, route }: Request): string {
  const path = (originalUrl ?? url).split("?", 1)[0];
  if (path.startsWith("/v1/")) return patternOf(path) ?? "/v1/*";
  if (path.startsWith("/api/")) return route ? `/api${route.path}` : "/api/*";
  if (route) return String([route.path].flat().find((one) => isOf(one, path)) ?? route.path);
  return `${FILES.exec(path)?.[0] ?? "/"}*`;
}

/** Whether a pattern begins as a path does. */
const isOf = (pattern: string, path: string) => pattern.split(/[/{]/)[1] === path.split("/")[1];
