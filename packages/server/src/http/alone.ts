import { createServer, type Server } from "node:http";
import type { Engine } from "@bibliotope/core/search";
import express from "express";
import type { Knex } from "knex";
import type { Logger } from "pino";
import type { Heights } from "../heights/heights.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import type { StoredKey } from "../keys/keys.repository.ts";
import { Permits } from "../keys/permits.ts";
import { UseCounter } from "../keys/use-counter.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import { heightHandlers } from "../routes/height.route.ts";
import { lookupHandlers } from "../routes/lookups.route.ts";
import { carryLookups, compressed, mountWire } from "./carry.ts";
import { Drain } from "./drain.ts";
import { logRequest } from "./log.ts";
import { type Handlers, Wire } from "./wire.ts";

/** Ground of one height. */
const LEVEL = { isReady: true, at: () => 12 } as unknown as Heights;

export { makeLog } from "./log.ts";

/** What lookups stand on where nothing else of the product is there. */
export interface Alone {
  engine: Engine | undefined;
  /** Keys by what is sent. */
  keys: Readonly<Record<string, StoredKey>>;
  log: Logger;
  /** Without a database: of it no request is made but whether a ref was ever known. */
  database?: Knex;
  /** False to ask the engine each time. */
  keepsReplies?: boolean;
}

/**
 * The lookups of the wire over an engine alone, by the two carriers: to measure them and to compare them. Limits by
 * amount need a database, and are none here.
 */
export function wireAlone({ engine, keys, log, database = {} as Knex, keepsReplies = true }: Alone): {
  byExpress: Server;
  bare: Server;
  wire: Wire;
} {
  const wire = new Wire(
    {
      version: "0",
      index: { engine } as LiveIndex,
      ring: { find: (key: string) => keys[key], used: () => undefined } as unknown as KeyRing,
      permits: new Permits(database),
      counter: new UseCounter(database),
      place: { path: "", trusted: false },
      keepsReplies,
    },
    // no other call is asked here
    { ...lookupHandlers(database, LEVEL), ...heightHandlers(LEVEL) } as unknown as Handlers,
  );
  const drain = new Drain();
  const app = express();
  app.disable("x-powered-by");
  app.set("query parser", "simple");
  app.use((request, response, next) => {
    drain.watch(response);
    logRequest(log, request, response);
    next();
  });
  app.use(compressed(), mountWire(wire));
  return { byExpress: createServer(app), bare: createServer(carryLookups(wire, { drain, log }, app)), wire };
}
