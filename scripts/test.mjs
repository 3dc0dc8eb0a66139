import { createRequire } from "node:module";
import { join } from "node:path";
import { chromiumProgram } from "./lib/debian.mjs";
import { withLock } from "./lib/lock.mjs";
import { home, makeFolder, root } from "./lib/places.mjs";
import { show } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";
import { startServer } from "./lib/server.mjs";
import { prepare } from "./lib/setup.mjs";

/** Begins anew: what an earlier run left behind must not decide a test. */
async function emptyDatabase(url) {
  const { Client } = createRequire(join(root, "packages/server/package.json"))("pg");
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query("drop schema public cascade; create schema public");
  await client.end();
}

const bin = (name) => join(root, "node_modules", ".bin", name);

await command(async () => {
  makeFolder(home);
  return withLock(join(home, "test.lock"), "Another npm test is running in this clone; waiting for it", async () => {
    const database = await prepare("test", chromiumProgram);
    let server;
    const stop = async () => {
      await server?.stop();
      await database.stop();
    };
    for (const signal of ["SIGINT", "SIGTERM"]) process.once(signal, () => void stop().then(() => process.exit(130)));
    try {
      const checks = [
        ["types of the tests", "tsc", ["-p", "tsconfig.tests.json"]],
        ["format and lint", "biome", ["check", "."]],
        ["import rules", "depcruise", ["--config", ".dependency-cruiser.cjs", "packages"]],
      ];
      for (const [what, program, args] of checks) {
        say(`Checking ${what}`);
        const code = await show(bin(program), args, { cwd: root });
        if (code !== 0) return code;
      }
      say("Starting a server for the tests, on an empty database");
      await emptyDatabase(database.url);
      server = startServer({
        ...database,
        serverHome: makeFolder(join(home, "test", "server")),
        port: 4970,
        quiet: true,
      });
      await server.ready;
      const env = {
        ...process.env,
        BIBLIOTOPE_TEST_HOME: join(home, "test"),
        BIBLIOTOPE_TEST_DATABASE: database.url,
        BIBLIOTOPE_TEST_CLUSTER: database.data,
      };
      const unit = await show(bin("vitest"), ["run"], { cwd: root, env });
      if (unit !== 0) return unit;
      return await show(bin("playwright"), ["test", "--config", "e2e/playwright.config.ts"], { cwd: root, env });
    } finally {
      await stop();
    }
  });
});
process.exit();
