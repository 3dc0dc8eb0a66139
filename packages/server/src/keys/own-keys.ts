import { readFile, rename, writeFile } from "node:fs/promises";
import { KEY_KINDS, type KeyKind } from "@bibliotope/wire";
import type { Knex } from "knex";
import { makeKey, readKeys } from "./keys.repository.ts";
import { hashOf } from "./secrets.ts";

const UNLIMITED = { calls: [], countries: [], endsAt: null, perMinute: null, perDay: null };

/** Keys that this server makes for itself; the workbench's pages need two of them. */
export type OwnKeys = Record<"web" | "try", string> & Partial<Record<KeyKind, string>>;

/** Kinds of the keys that the workbench itself uses. */
const OF_WORKBENCH: readonly KeyKind[] = ["web", "try"];

/** Pages on this machine may use the demo's web key, whatever port their own server took. */
const LOOPBACK = ["http://localhost:*", "http://127.0.0.1:*"];
/** Where each kind of key may be used, where it names that. */
const ORIGINS: Partial<Record<KeyKind, string[]>> = { web: LOOPBACK, view: ["app://localhost"] };
const NAMES: Record<KeyKind, string> = {
  web: "Demo, pages on this machine",
  view: "Demo, web views",
  srv: "Demo, servers",
  app: "Demo, programs",
  try: "Demo, tests",
};

/**
 * The demo's own keys, or without the demo those of the workbench alone. The database holds only their hashes; the keys stand in a file that only its owner may read, so
 * that a later start can print them. Keys that the file lost, or the database does not know, are made anew.
 */
export async function ownKeys(database: Knex, file: string, isDemo = true): Promise<OwnKeys> {
  const loaded = await readFile(file, "utf8")
    .then(JSON.parse, () => ({}))
    .catch(() => ({}));
  const known = await readKeys(database);
  const keys = {} as OwnKeys;
  for (const kind of isDemo ? KEY_KINDS : OF_WORKBENCH) {
    const key = loaded[kind];
    keys[kind] =
      typeof key === "string" && known.has(hashOf(key))
        ? key
        : (
            await makeKey(database, {
              kind,
              name: isDemo ? NAMES[kind] : `Workbench, ${kind === "web" ? "pages" : "tests"}`,
              origins: (isDemo && ORIGINS[kind]) || [],
              ...UNLIMITED,
            })
          ).key;
  }
  if (JSON.stringify(keys) !== JSON.stringify(loaded)) {
    await writeFile(`${file}.part`, JSON.stringify(keys, null, 2), { mode: 0o600 });
    await rename(`${file}.part`, file);
  }
  return keys;
}
