import { rm, writeFile } from "node:fs/promises";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeApp } from "./app.ts";
import { connect, migrate } from "./database/connect.ts";
import { PublishedForms } from "./forms/published-forms.ts";
import { seedForms } from "./forms/seed-forms.ts";
import { seedIslands } from "./gazetteer/seed-islands.ts";
import { makeLog } from "./http/log.ts";
import { demoKeys } from "./keys/demo-keys.ts";
import { KeyRing } from "./keys/key-ring.ts";
import { LiveIndex } from "./publication/live-index.ts";
import { SegmentStore } from "./publication/segment-store.ts";
import { SheetTiles } from "./sheets/sheet-tiles.ts";
import { Signals } from "./signals.ts";
import { Sessions } from "./users/sessions.ts";
import { firstUser, makeSignInToken } from "./users/users.repository.ts";

const settings = {
  databaseUrl: required("DATABASE_URL"),
  /** Where the demo's keys stand, beside the database. */
  keysFile: required("BIBLIOTOPE_KEYS"),
  /** Segments, logs and ready.json. */
  home: required("BIBLIOTOPE_HOME"),
  port: Number(process.env.PORT ?? 4870),
  host: process.env.HOST ?? "127.0.0.1",
};
const packages = fileURLToPath(new URL("../..", import.meta.url));
const readyFile = join(settings.home, "ready.json");
const VERSION = "0.1.0";

const say = (words: string) => console.log(`  ${words}`);
const log = makeLog(join(settings.home, "log", "server.log"));
const database = connect(settings.databaseUrl);

await rm(readyFile, { force: true });
say("Bringing the database's tables up to date");
await migrate(database);
await seedIslands(database, say);
await seedForms(database);
const keys = await demoKeys(database, settings.keysFile);
const user = await firstUser(database);

const ring = new KeyRing(database);
const published = new PublishedForms(database);
const tiles = new SheetTiles(settings.databaseUrl);
let shown = 0;
const index = new LiveIndex(
  database,
  new SegmentStore(join(settings.home, "segments"), settings.databaseUrl),
  (read, total) => {
    const tenths = Math.floor((read / Math.max(1, total)) * 10);
    if (tenths > shown) say(`Building the index: ${tenths * 10} % of ${total.toLocaleString("en")} records`);
    shown = Math.max(shown, tenths);
  },
  (versions) => tiles.load(versions),
);
await Promise.all([ring.refresh(), published.refresh()]);

const app = makeApp({
  version: VERSION,
  database,
  index,
  tiles,
  ring,
  published,
  log,
  sessions: new Sessions(database),
  webKey: keys.web,
  kitFolder: join(packages, "kit", "dist-web"),
  studioFolder: join(packages, "studio", "dist-web"),
  signedIn: () =>
    void nextLink().then(
      (link) => say(`Signed in. For another browser, the next one-time link: ${link}`),
      () => undefined,
    ),
});
const server = await listen(settings.port);
const url = `http://localhost:${(server.address() as AddressInfo).port}`;
const signals = new Signals(
  settings.databaseUrl,
  { keys: () => ring.refresh(), forms: () => published.refresh(), publication: () => index.refresh() },
  log,
);

for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => void stop());
// npm start is our parent; when it is gone, so are we
process.once("disconnect", () => void stop());
await index.refresh();
await signals.start();
const link = await nextLink();
console.log(
  `\n  Bibliotope is ready at ${url}\n\n  Sign in with this link, which works once:\n  ${link}\n\n  Press Ctrl-C to stop.\n`,
);

/** Makes a new sign-in link and notes it, with all that another program needs, where only this user may read it. */
async function nextLink(): Promise<string> {
  const signIn = `${url}/sign-in?token=${await makeSignInToken(database, user)}`;
  await writeFile(readyFile, JSON.stringify({ url, signIn, keys, pid: process.pid }, null, 2), { mode: 0o600 });
  return signIn;
}

/** Listens on a port, or on the next free one. */
async function listen(wanted: number): Promise<Server> {
  for (let port = wanted; port < wanted + 100; port++) {
    const server = createServer(app);
    const error = await new Promise<NodeJS.ErrnoException | undefined>((resolve) => {
      server.once("error", resolve);
      server.listen(port, settings.host, () => resolve(undefined));
    });
    if (!error) return server;
    if (error.code !== "EADDRINUSE")
      throw new Error(`cannot listen on ${settings.host}:${port}: ${error.message}. Set PORT to another one.`);
    say(`Port ${port} is taken, trying ${port + 1}`);
  }
  throw new Error(`ports ${wanted} to ${wanted + 99} are all taken. Set PORT to a free one.`);
}

async function stop(): Promise<void> {
  await rm(readyFile, { force: true });
  server.close();
  server.closeAllConnections();
  await signals.stop();
  await tiles.stop();
  await database.destroy().catch(() => undefined);
  process.exit(0);
}

function required(name: string): string {
  const value = process.env[name];
  if (value) return value;
  console.error(`  ${name} is not set. Start the server with npm start, which sets it.`);
  process.exit(2);
}
