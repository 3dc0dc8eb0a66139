import { join } from "node:path";
import { home, makeFolder } from "./places.mjs";
import { say } from "./say.mjs";
import { startServer } from "./server.mjs";
import { prepare } from "./setup.mjs";

/**
 * Runs a body with a database and a server of their own, and a Chromium installed; stops both afterwards.
 * @param chromium installs it
 * @param body is given the folder of the purpose, with the server's ready.json in `server-1/`, and the database's URL
 */
export async function withServer(purpose, port, chromium, body) {
  const database = await prepare(purpose, chromium);
  const folder = makeFolder(join(home, purpose));
  const server = startServer({ ...database, serverHome: makeFolder(join(folder, "server-1")), port, quiet: true });
  try {
    say("Starting a server");
    await server.ready;
    return await body(folder, database.url);
  } finally {
    await server.stop();
    await database.stop();
  }
}
