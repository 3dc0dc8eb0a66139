import { rename, rm, writeFile } from "node:fs/promises";
import type { AddressInfo } from "node:net";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { Knex } from "knex";
import type { Logger } from "pino";
import { makeListener } from "./app.ts";
import { batcher } from "./batches/batcher.ts";
import { connect, migrate, untilThere } from "./database/connect.ts";
import { historyOf } from "./database/history.ts";
import { PublishedForms } from "./forms/published-forms.ts";
import { seedForms } from "./forms/seed-forms.ts";
import { countVersions } from "./gazetteer/data-sets.repository.ts";
import { seedIslands } from "./gazetteer/seed-islands.ts";
import { Heights } from "./heights/heights.ts";
import { readOwnGrids } from "./heights/own-grids.ts";
import { Drain } from "./http/drain.ts";
import type { PublicPlace } from "./http/public-place.ts";
import { securityNotes } from "./http/security-log.ts";
import { Files } from "./import/files.ts";
import { loader } from "./import/loader.ts";
import { Looks } from "./import/looks.ts";
import { Jobs } from "./jobs/jobs.ts";
import { KeyRing } from "./keys/key-ring.ts";
import { ownKeys } from "./keys/own-keys.ts";
import { Permits } from "./keys/permits.ts";
import { UseCounter } from "./keys/use-counter.ts";
import { LinkKeys } from "./links/link-keys.ts";
import { listen } from "./listen.ts";
import { Metrics } from "./metrics/metrics.ts";
import { LiveIndex } from "./publication/live-index.ts";
import { publisher } from "./publication/publish.ts";
import { SegmentStore } from "./publication/segment-store.ts";
import { sweepOld } from "./retention/retention.ts";
import { readSealing } from "./services/sealing.ts";
import { type StandIns, seedServices } from "./services/seed-services.ts";
import { Services } from "./services/services.ts";
import { Signals } from "./signals.ts";
import { DatabaseStore, FolderStore, NO_STORE, type Store } from "./store/store.ts";
import { MapTiles } from "./tiles/map-tiles.ts";
import { Sessions } from "./users/sessions.ts";
import { firstUser, makeSignInToken } from "./users/users.repository.ts";

/** What the process is told from outside. */
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
  /** Where metrics are answered; nowhere when not given. */
  metrics: { port: number; host: string } | undefined;
  logsTo: "file" | "stdout";
  /** Where files are that other servers of the database need: nowhere but in its home, in the database, or in a folder. */
  store: "home" | "database" | { folder: string };
  /** How people reach it. */
  place: PublicPlace;
  /** The least that is logged. */
  logLevel: string;
}

const packages = fileURLToPath(new URL("../..", import.meta.url));
const VERSION = "0.1.0";
/** Milliseconds after which it is written down how keys were used, and after which permits not used are given back. */
const [NOTE_EVERY, TEND_EVERY] = [5000, 1000];
/** Milliseconds from one throwing away of what is old to the next. */
const SWEEP_EVERY = 3_600_000;
/** What the process ends with: it was told to, an error came that nobody expected, or `npm start` is to begin it anew at once. */
const ENDS = { requested: 0, broken: 70, restored: 75 };
/** Milliseconds that an end after such an error may take. */
const END_WITHIN = 25_000;
/** Milliseconds within which two signals to stop are taken for one. */
const SAME_PRESS = 1000;

function storeOf(where: Settings["store"], database: Knex): Store {
  if (where === "home") return NO_STORE;
  return where === "database" ? new DatabaseStore(database) : new FolderStore(where.folder);
}

interface Logs {
  log: Logger;
  securityLog: Logger;
}

/** Brings everything up, in the order in which it is needed, and says that it is ready. */
export async function start(
  settings: Settings,
  { log, securityLog }: Logs,
  say: (words: string) => void,
): Promise<void> {
  const readyFile = join(settings.home, "ready.json");

  const database = connect(settings.databaseUrl);

  await rm(readyFile, { force: true });
  await untilThere(database, say);
  say("Updating the database schema");
  await migrate(database);
  if (settings.isDemo) {
    await seedIslands(database, say);
    await seedForms(database);
  }
  const keys = await ownKeys(database, settings.keysFile, settings.isDemo);
  const user = await firstUser(database);
  const sealing = await readSealing(settings.secretsKey, join(dirname(settings.keysFile), "secrets.key"));
  const linkKeys = new LinkKeys(join(dirname(settings.keysFile), "links.key"));
  await seedServices(database, settings.standIns, sealing);

  const ring = new KeyRing(database);
  const permits = new Permits(database);
  const counter = new UseCounter(database, settings.countsUses);
  const published = new PublishedForms(database);
  const services = new Services(database, sealing);
  const tiles = new MapTiles(settings.databaseUrl, log);
  const own = settings.heightsFolder ? await readOwnGrids(settings.heightsFolder, say) : [];
  const heights = new Heights(database, own);
  let shown = 0;
  const history = await historyOf(database);
  const shared = storeOf(settings.store, database);
  const store = new SegmentStore(join(settings.home, "segments"), settings.databaseUrl, history, shared, (words) =>
    log.warn({ store: settings.store }, words),
  );
  const index = new LiveIndex(
    database,
    store,
    (read, total) => {
      const tenths = Math.floor((read / Math.max(1, total)) * 10);
      if (tenths > shown) say(`Building the index: ${tenths * 10} % of ${total.toLocaleString("en")} records`);
      shown = Math.max(shown, tenths);
    },
    async (versions) => {
      const prepared = await tiles.prepare(versions);
      return {
        putIn: async () => {
          await Promise.all([prepared.putIn(), heights.load(versions)]);
        },
        amend: prepared.amend,
        letGo: prepared.letGo,
      };
    },
  );
  await Promise.all([ring.refresh(), published.refresh(), services.refresh(), countVersions(database)]);
  const files = new Files(database, join(settings.home, "files"), shared);
  const jobs = new Jobs(
    database,
    settings.databaseUrl,
    {
      load: loader(settings.databaseUrl, database, files),
      publish: publisher(database, store, index),
      batch: batcher(settings.databaseUrl, database, index, services),
    },
    log,
  );

  const metrics = settings.metrics ? new Metrics({ version: VERSION, index, database }) : undefined;
  const drain = new Drain();
  const listener = makeListener({
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
    linkKeys,
    place: settings.place,
    noteSecurity: securityNotes(securityLog),
    jobs,
    files,
    looks: new Looks(),
    log,
    carriesLookups: settings.carriesLookups,
    sessions: new Sessions(database),
    drain,
    webKey: keys.web,
    tryKey: keys.try,
    kitFolder: join(packages, "kit", "dist-web"),
    studioFolder: join(packages, "studio", "dist-web"),
    signedIn: () =>
      void nextLink().then(
        (link) => {
          if (settings.logsTo === "file") say(`Signed in. For another browser, the next one-time link: ${link}`);
        },
        () => undefined,
      ),
  });
  const server = await listen(listener, settings, say);
  const metricsServer = settings.metrics && metrics ? await listen(metrics.listener, settings.metrics, say) : undefined;
  const { origin, path } = settings.place;
  const url = `http://localhost:${(server.address() as AddressInfo).port}${path}`;
  const publicUrl = origin ? `${origin}${path}` : url;
  const signals = new Signals(
    settings.databaseUrl,
    {
      keys: () => ring.refresh(),
      forms: () => published.refresh(),
      services: () => services.refresh(),
      publication: () => index.refresh(),
      corrections: () => index.recorrect(),
      restored: async () => {
        if ((await historyOf(database)) !== history) await stop(ENDS.restored);
      },
    },
    log,
  );

  const throwOldAway = async () => {
    try {
      await files.sweep();
      const gone = await sweepOld(database, files);
      if (Object.values(gone).some(Boolean)) log.info({ gone }, "what was kept long enough is thrown away");
    } catch (error) {
      log.warn({ error: String(error) }, "what is old could not be thrown away now");
    }
  };
  const noteUses = () => Promise.allSettled([ring.noteUses(), counter.write()]);
  const timers = [
    setInterval(() => void noteUses(), NOTE_EVERY),
    setInterval(() => void permits.tend().catch(() => undefined), TEND_EVERY),
    setInterval(() => void throwOldAway(), SWEEP_EVERY),
  ];

  let isStopping = false;
  let askedToStop = 0;
  const stopOnce = () => {
    // one press of Ctrl-C may reach us twice, by the terminal and by npm start; one more a while later cuts all short
    if (askedToStop && Date.now() - askedToStop > SAME_PRESS) process.exit(130);
    if (!askedToStop) void stop(ENDS.requested);
    askedToStop ||= Date.now();
  };
  for (const signal of ["SIGINT", "SIGTERM"] as const) process.on(signal, stopOnce);
  // what it has done to the memory nobody knows: answers under way end, and a new process begins
  const breakOff = (error: unknown) => {
    log.fatal({ error: error instanceof Error ? error.stack : String(error) }, "an error that nobody expected");
    if (isStopping) return;
    say("An unexpected error occurred; see the log. Finishing open requests");
    setTimeout(() => process.exit(ENDS.broken), END_WITHIN).unref();
    stop(ENDS.broken).catch(() => process.exit(ENDS.broken));
  };
  process.on("uncaughtException", breakOff);
  process.on("unhandledRejection", breakOff);
  // npm start is our parent; when it is gone, so are we
  process.once("disconnect", stopOnce);
  await index.refresh();
  await Promise.all([signals.start(), jobs.start(), throwOldAway()]);
  const link = await nextLink();
  // a log is read by more people than may sign in
  if (settings.logsTo === "stdout") say(`Bibliotope is ready at ${publicUrl}. ${readyFile} has a sign-in link`);
  else
    console.log(
      `\n  Bibliotope is ready at ${publicUrl}\n\n  Sign in with this link, which works once:\n  ${link}\n\n  Press Ctrl-C to stop.\n`,
    );

  /** Makes a new sign-in link and notes it, with all that another program needs, where only this user may read it. */
  async function nextLink(): Promise<string> {
    const signIn = `${publicUrl}/sign-in?token=${await makeSignInToken(database, user)}`;
    // put in place as a whole: whoever reads it meanwhile finds the old one or the new one
    const next = `${readyFile}.next`;
    await rm(next, { force: true });
    await writeFile(
      next,
      JSON.stringify({ url, signIn, keys, databaseUrl: settings.databaseUrl, pid: process.pid }, null, 2),
      { mode: 0o600 },
    );
    await rename(next, readyFile);
    return signIn;
  }

  async function stop(code: number): Promise<void> {
    if (isStopping) return;
    isStopping = true;
    if (code === ENDS.restored) say("The database was restored from a backup. Reloading everything");
    await rm(readyFile, { force: true });
    const cut = await drain.end(server);
    if (cut) log.warn({ cut }, "answers under way were cut: they took too long");
    metricsServer?.close();
    metricsServer?.closeAllConnections();
    await Promise.all([signals.stop(), jobs.stop()]);
    for (const timer of timers) clearInterval(timer);
    // of keys that the database now may not have, or has for others
    if (code !== ENDS.restored) await Promise.allSettled([noteUses(), permits.stop()]);
    await Promise.all([tiles.stop(), services.close()]);
    await database.destroy().catch(() => undefined);
    process.exit(code);
  }
}
