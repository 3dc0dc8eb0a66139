import type { Knex } from "knex";
import { onceMore } from "../once-more.ts";
import { noteUses, readKeys, type StoredKey } from "./keys.repository.ts";
import { hashOf } from "./secrets.ts";

/** All keys in memory, so that no lookup waits for the database; updated by `signals.ts`. */
export class KeyRing {
  #keys = new Map<string, StoredKey>();
  /** Uses that are not noted yet, by the key's id. */
  #uses = new Map<number, Date>();

  constructor(private readonly database: Knex) {}

  /** Reads them anew; an older reading never takes the place of a newer one. */
  readonly refresh = onceMore(async () => {
    this.#keys = await readKeys(this.database);
  });

  find(key: string): StoredKey | undefined {
    return this.#keys.get(hashOf(key));
  }

  /** A key by number, as long as it was not withdrawn. */
  byId(id: number): StoredKey | undefined {
    for (const key of this.#keys.values()) if (key.id === id) return key;
    return undefined;
  }

  /** Remembers that a key is used; written down later, so that no lookup waits for it. */
  used({ id }: StoredKey): void {
    this.#uses.set(id, new Date());
  }

  /**
   * Writes down when keys were used last; what cannot be written is tried again the next time. Ends after a write that was
   * under way, too: what that writes can be read then.
   */
  readonly noteUses = onceMore(async () => {
    const uses = this.#uses;
    if (!uses.size) return;
    this.#uses = new Map();
    try {
      await noteUses(this.database, uses);
    } catch (error) {
      this.#uses = new Map([...uses, ...this.#uses]);
      throw error;
    }
  });
}

/**
 * True when a page of that origin may use the key. `http://localhost:*` allows every port, `https://*.members.example`
 * every sub-domain, but not the domain itself.
 */
export function allowsOrigin({ origins }: Pick<StoredKey, "origins">, origin: string): boolean {
  return origins.some((allowed) => {
    const [wanted, given] = allowed.endsWith(":*") ? [allowed.slice(0, -2), withoutPort(origin)] : [allowed, origin];
    const [scheme, domain] = wanted.split("://*");
    if (domain === undefined) return wanted === given;
    const host = given.startsWith(`${scheme}://`) ? given.slice(scheme.length + 3) : "";
    return host.length > domain.length && host.endsWith(domain) && /^[\w.-]+(:\d+)?$/.test(host);
  });
}

function withoutPort(origin: string): string {
  return origin.replace(/:\d+$/, "");
}
