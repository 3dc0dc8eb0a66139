import { join } from "node:path";
import { build } from "./build.mjs";
import { postgresPrograms } from "./debian.mjs";
import { withLock } from "./lock.mjs";
import { checkNode, installPackages } from "./packages.mjs";
import { databaseHome, home, makeFolder } from "./places.mjs";
import { startCluster } from "./postgres.mjs";

/**
 * All that both commands need before they can do their own: packages, a build, a private database.
 * @param also what else to make ready under the lock
 */
export async function prepare(purpose, also = async () => undefined) {
  checkNode();
  makeFolder(home);
  return withLock(join(home, "setup.lock"), "Another command is setting up; waiting for it", async () => {
    const programs = process.env.DATABASE_URL && purpose === "start" ? undefined : await postgresPrograms();
    await also();
    await installPackages();
    await build();
    if (!programs)
      return {
        folder: makeFolder(join(home, purpose)),
        url: process.env.DATABASE_URL,
        watch: () => undefined,
        stop: async () => undefined,
      };
    const folder = await databaseHome(purpose);
    return { folder, ...(await startCluster(programs, folder)) };
  });
}
