import { accessSync, constants, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Settings } from "./answering.ts";
import { logToStdout, makeLog } from "./http/log.ts";
import { describeSettings, readSettings, SettingsError } from "./settings.ts";
import { start } from "./start.ts";

// what this server writes is for the owner alone: uploads, logs, the index
process.umask(0o077);

const settings = settingsOrEnd();
makeHome();
if (process.argv.includes("--check")) {
  console.log(describeSettings(process.env));
  process.exit(0);
}
const { logs, where } = makeLogs();
let step = "Starting";
const say = (words: string) => {
  step = words;
  if (settings.logsTo === "stdout") logs.log.info(words);
  else console.log(`  ${words}`);
};

try {
  await start(settings, logs, say);
} catch (error) {
  logs.log.fatal({ error: error instanceof Error ? error.stack : String(error) }, step);
  fail(`This failed: ${step}.\n  ${error instanceof Error ? error.message : error}\n  ${where} has more.`);
}

function makeHome(): void {
  try {
    mkdirSync(settings.home, { recursive: true, mode: 0o700 });
    accessSync(settings.home, constants.W_OK);
  } catch (error) {
    fail(`BIBLIOTOPE_HOME=${settings.home} cannot be written to (${(error as NodeJS.ErrnoException).code}).`);
  }
  if (typeof settings.store === "string" || !("folder" in settings.store)) return;
  const { folder } = settings.store;
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    // root may write anywhere but on what is mounted for reading alone: so it is tried
    rmSync(mkdtempSync(join(folder, ".try-")), { recursive: true });
  } catch (error) {
    fail(`BIBLIOTOPE_STORE=${folder} cannot be written to (${(error as NodeJS.ErrnoException).code}).`);
  }
}

function makeLogs() {
  const { home, logLevel: level, logsTo } = settings;
  if (logsTo === "stdout") {
    const log = logToStdout(level);
    return { logs: { log, securityLog: log.child({ log: "security" }) }, where: "The log" };
  }
  const file = join(home, "log", "server.log");
  const securityLog = makeLog(join(home, "log", "security.log"));
  return { logs: { log: makeLog(file, { level }), securityLog }, where: file };
}

function settingsOrEnd(): Settings {
  try {
    return readSettings(process.env);
  } catch (error) {
    if (error instanceof SettingsError) return fail(error.faults.join("\n  "));
    throw error;
  }
}

function fail(words: string): never {
  console.error(`\n  ${words}\n`);
  process.exit(2);
}
