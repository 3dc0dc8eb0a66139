import { randomUUID } from "node:crypto";
import pino, { type Logger } from "pino";
import { pinoHttp } from "pino-http";

/** Logs to a file, one JSON object a line. */
export function makeLog(file: string): Logger {
  return pino(
    { level: process.env.LOG_LEVEL ?? "info", base: undefined },
    pino.destination({ dest: file, mkdir: true, sync: false }),
  );
}

/** One line for each request: method, path, status, time. Never the query, never a key, never what was looked up. */
export function logRequests(logger: Logger) {
  return pinoHttp({
    logger,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader("X-Request-Id", id);
      return id;
    },
    serializers: {
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({
        id,
        method,
        path: url.split("?")[0],
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
      err: (error: Error) => ({ type: error.name }),
    },
    customLogLevel: (_request, response) => (response.statusCode >= 500 ? "error" : "info"),
  });
}
