import { join } from "node:path";
import { makeLog } from "./http/log.ts";
import { type PublicPlace, readPublicPlace } from "./http/public-place.ts";
import { type Settings, start } from "./start.ts";

// what this server writes is for its owner alone: uploads, logs, the index
process.umask(0o077);

const settings: Settings = {
  databaseUrl: required("DATABASE_URL"),
  keysFile: required("BIBLIOTOPE_KEYS"),
  home: required("BIBLIOTOPE_HOME"),
  heightsFolder: process.env.BIBLIOTOPE_HEIGHTS,
  secretsKey: process.env.BIBLIOTOPE_SECRETS_KEY,
  standIns: process.env.BIBLIOTOPE_STAND_INS,
  countsUses: process.env.BIBLIOTOPE_USES !== "off",
  carriesLookups: process.env.BIBLIOTOPE_CARRIER !== "express",
  port: portOf(process.env.PORT ?? "4870"),
  host: process.env.HOST ?? "127.0.0.1",
  place: placeOf(process.env.PUBLIC_URL, process.env.TRUST_PROXY),
};
const logFile = join(settings.home, "log", "server.log");
const log = makeLog(logFile);
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

function required(name: string): string {
  return process.env[name] ?? fail(`${name} is not set. Start the server with npm start, which sets it.`);
}

function placeOf(url: string | undefined, trust: string | undefined): PublicPlace {
  try {
    return readPublicPlace(url, trust);
  } catch (error) {
    return fail((error as Error).message);
  }
}

function portOf(text: string): number {
  const port = Number(text);
  return Number.isInteger(port) && port > 0 && port < 65_436
    ? port
    : fail(`PORT=${text} is no port. Give a number from 1 to 65435.`);
}

function fail(words: string): never {
  console.error(`\n  ${words}\n`);
  process.exit(2);
}
