import { once } from "node:events";
import { mkdtempSync } from "node:fs";
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Engine } from "@bibliotope/core/search";
import { makeLog, wireAlone } from "@bibliotope/server/alone";
import { makeCorpus, type SizeName } from "./corpus.ts";
import { queryClasses } from "./queries.ts";

/*
 * The wire's lookups over a corpus in memory, in a process of their own, so that their processor time can be told from that
 * of whoever asks. With keys, limits, counts, log and compression, as the product has them.
 */

/** What the process tells when it is ready. */
export interface WireReady {
  ports: Record<WireWay, number>;
  /** Whole texts that people are to type, and positions to ask for. */
  texts: string[];
  positions: string[];
}
/** How lookups are carried: without Express and kept; without Express; by Express. */
export const WIRE_WAYS = ["kept", "bare", "express"] as const;
export type WireWay = (typeof WIRE_WAYS)[number];
/** What it tells when it is asked: processor time so far in milliseconds, questions that may be kept and those that were. */
export interface WireSpent {
  processor: number;
  requests: number;
  kept: number;
  /** Bytes of memory that it holds. */
  memory: number;
}

const [size, seed] = process.argv.slice(2) as [SizeName, string];
const corpus = makeCorpus(size, 10_000);
const engine = new Engine(corpus.segment);
const log = makeLog(join(mkdtempSync(join(tmpdir(), "bibliotope-bench-")), "server.log"));
const rules = {
  origins: ["https://members.example"],
  calls: [],
  countries: [],
  endsAt: null,
  perMinute: null,
  perDay: null,
};
const keys = { bt_web_bench: { id: 1, kind: "web" as const, name: "Bench", ...rules } };
const keeping = wireAlone({ engine, keys, log });
const asking = wireAlone({ engine, keys, log, keepsReplies: false });

const portOf = async (server: Server) => {
  await once(server.listen(0, "127.0.0.1"), "listening");
  return (server.address() as AddressInfo).port;
};
const classes = queryClasses(corpus.samples, Number(seed));
const texts = ["clean", "one typing error", "two typing errors", "abbreviated"].flatMap((name) =>
  classes.flatMap((one) => (one.name === name ? one.queries.map(({ q }) => q) : [])),
);
const positions = corpus.samples.map(({ at }) => `${at.lat},${at.lon}`);
process.on("message", () => {
  const { user, system } = process.cpuUsage();
  process.send?.({
    processor: (user + system) / 1000,
    memory: process.memoryUsage.rss(),
    ...keeping.wire.keptCounts,
  } satisfies WireSpent);
});
const ports = {
  kept: await portOf(keeping.bare),
  bare: await portOf(asking.bare),
  express: await portOf(asking.byExpress),
};
process.send?.({ ports, texts, positions } satisfies WireReady);
