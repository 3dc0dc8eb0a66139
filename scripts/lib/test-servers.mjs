import { createHash } from "node:crypto";
import { cpSync, existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join } from "node:path";
import { addFolder } from "./build.mjs";
import { home, makeFolder, root } from "./places.mjs";
import { say } from "./say.mjs";
import { startServer } from "./server.mjs";
import { startStandIns } from "./stand-ins.mjs";

/** The database that others are copied from, with the demo data in it, and the folder of its index. */
const SEEDED = "seeded";
/** What decides what is in it. */
const SOURCES = [
  "packages/islands/src",
  "packages/core/src/index",
  "packages/server/src/database",
  "packages/server/src/gazetteer",
  "packages/server/src/forms",
];
/** The first port that is tried for a server of the tests. */
const PORT = 4970;
const tests = join(home, "test");

/**
 * Servers for tests, each on a database of its own that is copied from one with the demo data: nothing that an earlier
 * run left behind decides a test, and nobody waits for the demo data twice.
 *
 * @param database the private cluster
 * @param how.fresh whether the demo data is loaded anew; else only when what it is made of has changed
 * @param how.count how many servers: one for each worker
 * @returns what tests are told by their environment, and a function that stops all
 */
export async function testServers(database, { fresh, count, env = {} }) {
  const admin = await connect(database.url);
  await seed(database, admin, fresh);
  const standIns = await startStandIns();
  const servers = [];
  const stop = async () => {
    await Promise.all(servers.map((server) => server.stop()));
    await Promise.all([standIns.stop(), admin.end()]);
  };
  try {
    for (let number = 1; number <= count; number++)
      servers.push(await startOne(database, admin, number, { ...standIns.env, ...env }));
    await Promise.all(servers.map(({ ready }) => ready));
  } catch (error) {
    await stop();
    throw error;
  }
  return {
    env: {
      BIBLIOTOPE_TEST_HOME: tests,
      BIBLIOTOPE_TEST_DATABASE: database.url,
      BIBLIOTOPE_TEST_SEEDED: SEEDED,
      BIBLIOTOPE_TEST_SERVERS: String(count),
    },
    stop,
  };
}

async function startOne(database, admin, number, env) {
  const name = `test_${number}`;
  await admin.query(`drop database if exists ${name} with (force)`);
  await admin.query(`create database ${name} template ${SEEDED}`);
  const serverHome = join(tests, `server-${number}`);
  rmSync(serverHome, { recursive: true, force: true });
  cpSync(join(tests, SEEDED), makeFolder(serverHome), { recursive: true });
  return startServer({
    url: urlOf(database, name),
    folder: serverHome,
    serverHome,
    port: PORT + 10 * number,
    quiet: true,
    env,
  });
}

/** Loads the demo data, and keeps what it came to. */
async function seed(database, admin, fresh) {
  const mark = join(tests, "seeded.digest");
  const digest = digestOfSources();
  const { rows } = await admin.query("select from pg_database where datname = $1", [SEEDED]);
  if (!fresh && rows.length && existsSync(mark) && readFileSync(mark, "utf8") === digest) return;
  say("Loading the demo data for the tests");
  rmSync(mark, { force: true });
  await admin.query(`drop database if exists ${SEEDED} with (force)`);
  await admin.query(`create database ${SEEDED}`);
  const folder = join(tests, SEEDED);
  rmSync(folder, { recursive: true, force: true });
  const server = startServer({
    url: urlOf(database, SEEDED),
    folder: makeFolder(folder),
    serverHome: folder,
    port: PORT,
    quiet: true,
  });
  try {
    await server.ready;
  } finally {
    await server.stop();
  }
  rmSync(join(folder, "log"), { recursive: true, force: true });
  writeFileSync(mark, digest);
}

function digestOfSources() {
  const hash = createHash("sha256");
  for (const folder of SOURCES) addFolder(hash, folder);
  return hash.digest("hex");
}

const urlOf = ({ url }, name) => url.replace(/\/[^/]+$/, `/${name}`);

async function connect(url) {
  const { Client } = createRequire(join(root, "packages/server/package.json"))("pg");
  const client = new Client({ connectionString: url });
  client.on("error", () => undefined);
  await client.connect();
  return client;
}
