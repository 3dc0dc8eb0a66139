import type { RequestListener, Server } from "node:http";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { JobKind } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Logger } from "pino";
import { makeListener } from "./app.ts";
import { PublishedForms } from "./forms/published-forms.ts";
import type { Heights } from "./heights/heights.ts";
import { Drain } from "./http/drain.ts";
import type { PublicPlace } from "./http/public-place.ts";
import { securityNotes } from "./http/security-log.ts";
import { Files } from "./import/files.ts";
import { Inspections } from "./import/inspections.ts";
import { Jobs, type Runner } from "./jobs/jobs.ts";
import { KeyRing } from "./keys/key-ring.ts";
import type { OwnKeys } from "./keys/own-keys.ts";
import { Permits } from "./keys/permits.ts";
import { UseCounter } from "./keys/use-counter.ts";
import { LinkKeys } from "./links/link-keys.ts";
import { Metrics } from "./metrics/metrics.ts";
import type { LiveIndex } from "./publication/live-index.ts";
import { KIT_FOLDER, keptKitsIn } from "./routes/kept-kits.ts";
import { readSealing } from "./services/sealing.ts";
import type { StandIns } from "./services/seed-services.ts";
import { Services } from "./services/services.ts";
import { Signals } from "./signals.ts";
import { type Bucket, S3Store } from "./store/s3-store.ts";
import { DatabaseStore, FolderStore, NO_STORE, type Store } from "./store/store.ts";
import type { TileMaker } from "./tiles/map-tiles.ts";
import { startTracing, type Tracing } from "./traces/traces.ts";
import { Sessions } from "./users/sessions.ts";

/** What the process receives from outside. */
export interface Settings {
  databaseUrl: string;
  /** Where the server's own keys are. */
  keysFile: string;
  /** Whether the demo's data, forms and keys are loaded. */
  isDemo: boolean;
  /** Segments, logs and ready.json. */
  home: string;
  /** Where the developer's own grids of heights lie, if anywhere. */
  heightsFolder: string | undefined;
  /** The key that secrets are sealed with, as hexadecimal digits; that of a file beside the keys when not given. */
  secretsKey: string | undefined;
  /** Addresses of the stand-ins for outside services, by their names; none when not given. */
  standIns: StandIns | undefined;
  /** Whether it is counted how keys are used; off only to measure what that costs. */
  countsUses: boolean;
  /** Whether lookups are carried without Express; off only to compare. */
  carriesLookups: boolean;
  port: number;
  /** How many ports are tried, from the port on. */
  ports: number;
  host: string;
  /** How many threads answer, over one index in memory. */
  threads: number;
  /** Where metrics are answered; nowhere when not given. */
  metrics: { port: number; host: string } | undefined;
  /** The collector that traces are sent to; nowhere when not given. */
  traces: string | undefined;
  logsTo: "file" | "stdout";
  /** Where files are that other servers of the database need: nowhere but in its home, in the database, in a folder, or in a bucket. */
  store: "home" | "database" | { folder: string } | Bucket;
  /** How people reach it. */
  place: PublicPlace;
  /** The least that is logged. */
  logLevel: string;
}

/** Where a process writes down what happens. */
export interface Logs {
  log: Logger;
  securityLog: Logger;
}

const packages = fileURLToPath(new URL("../..", import.meta.url));
const VERSION = "0.1.0";
/** Milliseconds after which it is written down how keys were used, and after which permits not used are given back. */
const [NOTE_EVERY, TEND_EVERY] = [5000, 1000];

/** Where the files are that all servers of a database need. */
export function storeOf(where: Settings["store"], database: Knex): Store {
  if (where === "home") return NO_STORE;
  if (where === "database") return new DatabaseStore(database);
  return "folder" in where ? new FolderStore(where.folder) : new S3Store(where);
}

/** What is the same for all threads of a process, or is made before they answer. */
export interface Ground {
  settings: Settings;
  logs: Logs;
  database: Knex;
  index: LiveIndex;
  tiles: TileMaker;
  heights: Heights;
  keys: OwnKeys;
  /** How jobs are done, where they are done in this thread. */
  runners?: (parts: { files: Files; services: Services }) => Readonly<Record<JobKind, Runner>>;
  /** Called when a sign-in link was used up. */
  signedIn?: () => void;
  /** Called when the database may have been restored from a backup. */
  restored?: () => Promise<void>;
  /** Which of the threads it is; the first reports on the process. */
  thread: number;
}

/**
 * One thread that answers requests: its connections, its caches and its limits are its own, as if it were a process;
 * index, map and heights are those of all threads.
 */
export class Answering {
  readonly listener: RequestListener;
  readonly metrics: Metrics | undefined;
  readonly files: Files;
  readonly #drain = new Drain();
  readonly #timers: NodeJS.Timeout[] = [];

  private constructor(
    private readonly ground: Ground,
    private readonly parts: {
      ring: KeyRing;
      permits: Permits;
      counter: UseCounter;
      services: Services;
      jobs: Jobs;
      signals: Signals;
      files: Files;
      tracing: Tracing | undefined;
      listener: (drain: Drain, metrics: Metrics | undefined) => RequestListener;
    },
  ) {
    const { settings, index, database, thread } = ground;
    this.files = parts.files;
    this.metrics = settings.metrics
      ? new Metrics({ version: VERSION, index, database, isFirst: thread === 1 })
      : undefined;
    const listener = parts.listener(this.#drain, this.metrics);
    this.listener = parts.tracing?.requests(listener) ?? listener;
  }

  static async make(ground: Ground): Promise<Answering> {
    const { settings, logs, database, index, tiles, heights, keys } = ground;
    const { log } = logs;
    const besideKeys = (name: string) => join(dirname(settings.keysFile), name);
    const sealing = await readSealing(settings.secretsKey, besideKeys("secrets.key"));
    const ring = new KeyRing(database);
    const permits = new Permits(database);
    const counter = new UseCounter(database, settings.countsUses);
    const published = new PublishedForms(database);
    const services = new Services(database, sealing);
    await Promise.all([ring.refresh(), published.refresh(), services.refresh()]);
    const files = new Files(database, join(settings.home, "files"), storeOf(settings.store, database));
    const jobs = new Jobs(database, settings.databaseUrl, ground.runners?.({ files, services }), log);
    const signals = new Signals(
      settings.databaseUrl,
      {
        keys: () => ring.refresh(),
        forms: () => published.refresh(),
        services: () => services.refresh(),
        publication: () => index.refresh(),
        corrections: () => index.recorrect(),
        restored: async () => ground.restored?.(),
      },
      log,
    );
    const listener = (drain: Drain, metrics: Metrics | undefined) =>
      makeListener({
        version: VERSION,
        database,
        index,
        tiles,
        heights,
        ring,
        permits,
        counter,
        metrics,
        published,
        services,
        sealing,
        linkKeys: new LinkKeys(besideKeys("links.key")),
        place: settings.place,
        noteSecurity: securityNotes(logs.securityLog),
        jobs,
        files,
        inspections: new Inspections(),
        log,
        carriesLookups: settings.carriesLookups,
        sessions: new Sessions(database),
        drain,
        webKey: keys.web,
        tryKey: keys.try,
        kitFolder: KIT_FOLDER,
        keptKits: keptKitsIn(settings.home),
        studioFolder: join(packages, "studio", "dist-web"),
        signedIn: () => ground.signedIn?.(),
      });
    const about = { database, version: VERSION, thread: ground.thread };
    const tracing = settings.traces ? await startTracing(settings.traces, about) : undefined;
    return new Answering(ground, { ring, permits, counter, services, jobs, signals, files, tracing, listener });
  }

  /** Opens what is published, and follows from now on what changes. */
  async begin(): Promise<void> {
    const { permits, signals, jobs } = this.parts;
    this.#timers.push(
      setInterval(() => void this.#noteUses(), NOTE_EVERY),
      setInterval(() => void permits.tend().catch(() => undefined), TEND_EVERY),
    );
    await this.ground.index.refresh();
    await Promise.all([signals.start(), jobs.start()]);
  }

  /** Ends what is under way. @returns how many answers had to be cut */
  async drain(server: Server): Promise<number> {
    return this.#drain.end(server);
  }

  /**
   * Stops all else.
   * @param isKept false where uses and permits are of keys that the database may not have any more, or has for others
   */
  async end(isKept: boolean): Promise<void> {
    const { permits, services, jobs, signals, tracing } = this.parts;
    await Promise.all([signals.stop(), jobs.stop()]);
    for (const timer of this.#timers) clearInterval(timer);
    if (isKept) await Promise.allSettled([this.#noteUses(), permits.stop()]);
    await Promise.all([services.close(), tracing?.end()]);
  }

  #noteUses() {
    const { ring, counter } = this.parts;
    return Promise.allSettled([ring.noteUses(), counter.write()]);
  }
}
