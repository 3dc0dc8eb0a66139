import { randomUUID } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { Request } from "express";
import pino, { type Logger } from "pino";
import { pinoHttp } from "pino-http";
import { patternOf } from "./calls.ts";

/** Logs to a file, one JSON object a line. */
export function makeLog(file: string): Logger {
  return pino(
    { level: process.env.LOG_LEVEL ?? "info", base: undefined },
    pino.destination({ dest: file, mkdir: true, sync: false }),
  );
}

/**
 * One line for each request: method, route, status, time. The route is a pattern such as `/v1/records/{ref}`: the path
 * itself may hold what was looked up, as the query and the key may.
 */
export function logRequests(logger: Logger) {
  return pinoHttp({
    logger,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader("X-Request-Id", id);
      return id;
    },
    serializers: {
      req: ({ id, method }: { id: string; method: string }) => ({ id, method }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
      err: (error: Error) => ({ type: error.name }),
    },
    // known only once the request has met its route
    customSuccessObject: withRoute,
    customErrorObject: (request, response, _error, told) => withRoute(request, response, told),
    customLogLevel: (_request, response) => (response.statusCode >= 500 ? "error" : "info"),
  });
}

const withRoute = (request: IncomingMessage, _response: ServerResponse, told: object) => ({
  route: routeOf(request as Request),
  ...told,
});

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
