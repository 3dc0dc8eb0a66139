import { join } from "node:path";
import { makeLog } from "./http/log.ts";
import { readSettings, SettingsError } from "./settings.ts";
import { type Settings, start } from "./start.ts";

// what this server writes is for the owner alone: uploads, logs, the index
process.umask(0o077);

const settings = settingsOrEnd();
const logFile = join(settings.home, "log", "server.log");
const log = makeLog(logFile, { level: settings.logLevel });
let step = "Starting";
const say = (words: string) => {
  step = words;
  console.log(`  ${words}`);
};

try {
  await start(settings, log, say);
} catch (error) {
  log.fatal({ error: error instanceof Error ? error.stack : String(error) }, step);
  fail(`This failed: ${step}.\n  ${error instanceof Error ? error.message : error}\n  ${logFile} has more.`);
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
