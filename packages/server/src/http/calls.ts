import { CALLS, type Call, type CallName } from "@bibliotope/wire";
import { HttpProblem } from "./problem.ts";

/** A call, and what stands in its path in place of the names. */
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
  const names = Array.from(call.path.matchAll(/\{(\w+)\}/g), ([, part]) => part);
  if (names.length)
    PATTERNS.push({ name, call, names, pattern: new RegExp(`^${call.path.replace(/\{\w+\}/g, "([^/]+)")}/?$`) });
  else for (const path of [call.path, `${call.path}/`]) PLAIN.set(path, { name, call, parts: NONE });
}

/**
 * The call that a path is of, as it is written: capital letters and encoded ones make another path.
 * @throws URIError for parts that cannot be decoded
 */
function callAt(path: string): CallAt | undefined {
  const plain = PLAIN.get(path);
  if (plain) return plain;
  for (const { pattern, names, name, call } of PATTERNS) {
    const found = pattern.exec(path);
    if (!found) continue;
    return { name, call, parts: Object.fromEntries(names.map((part, i) => [part, decodeURIComponent(found[i + 1])])) };
  }
  return undefined;
}

/** The path of a call with the names of its parts in place of what was asked: `/v1/records/{ref}`. */
export function patternOf(path: string): string | undefined {
  if (path === OPENAPI_PATH) return path;
  return PLAIN.get(path)?.call.path ?? PATTERNS.find(({ pattern }) => pattern.test(path))?.call.path;
}

/** The call that a request makes. @throws HttpProblem 404 for a path that is none, 405 for a method that it does not take */
export function callOf(path: string, method: string | undefined): CallAt {
  const found = callAt(path);
  if (!found) throw new HttpProblem("not-found", "The wire has no such path. /v1/openapi.json lists what there is.");
  const { methods } = found.call;
  if (methods.some((one) => one === method || (one === "GET" && method === "HEAD"))) return found;
  throw new HttpProblem("wrong-method", `This path takes ${methods.join(" and ")}.`, undefined, {
    Allow: methods.join(", "),
  });
}
