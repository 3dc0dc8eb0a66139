import { join } from "node:path";
import { home, makeFolder } from "./places.mjs";
import { say } from "./say.mjs";
import { startServer } from "./server.mjs";
import { prepare } from "./setup.mjs";
import { startStandIns } from "./stand-ins.mjs";

/**
 * Runs a body with a database and a server of their own, and a Chromium installed; stops both afterwards.
 * @param chromium installs it
 * @param body is given the folder of the purpose, with the server's ready.json in `server-1/`, and the database's URL
 */
export async function withServer(purpose, port, chromium, body) {
  const database = await prepare(purpose, chromium);
  const folder = makeFolder(join(home, purpose));
  const standIns = await startStandIns();
  const serverHome = makeFolder(join(folder, "server-1"));
  const server = startServer({ ...database, serverHome, port, quiet: true, env: standIns.env });
  try {
    say("Starting a server");
    await server.ready;
    return await body(folder, database.url);
  } finally {
    await server.stop();
    await standIns.stop();
    await database.stop();
  }
}
