import type { OwnRequest } from "./own-calls.ts";
import { OWN_PATHS, type OwnCallName, type OwnPath } from "./own-paths.ts";

/** Method, path and what is sent of a request, as `fetch` takes them. @param from path of what serves the workbench's calls */
export function ownRequest<N extends OwnCallName>(
  name: N,
  request: OwnRequest<N>,
  from = "/api",
): { url: string; method: OwnPath["method"]; body?: object } {
  const { method, path, takes }: OwnPath = OWN_PATHS[name];
  const { parts = {}, asks = {} } = request as { parts?: Record<string, string | number>; asks?: object };
  const url = `${from}${path.replace(/\{(\w+)\}/g, (_, part: string) => encodeURIComponent(parts[part]))}`;
  if (method !== "GET" && !takes) return { url, method, body: asks };
  const query = Object.entries(asks)
    .filter(([, value]) => value !== undefined)
    .map(([word, value]) => `${word}=${encodeURIComponent(String(value))}`);
  return { url: query.length ? `${url}?${query.join("&")}` : url, method };
}
