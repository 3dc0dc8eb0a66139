import { join } from "node:path";
import { parseArgs } from "node:util";
import { headlessChromium, languageProgram, takenOut } from "./lib/debian.mjs";
import { withLock } from "./lib/lock.mjs";
import { checkNode, installPackages } from "./lib/packages.mjs";
import { bin, home, makeFolder, root } from "./lib/places.mjs";
import { show } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";
import { prepare } from "./lib/setup.mjs";
import { testServers } from "./lib/test-servers.mjs";

/** Tests run beside each other, each worker with a server of its own: the machine is taken to have two cores. */
const WORKERS = 2;
/** What leaves out the tests that are marked as long: they are slow by nature, and run by `npm run test:long`. */
const QUICK = { vitest: ["--tags-filter", "!long"], browser: ["--grep-invert", "@long"] };

/** Versions of Node beyond the floor that unit and server tests also run on: npm brings them. */
const NEWER_NODES = ["22", "24"];

const CHECKS = [
  ["types of the tests", "tsc", ["-p", "tsconfig.tests.json", "--checkers", "1"]],
  ["format and lint", "biome", ["check", "--error-on-warnings", "."]],
  ["import rules", "depcruise", ["--config", ".dependency-cruiser.cjs", "packages"]],
  ["what nobody uses", "knip", ["--no-progress"]],
];

const run = (program, args, env = {}) => show(bin(program), args, { cwd: root, env: { ...process.env, ...env } });
/** Runs one after another until one fails. @returns the exit code of the last that ran */
async function inTurn(...steps) {
  for (const step of steps) {
    const code = await step();
    if (code) return code;
  }
  return 0;
}

const [part = "all", ...rest] = process.argv.slice(2);
const PARTS = { all, unit, page, server, browser, long, faults };
if (!Object.hasOwn(PARTS, part))
  throw new Error(`a part of the tests is ${Object.keys(PARTS).join(", ")}; not ${part}`);
await command(() => PARTS[part](rest));
process.exit();

/** All checks, and all tests but those that are slow by nature. */
async function all(args) {
  const began = Date.now();
  const code = await withServers({ fresh: true }, (env, during) =>
    inTurn(
      () => run("vitest", ["run", ...QUICK.vitest, ...args], env),
      () => during,
      () => run("playwright", ["test", "--config", "e2e/playwright.config.ts", ...QUICK.browser], env),
    ),
  );
  say(`npm test took ${Math.round((Date.now() - began) / 1000)} s`);
  return code;
}

/**
 * Tests that need neither a build nor a database nor a browser nor a world of addresses: those that are quick, or all of the
 * files that are named, with those of worlds.
 */
async function unit(args) {
  checkNode();
  await installPackages();
  const watches = args.includes("--watch");
  const files = args.filter((arg) => arg !== "--watch");
  const which = files.length ? ["--project", "world", ...files] : QUICK.vitest;
  return run("vitest", [watches ? "watch" : "run", "--project", "unit", ...which]);
}

/** Tests of single pieces in a page: they need a browser, and neither a build nor a server. */
async function page(files) {
  checkNode();
  await installPackages();
  await headlessChromium();
  return run("vitest", ["run", "--project", "page", ...files]);
}

/** Server tests, all of them or those whose files are named. */
function server(files) {
  return withServers({ checks: false }, (env) => run("vitest", ["run", "--project", "server", ...files], env));
}

/** Browser tests, all of them or those whose files are named. */
function browser(files) {
  return withServers({ checks: false }, (env) =>
    run("playwright", ["test", "--config", "e2e/playwright.config.ts", ...files], env),
  );
}

/** Everything, each at its full size. */
function long() {
  return withServers({ checks: false }, async (env) => {
    for (const program of ["javac", "go", "kotlinc"]) await languageProgram(program);
    const most = { ...env, BIBLIOTOPE_LONG: "1" };
    return inTurn(
      () => show(process.execPath, [join(root, "scripts/check-deploy.mjs")], { cwd: root }),
      () => show(process.execPath, [join(root, "scripts/docs.mjs"), "--check"], { cwd: root }),
      // every law, with more examples and new ones
      () => run("vitest", ["run"], most),
      () => run("playwright", ["test", "--config", "e2e/playwright.config.ts"], most),
      ...NEWER_NODES.map((version) => () => withNode(version, env)),
    );
  });
}

/** The quick unit and server tests on another version of Node: whatever they start runs on it too. */
async function withNode(version, env) {
  const folder = makeFolder(join(home, `node-${version}`));
  const install = ["install", "--prefix", folder, "--no-audit", "--no-fund", "--no-save", `node@${version}`];
  const code = await show("npm", install, { cwd: folder });
  if (code) return code;
  const path = `${join(folder, "node_modules/node/bin")}:${process.env.PATH}`;
  return inTurn(
    () => show("node", ["--version"], { cwd: root, env: { ...process.env, PATH: path } }),
    () =>
      run("vitest", ["run", "--project", "unit", "--project", "world", "--project", "server", ...QUICK.vitest], {
        ...env,
        PATH: path,
      }),
  );
}

/** Ten minutes, or as many as are named, of faults of every kind under load; `--seed` says which. */
function faults(args) {
  const { values, positionals } = parseArgs({ args, options: { seed: { type: "string" } }, allowPositionals: true });
  return withServers({ checks: false, keepsDatabaseUp: true }, (env) =>
    run("vitest", ["run", "--project", "server", "faults.server"], {
      ...env,
      BIBLIOTOPE_FAULTS: positionals[0] ?? "10",
      ...(values.seed ? { BIBLIOTOPE_SEED: values.seed } : {}),
    }),
  );
}

/**
 * Runs a body with servers for the tests.
 * @param how.keepsDatabaseUp whether a database that ends by itself is started again
 * @param how.checks whether types and rules are checked, beside the loading of the demo data
 * @param body is given what tests are told by their environment, and the exit code of the checks
 */
function withServers({ fresh = false, checks = true, keepsDatabaseUp = false }, body) {
  makeFolder(home);
  return withLock(join(home, "test.lock"), "Another npm test is running in this clone; waiting for it", async () => {
    const database = await prepare("test", headlessChromium);
    if (keepsDatabaseUp) database.watch(say);
    // the lookups that are handed out for a shell and in Python are run
    for (const program of ["curl", "python3"]) await languageProgram(program);
    // what stands before a server that people reach over TLS
    const debian = makeFolder(join(home, "debian"));
    const proxy = {
      BIBLIOTOPE_TEST_NGINX: await takenOut("nginx", debian),
      BIBLIOTOPE_TEST_OPENSSL: await takenOut("openssl", debian),
    };
    let servers;
    const stop = async () => {
      await servers?.stop();
      await database.stop();
    };
    for (const signal of ["SIGINT", "SIGTERM"]) process.once(signal, () => void stop().then(() => process.exit(130)));
    const checking = checks ? check() : Promise.resolve(0);
    try {
      servers = await testServers(database, { fresh, count: WORKERS });
      return await body({ ...servers.env, ...proxy, BIBLIOTOPE_TEST_CLUSTER: database.data }, checking);
    } finally {
      await checking;
      await stop();
    }
  });
}

function check() {
  return inTurn(
    ...CHECKS.map(([what, program, args]) => () => {
      say(`Checking ${what}`);
      return run(program, args);
    }),
  );
}
