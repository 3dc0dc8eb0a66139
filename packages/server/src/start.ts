import { rename, rm, writeFile } from "node:fs/promises";
import type { AddressInfo } from "node:net";
import { dirname, join } from "node:path";
import { Answering, type Logs, type Settings, storeOf } from "./answering.ts";
import { batcher } from "./batches/batcher.ts";
import { connect, migrate, untilThere } from "./database/connect.ts";
import { historyOf } from "./database/history.ts";
import { seedForms } from "./forms/seed-forms.ts";
import { countVersions } from "./gazetteer/data-sets.repository.ts";
import { seedIslands } from "./gazetteer/seed-islands.ts";
import { Heights } from "./heights/heights.ts";
import { readOwnGrids } from "./heights/own-grids.ts";
import { lineWriter } from "./http/log.ts";
import { loader } from "./import/loader.ts";
import { ownKeys } from "./keys/own-keys.ts";
import { canShareAPort, listen } from "./listen.ts";
import { LiveIndex } from "./publication/live-index.ts";
import { publisher } from "./publication/publish.ts";
import { SegmentStore } from "./publication/segment-store.ts";
import { sweepOld } from "./retention/retention.ts";
import { keepKit } from "./routes/kept-kits.ts";
import { readSealing } from "./services/sealing.ts";
import { seedServices } from "./services/seed-services.ts";
import { Threads } from "./threads/threads.ts";
import { MapTiles } from "./tiles/map-tiles.ts";
import { firstUser, makeSignInToken } from "./users/users.repository.ts";

/** Milliseconds from one throwing away of what is old to the next. */
const SWEEP_EVERY = 3_600_000;
/** What the process ends with: it was asked to, an unexpected error, or `npm start` is to begin it anew at once. */
const ENDS = { requested: 0, broken: 70, restored: 75 };
/** Milliseconds that an end after such an error may take. */
const END_WITHIN = 25_000;
/** Milliseconds within which two signals to stop are taken for one. */
const SAME_PRESS = 1000;

/** Brings everything up, in the order in which it is needed, then reports that it is ready. */
export async function start(settings: Settings, logs: Logs, say: (words: string) => void): Promise<void> {
  const { log } = logs;
  const isOnePort = settings.threads > 1 && canShareAPort;
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
  await seedServices(database, settings.standIns, sealing);

  const tiles = new MapTiles(settings.databaseUrl, log);
  const own = settings.heightsFolder ? await readOwnGrids(settings.heightsFolder, say) : [];
  const heights = new Heights(own);
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
          await Promise.all([prepared.putIn(), heights.load(database, versions)]);
        },
        amend: prepared.amend,
        letGo: prepared.letGo,
      };
    },
  );
  await countVersions(database);
  await keepKit(settings.home);
  let threads: Threads | undefined;
  const answering = await Answering.make({
    settings,
    logs,
    database,
    index,
    tiles,
    heights,
    keys,
    thread: 1,
    runners: ({ files, services }) => ({
      load: loader(settings.databaseUrl, database, files),
      publish: publisher(database, store, index),
      batch: batcher(settings.databaseUrl, database, index, services),
    }),
    signedIn,
    restored: async () => {
      if ((await historyOf(database)) !== history) await stop(ENDS.restored);
    },
  });
  const { files, metrics } = answering;
  const server = await listen(answering.listener, { ...settings, isShared: isOnePort }, say);
  const metricsServer = settings.metrics && metrics ? await listen(metrics.listener, settings.metrics, say) : undefined;
  const { origin, path } = settings.place;
  const { port } = server.address() as AddressInfo;
  const url = `http://localhost:${port}${path}`;
  const publicUrl = origin ? `${origin}${path}` : url;
  const throwOldAway = async () => {
    try {
      await files.sweep();
      const gone = await sweepOld(database, files);
      if (Object.values(gone).some(Boolean)) log.info({ gone }, "what was kept long enough is thrown away");
    } catch (error) {
      log.warn({ error: String(error) }, "what is old could not be thrown away now");
    }
  };
  const sweeping = setInterval(() => void throwOldAway(), SWEEP_EVERY);

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
  await Promise.all([answering.begin(), throwOldAway()]);
  await startThreads();
  const link = await nextLink();
  // a log is read by more people than may sign in
  if (settings.logsTo === "stdout") say(`Bibliotope is ready at ${publicUrl}. ${readyFile} has a sign-in link`);
  else
    console.log(
      `\n  Bibliotope is ready at ${publicUrl}\n\n  Sign in with this link, which works once:\n  ${link}\n\n  Press Ctrl-C to stop.\n`,
    );

  /** Starts the threads that answer beside this one, once the index is there that they share. */
  async function startThreads(): Promise<void> {
    if (settings.threads === 1) return;
    threads = new Threads({
      index,
      tiles,
      heights,
      write: { log: lineWriter(logs.log), securityLog: lineWriter(logs.securityLog) },
      warn: (details, words) => logs.log.warn(details, words),
      signedIn,
    });
    if (metrics) metrics.others = threads;
    let last = port;
    for (let number = 2; number <= settings.threads; number++) {
      say(`Starting thread ${number} of ${settings.threads}`);
      const where = isOnePort ? { port, ports: 0 } : { port: last + 1, ports: settings.ports };
      last = await threads.start({ number, ...where, mainPort: port, keys });
    }
    say(isOnePort ? `All threads answer on port ${port}` : `Answering on ports ${[port, ...threads.ports].join(", ")}`);
  }

  function signedIn(): void {
    void nextLink().then(
      (link) => {
        if (settings.logsTo === "file") say(`Signed in. For another browser, the next one-time link: ${link}`);
      },
      () => undefined,
    );
  }

  /** Makes a new sign-in link and notes it, with all that another program needs, where only this user may read it. */
  async function nextLink(): Promise<string> {
    const ports = [port, ...(threads?.ports ?? [])];
    const signIn = `${publicUrl}/sign-in?token=${await makeSignInToken(database, user)}`;
    // put in place in one step: whoever reads it meanwhile finds the old one or the new one
    const next = `${readyFile}.next`;
    await rm(next, { force: true });
    await writeFile(
      next,
      JSON.stringify({ url, signIn, keys, databaseUrl: settings.databaseUrl, pid: process.pid, ports }, null, 2),
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
    const isKept = code !== ENDS.restored;
    const [cut] = await Promise.all([answering.drain(server), threads?.end(isKept)]);
    if (cut) log.warn({ cut }, "answers under way were cut: they took too long");
    metricsServer?.close();
    metricsServer?.closeAllConnections();
    clearInterval(sweeping);
    await answering.end(isKept);
    await tiles.stop();
    await database.destroy().catch(() => undefined);
    process.exit(code);
  }
}
