import type { IncomingMessage, ServerResponse } from "node:http";
import { type Issue, PROBLEMS, type ProblemName } from "@bibliotope/wire";
import accepts from "accepts";
import type { ErrorRequestHandler, Request } from "express";
import { isDatabaseAway, isDatabaseCrowded, isDiskFull, refusedValue } from "../database/connect.ts";
import { Busy } from "./busy.ts";
import { GoneAway } from "./gone.ts";
import { logBroken } from "./log.ts";
import { wordsPage } from "./pages.ts";
import { basePathOf } from "./public-place.ts";
import { sendReply } from "./send-reply.ts";

/** A request that cannot be answered as requested; becomes `application/problem+json` (RFC 9457). */
export class HttpProblem extends Error {
  constructor(
    readonly problem: ProblemName,
    /** What happened and what to do. */
    readonly detail: string,
    readonly issues?: Issue[],
    readonly headers: Record<string, string> = {},
    /** The ref that is in place of a withdrawn one. */
    readonly replaced?: string,
  ) {
    super(`${problem}: ${detail}`);
  }
}

/** Answers with a problem: a person who follows a wrong link gets a page, a program gets JSON. */
function sendProblem(
  request: IncomingMessage,
  response: ServerResponse,
  { problem, detail, issues, headers, replaced }: HttpProblem,
): void {
  const { status, title } = PROBLEMS[problem];
  const url = (request as Partial<Request>).originalUrl ?? request.url ?? "";
  const isPage = !/^\/(v1|api)\//.test(url) && accepts(request).type(["json", "html"]) === "html";
  const reply = isPage
    ? {
        mediaType: "text/html",
        body: wordsPage(title, [detail], basePathOf(request)),
      }
    : {
        mediaType: "application/problem+json",
        body: JSON.stringify({
          type: `${basePathOf(request)}/problems/${problem}`,
          ...{ title, status, detail, replaced },
          ...(issues?.length ? { issues } : {}),
        }),
      };
  sendReply(request, response, { ...reply, status, headers, cache: "no-store" });
}

/** Turns whatever was thrown on the way into a problem, and answers with it. */
export function failWith(error: unknown, request: IncomingMessage, response: ServerResponse): void {
  // what is half sent cannot be taken back
  if (response.headersSent) return void response.destroy();
  // the client has gone
  if (error instanceof GoneAway) return;
  const problem = problemOf(error);
  if (problem.problem === "broken") logBroken(response, error);
  sendProblem(request, response, problem);
}

/** The same at the end of an Express application. */
export const problems: ErrorRequestHandler = (error, request, response, _next) => failWith(error, request, response);

function problemOf(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (isDatabaseAway(error)) return databaseAway();
  if (isDatabaseCrowded(error))
    return new HttpProblem(
      "no-database",
      "The database has no free connection. Lookups still work. Try again in a moment.",
      undefined,
      { "Retry-After": "2" },
    );
  if (isDiskFull(error))
    return new HttpProblem(
      "no-room",
      "The disk is full, so nothing was saved. Free some space and try again. Lookups still work.",
      undefined,
      { "Retry-After": "30" },
    );
  const refused = refusedValue(error);
  if (refused) return new HttpProblem("malformed", refused);
  if (error instanceof Busy)
    return new HttpProblem("busy", `Try again in ${error.seconds} s.`, undefined, {
      "Retry-After": String(error.seconds),
    });
  const { type, status } = error as { type?: string; status?: number };
  if (type === "entity.too.large")
    return new HttpProblem("too-large", `The body can have at most ${BODY_LIMIT / 1024} kB. Send less at a time.`);
  if (type === "entity.parse.failed")
    return new HttpProblem("malformed", "The body is not valid JSON. Check quotes, commas and brackets.");
  if (type === "encoding.unsupported" || type === "charset.unsupported")
    return new HttpProblem("wrong-type", "Send JSON in UTF-8, with Content-Type: application/json.");
  if (error instanceof URIError || status === 400)
    return new HttpProblem("malformed", "The URL cannot be decoded. Percent-encode it as UTF-8.");
  return new HttpProblem(
    "broken",
    "It is in the server's log under the X-Request-Id of this response. Try again; if it happens again, report that id.",
  );
}

function databaseAway(): HttpProblem {
  return new HttpProblem(
    "no-database",
    "The database does not respond, so nothing was saved. Lookups still work. Try again when it is back.",
    undefined,
    { "Retry-After": "5" },
  );
}

/** The largest body that is read, in bytes. */
export const BODY_LIMIT = 128 * 1024;
