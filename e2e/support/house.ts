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

/** What the server wrote when it was ready. */
export function ready(): Ready {
  return JSON.parse(readFileSync(join(testHome(), "server", "ready.json"), "utf8"));
}

export const baseUrl = () => ready().url;

/** Cookies of a signed-in browser. */
export const stateFile = () => join(testHome(), "signed-in.json");
