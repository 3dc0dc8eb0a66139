import { rmSync } from "node:fs";
import { join } from "node:path";
import { keepUp } from "./lib/keep-up.mjs";
import { holderOf, tryLock } from "./lib/lock.mjs";
import { home, makeFolder } from "./lib/places.mjs";
import { command, say, Trouble } from "./lib/say.mjs";
import { startServer } from "./lib/server.mjs";
import { prepare } from "./lib/setup.mjs";
import { startStandIns } from "./lib/stand-ins.mjs";

await command(async () => {
  console.log("\n  Bibliotope\n");
  makeFolder(home);
  const lock = join(home, "start.lock");
  if (!tryLock(lock) && !tryLock(lock))
    throw new Trouble(
      `Bibliotope is already running from this clone (process ${holderOf(lock)}).\nStop it with Ctrl-C where it runs, or open the link in ${join(home, "ready.json")}.`,
    );
  const stopping = new AbortController();
  let server;
  // each one is passed on: the server cuts answers under way short when it is told a second time
  const stopSoon = () => {
    stopping.abort();
    server?.child.kill("SIGTERM");
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, stopSoon);
  // npm's shell is our parent; a signal that ends it does not reach us
  const parent = process.ppid;
  if (process.env.npm_lifecycle_event)
    setInterval(() => process.ppid !== parent && !stopping.signal.aborted && stopSoon(), 500).unref();
  let database;
  let standIns;
  let port;
  try {
    database = await prepare("start");
    database.watch(say);
    standIns = await startStandIns();
    const code = await keepUp({
      stop: stopping.signal,
      say,
      start: async () => {
        server = startServer({ ...database, serverHome: home, port, env: standIns.env });
        // started again it answers where it answered before
        server.ready.then(
          ({ url }) => {
            port = Number(new URL(url).port);
          },
          () => undefined,
        );
        return server;
      },
    });
    if (code !== 0)
      console.error(`\n  The server ended with code ${code}. Its log is ${join(home, "log", "server.log")}.\n`);
    return code;
  } finally {
    await server?.stop();
    await standIns?.stop();
    if (database) say("Stopping the database");
    await database?.stop();
    rmSync(lock, { force: true });
  }
});
process.exit();
