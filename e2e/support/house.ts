import { readFileSync } from "node:fs";
import { join } from "node:path";

/** Where the tests keep what belongs to them. */
export function testHome(): string {
  const home = process.env.BIBLIOTOPE_TEST_HOME;
  if (!home) throw new Error("BIBLIOTOPE_TEST_HOME is not set: the browser tests run by npm test");
  return home;
}

interface Ready {
  url: string;
  signIn: string;
  keys: Record<"web" | "srv" | "app" | "try", string>;
}

/** Servers that were started, one for each worker. */
export const serverCount = () => Number(process.env.BIBLIOTOPE_TEST_SERVERS ?? 1);

/** The number of this worker's server, from 1. */
const ownNumber = () => (Number(process.env.TEST_PARALLEL_INDEX ?? 0) % serverCount()) + 1;

/** The folder of a server. */
const serverHome = (number = ownNumber()) => join(testHome(), `server-${number}`);

/** What a server wrote when it was ready. */
export function ready(number?: number): Ready {
  return JSON.parse(readFileSync(join(serverHome(number), "ready.json"), "utf8"));
}

export const baseUrl = () => ready().url;

/** Cookies of a browser that is signed in at a server. */
export const stateFile = (number = ownNumber()) => join(testHome(), `signed-in-${number}.json`);
