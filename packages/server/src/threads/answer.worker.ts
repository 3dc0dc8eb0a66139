import type { AddressInfo } from "node:net";
import { setTimeout as wait } from "node:timers/promises";
import { workerData } from "node:worker_threads";
import { Answering, type Settings } from "../answering.ts";
import { connect } from "../database/connect.ts";
import { Heights } from "../heights/heights.ts";
import { logBy } from "../http/log.ts";
import { ownPort } from "../jobs/port.ts";
import { listen } from "../listen.ts";
import { LiveIndex } from "../publication/live-index.ts";
import { readSettings } from "../settings.ts";
import { MainThread } from "./main-thread.ts";
import type { AnswerTask } from "./messages.ts";

/**
 * A thread that answers as the main one does, on a port of its own or on the same, over the index that the main one has in
 * memory. It does no jobs, and paints nothing.
 */
const [FIRST_TRIES, FIRST_PAUSE] = [40, 250];
const { number, port, ports, mainPort, keys } = workerData as AnswerTask;
const fromEnvironment = readSettings(process.env);
const settings: Settings = { ...fromEnvironment, place: { ...fromEnvironment.place, port: mainPort } };
const main = new MainThread(ownPort(), (message) => {
  if ("end" in message) void stop(message.end.isKept);
  else
    void answering?.metrics
      ?.values()
      .then((metrics) => main.tell({ metrics, of: message.metrics }))
      .catch(() => undefined);
});
const logOf = (to: "log" | "securityLog") =>
  logBy(settings.logLevel, (line) => main.tell({ line, to })).child({ thread: number });
const logs = { log: logOf("log"), securityLog: logOf("securityLog") };
const database = connect(settings.databaseUrl);
const heights = new Heights();
const index = new LiveIndex(
  database,
  // files are for the main thread alone
  { segmentFor: (versions) => main.segment(versions), nameOf: String, sweep: async () => undefined },
  undefined,
  async () => ({
    putIn: async () => heights.take(await main.heights()),
    amend: () => undefined,
    letGo: async () => undefined,
  }),
);
let answering: Answering | undefined;
let server: Awaited<ReturnType<typeof listen>> | undefined;
let isStopping = false;

const breakOff = (error: unknown) => {
  logs.log.fatal({ error: error instanceof Error ? error.stack : String(error) }, "an error that nobody expected");
  void stop(true, 70);
};
process.on("uncaughtException", breakOff);
process.on("unhandledRejection", breakOff);

try {
  answering = await Answering.make({
    settings,
    logs,
    database,
    index,
    tiles: main,
    heights,
    keys,
    thread: number,
    signedIn: () => main.tell({ signedIn: true }),
  });
  await firstOpened();
  await answering.begin();
  server = await listen(answering.listener, { port, ports, host: settings.host }, (words) => logs.log.info(words));
  main.tell({ ready: { port: (server.address() as AddressInfo).port } });
} catch (error) {
  main.tell({ failed: error instanceof Error ? error.message : String(error) });
  process.exit(70);
}

/** Opens what is published. While others publish, the main thread may have something else by the time it is asked. */
async function firstOpened(): Promise<void> {
  for (let tries = 1; ; tries++)
    try {
      return await index.refresh();
    } catch (error) {
      if (tries === FIRST_TRIES) throw error;
      await wait(FIRST_PAUSE);
    }
}

/** Ends what is under way, then the thread. */
async function stop(isKept: boolean, code = 0): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  const cut = server ? await answering?.drain(server) : 0;
  if (cut) logs.log.warn({ cut }, "answers under way were cut: they took too long");
  await answering?.end(isKept).catch(() => undefined);
  await database.destroy().catch(() => undefined);
  process.exit(code);
}
