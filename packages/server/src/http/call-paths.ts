import { CALLS, type Call, type CallName } from "@bibliotope/wire";

/** A call, and what is in the path in place of the names. */
export interface CallAt {
  name: CallName;
  call: Call;
  parts: Readonly<Record<string, string>>;
}

export const OPENAPI_PATH = "/v1/openapi.json";

const NONE: Readonly<Record<string, string>> = {};
const PLAIN = new Map<string, CallAt>();
const PATTERNS: { pattern: RegExp; names: string[]; name: CallName; call: Call }[] = [];
for (const [name, call] of Object.entries(CALLS) as [CallName, Call][]) {
  for (const path of [call.path, call.formerly?.path].filter((one) => one !== undefined)) {
    const names = Array.from(path.matchAll(/\{(\w+)\}/g), ([, part]) => part);
    if (names.length)
      PATTERNS.push({ name, call, names, pattern: new RegExp(`^${path.replace(/\{\w+\}/g, "([^/]+)")}/?$`) });
    else for (const plain of [path, `${path}/`]) PLAIN.set(plain, { name, call, parts: NONE });
  }
}

/**
 * The call that a path is of, as it is written: upper-case and encoded characters make another path.
 * @throws URIError for parts that cannot be decoded
 */
export function callAt(path: string): CallAt | undefined {
  const plain = PLAIN.get(path);
  if (plain) return plain;
  for (const { pattern, names, name, call } of PATTERNS) {
    const found = pattern.exec(path);
    if (!found) continue;
    return { name, call, parts: Object.fromEntries(names.map((part, i) => [part, decodeURIComponent(found[i + 1])])) };
  }
  return undefined;
}

/** The calls that look something up, rather than make or hand out what takes long. */
const LOOKUPS = new RegExp(
  `^(?:${Object.values(CALLS)
    .filter(({ tag }) => tag === "Lookups")
    .map(({ path }) => path.replace(/\/\{\w+\}/g, "/[^/?]+"))
    .join("|")})/?(?:\\?|$)`,
);

/** Whether the address of a request is that of a lookup. */
export const isPlainLookup = (url: string) => LOOKUPS.test(url);

/** The path of a call, as it is today, with the names of the parts in place of the values: `/v1/records/{ref}`. */
export function patternOf(path: string): string | undefined {
  if (path === OPENAPI_PATH) return path;
  return PLAIN.get(path)?.call.path ?? PATTERNS.find(({ pattern }) => pattern.test(path))?.call.path;
}
