import type { RequestListener } from "node:http";
import type { KeyCall, KeyKind, UseOutcome } from "@bibliotope/wire";
import type { Knex } from "knex";
import { AggregatorRegistry, Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from "prom-client";
import type { LiveIndex } from "../publication/live-index.ts";

/** Seconds that tell lookups apart: most take less than a millisecond. */
const BUCKETS = [0.0005, 0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 1, 5];
/** States of jobs that are counted: the others have ended. */
const UNFINISHED = ["waiting", "running", "paused"] as const;

/** What a thread has measured, in a form that can be sent to another thread. */
export type MetricValues = Awaited<ReturnType<Registry["getMetricsAsJSON"]>>;

/** Of metrics that tell of one thread: those of its event loop, and ours. The others tell of the process. */
const OF_THREAD = /^(?:bibliotope_|nodejs_eventloop_)/;

/** What is measured of a lookup once it was answered. */
export interface MeasuredLookup {
  call: KeyCall;
  outcome: UseOutcome;
  /** Kind of the key. */
  kind: KeyKind;
  milliseconds: number;
}

/**
 * What a process knows of itself, in the text format of Prometheus: lookups, the index, jobs, the database, and the usual
 * figures of Node. Names are those of docs/operations.md. Where several threads answer, lookups are added up, and the
 * index is as far as the last of them.
 */
export class Metrics {
  readonly #registry = new Registry();
  readonly #lookups = new Counter({
    name: "bibliotope_lookups_total",
    help: "Lookups answered, by kind of lookup, outcome and kind of key.",
    labelNames: ["call", "outcome", "key"],
    registers: [this.#registry],
  });
  readonly #seconds = new Histogram({
    name: "bibliotope_lookup_duration_seconds",
    help: "Time from the key being read to the answer being sent, by kind of lookup.",
    labelNames: ["call"],
    buckets: BUCKETS,
    registers: [this.#registry],
  });
  readonly #turnedAway = new Counter({
    name: "bibliotope_lookups_turned_away_total",
    help: "Lookups refused because too many were waiting.",
    registers: [this.#registry],
  });

  /** Of figures that the database has: they are read before anything is written, so that all are of one moment. */
  #askDatabase = async () => {};

  /** The other threads. */
  others: { metrics(): Promise<MetricValues[]> } | undefined;

  /** @param isFirst whether it tells of the process and the database too */
  constructor({
    version,
    index,
    database,
    isFirst,
  }: {
    version: string;
    index: LiveIndex;
    database: Knex;
    isFirst: boolean;
  }) {
    const registers = [this.#registry];
    collectDefaultMetrics({ register: this.#registry });
    gauge("bibliotope_index_ready", "1 when lookups are answered.", () => Number(Boolean(index.engine)));
    gauge("bibliotope_index_publication", "Number of the publication that lookups are answered from.", () =>
      index.engine ? index.publication : undefined,
    );
    if (!isFirst) return;
    new Gauge({
      name: "bibliotope_info",
      help: "Always 1; the version of this process.",
      labelNames: ["version"],
      registers,
    }).set({ version }, 1);
    gauge("bibliotope_index_addresses", "Addresses in the index.", () => index.engine?.segment.meta.counts.addresses);
    gauge("bibliotope_index_bytes", "Size of the index in memory.", () => index.shared?.byteLength);
    const jobs = new Gauge({
      name: "bibliotope_jobs",
      help: "Unfinished jobs in the database, by state.",
      labelNames: ["state"],
      registers,
    });
    const newest = new Gauge({
      name: "bibliotope_newest_publication",
      help: "Number of the newest publication in the database.",
      registers,
    });
    const isUp = new Gauge({
      name: "bibliotope_database_up",
      help: "1 when the database answered for this scrape.",
      registers,
    });
    this.#askDatabase = async () => {
      jobs.reset();
      newest.reset();
      try {
        const counts = await database("jobs").whereIn("state", UNFINISHED).groupBy("state").select("state").count();
        const [{ id }] = await database("publications").max({ id: "id" });
        for (const state of UNFINISHED) jobs.set({ state }, 0);
        for (const { state, count } of counts) jobs.set({ state }, Number(count));
        newest.set(Number(id ?? 0));
        isUp.set(1);
      } catch {
        isUp.set(0);
      }
    };

    function gauge(name: string, help: string, read: () => number | undefined): void {
      new Gauge({
        name,
        help,
        registers,
        // of several threads the one that is behind
        aggregator: "min",
        collect() {
          this.reset();
          const value = read();
          if (value !== undefined) this.set(value);
        },
      });
    }
  }

  answered({ call, outcome, kind, milliseconds }: MeasuredLookup): void {
    this.#lookups.inc({ call, outcome, key: kind });
    this.#seconds.observe({ call }, milliseconds / 1000);
  }

  turnedAway(): void {
    this.#turnedAway.inc();
  }

  /** What this thread has measured. */
  async values(): Promise<MetricValues> {
    const values = await this.#registry.getMetricsAsJSON();
    return values.filter(({ name }) => OF_THREAD.test(name));
  }

  async #text(): Promise<string> {
    const [others] = await Promise.all([this.others?.metrics(), this.#askDatabase()]);
    if (!others?.length) return this.#registry.metrics();
    return AggregatorRegistry.aggregate([await this.#registry.getMetricsAsJSON(), ...others]).metrics();
  }

  /** Answers `GET /metrics` and nothing else, on a port of its own, so that nobody outside sees it. */
  readonly listener: RequestListener = (request, response) => {
    if (request.url !== "/metrics" || (request.method !== "GET" && request.method !== "HEAD")) {
      response.writeHead(404, { "Content-Type": "text/plain" }).end("There is only GET /metrics here.\n");
      return;
    }
    this.#text().then(
      (text) => response.writeHead(200, { "Content-Type": this.#registry.contentType }).end(text),
      (error: unknown) => response.writeHead(500, { "Content-Type": "text/plain" }).end(String(error)),
    );
  };
}
