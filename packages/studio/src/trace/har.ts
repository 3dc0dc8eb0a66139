import type { TraceEvent } from "@bibliotope/kit";

/** Milliseconds of `performance.now()` as a moment. */
export type MomentOf = (at: number) => Date;

/** In place of a page's key: a page that is given this one asks exactly what the archive answers. */
export const REPLAY_KEY = "bt_web_replay";
const HEADERS = Object.entries({ "content-type": "application/json", "access-control-allow-origin": "*" }).map(
  ([name, value]) => ({ name, value }),
);

/**
 * Requests and responses as an HTTP archive (HAR 1.2) that can be replayed. Keys of the service are never in it. What was
 * dropped or never came has no answer to replay; it is apart from the entries.
 * @param origin where the service is
 * @param opening what a page asks as it opens, before anything happens: answers by their paths
 */
export function harOf(
  happened: readonly TraceEvent[],
  origin: string,
  momentOf: MomentOf,
  opening: Readonly<Record<string, unknown>> = {},
): object {
  const at = happened[0]?.at ?? 0;
  const opened = Object.entries(opening).flatMap(([path, answer], i): TraceEvent[] => [
    { row: "requests", id: -1 - i, at, call: "opening", params: { path } },
    { row: "answered", id: -1 - i, at, status: 200, answer },
  ]);
  const events = [...opened, ...happened];
  const entries: object[] = [];
  const unanswered: object[] = [];
  for (const event of events) {
    if (event.row !== "requests") continue;
    const end = events.find((other) => (other.row === "answered" || other.row === "dropped") && other.id === event.id);
    const { path = "/", ...words } = event.params;
    // what a service is called with is the body of a POST
    const isPost = event.call === "service";
    const query = new URLSearchParams({ ...(isPost ? {} : words), access_token: REPLAY_KEY });
    const body = JSON.stringify(words);
    const took = Math.max(0, (end?.at ?? event.at) - event.at);
    const entry = {
      startedDateTime: momentOf(event.at).toISOString(),
      time: took,
      request: {
        method: isPost ? "POST" : "GET",
        url: `${origin}${path}?${query}`,
        httpVersion: "HTTP/1.1",
        cookies: [],
        headers: [],
        queryString: Array.from(query, ([name, value]) => ({ name, value })),
        ...(isPost ? { postData: { mimeType: "application/json", text: body } } : {}),
        headersSize: -1,
        bodySize: isPost ? new TextEncoder().encode(body).length : 0,
      },
      cache: {},
      timings: { send: 0, wait: took, receive: 0 },
    };
    if (end?.row !== "answered" || !end.status) {
      const why = end?.row === "dropped" ? "dropped as stale" : end ? "no response" : "no response yet";
      unanswered.push({ ...entry, comment: why });
      continue;
    }
    const text = JSON.stringify(end.answer ?? null);
    const response = {
      status: end.status,
      statusText: "",
      httpVersion: "HTTP/1.1",
      cookies: [],
      headers: HEADERS,
      content: { size: new TextEncoder().encode(text).length, mimeType: "application/json", text },
      redirectURL: "",
      headersSize: -1,
      bodySize: -1,
    };
    entries.push({ ...entry, response });
  }
  return {
    log: {
      version: "1.2",
      creator: { name: "Bibliotope", version: "1" },
      comment: `This file contains no key. To replay it, use the key ${REPLAY_KEY}.`,
      entries,
      _unanswered: unanswered,
    },
  };
}
