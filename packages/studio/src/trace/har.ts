import type { TraceEvent } from "@bibliotope/kit";

/** Milliseconds of `performance.now()` as a moment. */
export type MomentOf = (at: number) => Date;

/**
 * What was asked and answered as an HTTP archive (HAR 1.2). Keys of the service are never in it.
 * @param origin where the service is
 */
export function harOf(events: readonly TraceEvent[], origin: string, momentOf: MomentOf): object {
  const entries = events.flatMap((event) => {
    if (event.row !== "requests") return [];
    const end = events.find((other) => (other.row === "answered" || other.row === "dropped") && other.id === event.id);
    const { path = "/", ...words } = event.asked;
    const queryString = Object.entries(words).map(([name, value]) => ({ name, value }));
    const query = new URLSearchParams(words);
    const answered = end?.row === "answered" ? end : undefined;
    const text = answered?.status ? JSON.stringify(answered.answer ?? null) : "";
    const took = Math.max(0, (end?.at ?? event.at) - event.at);
    return [
      {
        startedDateTime: momentOf(event.at).toISOString(),
        time: took,
        request: {
          method: "GET",
          url: `${origin}${path}${queryString.length ? `?${query}` : ""}`,
          httpVersion: "HTTP/1.1",
          cookies: [],
          headers: [],
          queryString,
          headersSize: -1,
          bodySize: 0,
        },
        response: {
          // what was dropped or never came has no status
          status: answered?.status ?? 0,
          statusText: "",
          httpVersion: "HTTP/1.1",
          cookies: [],
          headers: [],
          content: { size: text.length, mimeType: "application/json", ...(text ? { text } : {}) },
          redirectURL: "",
          headersSize: -1,
          bodySize: -1,
        },
        cache: {},
        timings: { send: 0, wait: took, receive: 0 },
        ...(answered ? {} : { comment: end ? "dropped as stale" : "not answered yet" }),
      },
    ];
  });
  return { log: { version: "1.2", creator: { name: "Bibliotope", version: "1" }, entries } };
}
