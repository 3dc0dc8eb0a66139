import type { Knex } from "knex";
import { type HeldKey, readKeys } from "./keys.repository.ts";
import { hashOf } from "./secrets.ts";

/** All keys in memory, so that no lookup waits for the database; told of changes by `signals.ts`. */
export class KeyRing {
  #keys = new Map<string, HeldKey>();

  constructor(private readonly database: Knex) {}

  async refresh(): Promise<void> {
    this.#keys = await readKeys(this.database);
  }

  find(key: string): HeldKey | undefined {
    return this.#keys.get(hashOf(key));
  }
}

/** True when a page of that origin may use the key. `http://localhost:*` allows every port. */
export function allowsOrigin({ origins }: Pick<HeldKey, "origins">, origin: string): boolean {
  return origins.some(
    (allowed) => allowed === origin || (allowed.endsWith(":*") && withoutPort(origin) === allowed.slice(0, -2)),
  );
}

function withoutPort(origin: string): string {
  return origin.replace(/:\d+$/, "");
}
