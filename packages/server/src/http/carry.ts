import type { IncomingMessage, RequestListener, ServerResponse } from "node:http";
import compression from "compression";
import type { Request, RequestHandler, Response } from "express";
import type { Logger } from "pino";
import { isPlainLookup } from "./call-paths.ts";
import type { Drain } from "./drain.ts";
import { logRequest } from "./log.ts";
import { bare, COMPRESSED_FROM } from "./send-reply.ts";
import type { Wire } from "./wire.ts";

/** One for both carriers. */
export const compressed = () => compression({ threshold: COMPRESSED_FROM });

/** Files of a page come many at once: even short ones are better compressed. */
export const compressedFiles = () => compression({ threshold: 1024 });

const isOfWire = (url: string) => url.startsWith("/v1/") || url === "/v1";

/** The wire as a part of an Express application. */
export function mountWire(wire: Wire): RequestHandler {
  return (request, response, next) => {
    if (isOfWire(request.originalUrl)) wire.carry(request, response, request.originalUrl);
    else next();
  };
}

/**
 * Carries lookups without Express, which would cost more than the lookup itself, and hands all else on. What is answered,
 * refused, counted and logged is the same: both carriers end in the one wire.
 * @param rest the Express application
 */
export function carryLookups(
  wire: Wire,
  { drain, log }: { drain: Drain; log: Logger },
  rest: RequestListener,
): RequestListener {
  const compress = compressed();
  const done = () => undefined;
  const squeeze = (request: IncomingMessage, response: ServerResponse) =>
    compress(request as Request, response as Response, done);
  return (request: IncomingMessage, response: ServerResponse) => {
    const url = request.url ?? "";
    if (!isPlainLookup(url)) return rest(request, response);
    drain.watch(response);
    logRequest(log, request, response);
    bare.set(response, squeeze);
    wire.carry(request, response, url);
  };
}
