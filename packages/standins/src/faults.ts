import type { Request, RequestHandler, Response } from "express";

/** Everything that can go wrong with a service, to be requested by name. */
export const FAULTS = {
  slow: "answers after five seconds",
  hangs: "never answers",
  down: "answers 503",
  refused: "answers 401",
  missing: "answers 404",
  empty: "answers 204, without a body",
  html: "answers a page in place of data",
  cut: "ends in the middle of the answer",
  huge: "sends ten megabytes",
  endless: "sends for ever, without saying how much",
  charset: "answers in windows-1252, and says so",
  deep: "nests its answer a hundred thousand times",
  away: "sends on to another host",
  circle: "sends on to itself, for ever",
} as const;
export type Fault = keyof typeof FAULTS;

const SLOW = 5000;
const HUGE = 10 * 2 ** 20;

const PLAYED: Record<Fault, (request: Request, response: Response, next: () => void) => void> = {
  slow: (_, __, next) => void setTimeout(next, SLOW),
  hangs: () => undefined,
  down: (_, response) => void response.status(503).set("Retry-After", "30").json({ error: "closed for the night" }),
  refused: (_, response) => void response.status(401).json({ error: "who are you?" }),
  missing: (_, response) => void response.status(404).json({ error: "nothing here" }),
  empty: (_, response) => void response.status(204).end(),
  html: (_, response) => void response.type("html").send("<!doctype html><p>Please sign in.<script>alert(1)</script>"),
  cut: (_, response) => {
    response.writeHead(200, { "Content-Type": "application/json", "Content-Length": "400" });
    response.write('{ "days": ["Mon');
    setTimeout(() => response.destroy(), 20);
  },
  huge: (_, response) => void response.type("json").send(JSON.stringify({ filler: "x".repeat(HUGE) })),
  endless: (_, response) => {
    response.writeHead(200, { "Content-Type": "application/json" });
    response.write('{ "filler": "');
    const more = setInterval(() => response.write("x".repeat(60_000)), 5);
    response.on("close", () => clearInterval(more));
  },
  charset: (_, response) => {
    response.set("Content-Type", "application/json; charset=windows-1252");
    response.end(Buffer.from('{ "cost": "4 \u20ac", "days": ["Mi\u00e9rcoles"] }'.replace("\u20ac", "\x80"), "latin1"));
  },
  deep: (_, response) => void response.type("json").send(`${"[".repeat(100_000)}${"]".repeat(100_000)}`),
  away: (_, response) => void response.redirect(307, "http://elsewhere.example/days"),
  circle: (request, response) => void response.redirect(307, request.originalUrl),
};

/** Plays what is requested by `fault=` in the query string, or by the header `Stand-In-Fault`. */
export const playFaults: RequestHandler = (request, response, next) => {
  const fault = request.query.fault ?? request.get("Stand-In-Fault");
  if (typeof fault === "string" && Object.hasOwn(FAULTS, fault)) PLAYED[fault as Fault](request, response, next);
  else next();
};
