import { readFile, rename, writeFile } from "node:fs/promises";
import { KEY_KINDS, type KeyKind } from "@bibliotope/wire";
import type { Knex } from "knex";
import { makeKey, readKeys } from "./keys.repository.ts";
import { hashOf } from "./secrets.ts";

const UNLIMITED = { calls: [], countries: [], endsAt: null, perMinute: null, perDay: null };

export type DemoKeys = Record<KeyKind, string>;

/** Pages on this machine may use the demo's web key, whatever port their own server took. */
const LOOPBACK = ["http://localhost:*", "http://127.0.0.1:*"];
/** Where each kind of key may be used, where it names that. */
const ORIGINS: Partial<Record<KeyKind, string[]>> = { web: LOOPBACK, view: ["app://localhost"] };
const NAMES: DemoKeys = {
  web: "Demo, pages on this machine",
  view: "Demo, web views",
  srv: "Demo, servers",
  app: "Demo, programs",
  try: "Demo, tests",
};

/**
 * The demo's own keys. The database holds only their hashes; the keys stand in a file that only its owner may read, so
 * that a later start can print them. Keys that the file lost, or the database does not know, are made anew.
 */
export async function demoKeys(database: Knex, file: string): Promise<DemoKeys> {
  const loaded = await readFile(file, "utf8")
    .then(JSON.parse, () => ({}))
    .catch(() => ({}));
  const known = await readKeys(database);
  const keys = {} as DemoKeys;
  for (const kind of KEY_KINDS) {
    const key = loaded[kind];
    keys[kind] =
      typeof key === "string" && known.has(hashOf(key))
        ? key
        : (await makeKey(database, { kind, name: NAMES[kind], origins: ORIGINS[kind] ?? [], ...UNLIMITED })).key;
  }
  if (JSON.stringify(keys) !== JSON.stringify(loaded)) {
    await writeFile(`${file}.part`, JSON.stringify(keys, null, 2), { mode: 0o600 });
    await rename(`${file}.part`, file);
  }
  return keys;
}
