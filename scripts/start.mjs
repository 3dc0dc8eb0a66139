import { rmSync } from "node:fs";
import { join } from "node:path";
import { holderOf, tryLock } from "./lib/lock.mjs";
import { home, makeFolder } from "./lib/places.mjs";
import { command, say, Trouble } from "./lib/say.mjs";
import { startServer } from "./lib/server.mjs";
import { prepare } from "./lib/setup.mjs";

await command(async () => {
  console.log("\n  Bibliotope\n");
  makeFolder(home);
  const lock = join(home, "start.lock");
  if (!tryLock(lock) && !tryLock(lock))
    throw new Trouble(
      `Bibliotope is already running from this clone (process ${holderOf(lock)}).\nStop it with Ctrl-C where it runs, or open the link in ${join(home, "ready.json")}.`,
    );
  let stopAsked = false;
  let server;
  const stopSoon = () => {
    if (stopAsked) return;
    stopAsked = true;
    server?.child.kill("SIGTERM");
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, stopSoon);
  // npm's shell is our parent; a signal that ends it does not reach us
  const parent = process.ppid;
  if (process.env.npm_lifecycle_event) setInterval(() => process.ppid !== parent && stopSoon(), 500).unref();
  let database;
  try {
    database = await prepare("start");
    if (stopAsked) return 0;
    server = startServer({ ...database, serverHome: home });
    server.ready.catch(() => undefined);
    const code = await server.ended;
    if (!stopAsked && code !== 0)
      console.error(`\n  The server ended with code ${code}. Its log is ${join(home, "log", "server.log")}.\n`);
    return stopAsked ? 0 : code;
  } finally {
    await server?.stop();
    if (database) say("Stopping the database");
    await database?.stop();
    rmSync(lock, { force: true });
  }
});
process.exit();
