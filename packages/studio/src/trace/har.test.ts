import type { TraceEvent } from "@bibliotope/kit";
import { describe, expect, it } from "vitest";
import { harOf } from "./har.ts";

const EVENTS: TraceEvent[] = [
  { row: "keys", at: 0, text: "h", key: "h" },
  { row: "requests", id: 1, at: 10, call: "suggest", params: { path: "/v1/suggest", q: "h & m" } },
  { row: "requests", id: 2, at: 20, call: "suggest", params: { path: "/v1/suggest", q: "ha" } },
  { row: "dropped", id: 1, at: 25 },
  { row: "answered", id: 2, at: 60, status: 200, answer: { outcome: "none", suggestions: [] } },
  { row: "requests", id: 3, at: 70, call: "record", params: { path: "/v1/records/qr-1" } },
  { row: "answered", id: 3, at: 75, status: 0, answer: "TypeError: failed" },
  { row: "requests", id: 4, at: 80, call: "record", params: { path: "/v1/records/qr-2" } },
];
interface Har {
  log: { version: string; comment: string; entries: Entry[]; _unanswered: Entry[] };
}
interface Entry {
  startedDateTime: string;
  time: number;
  comment?: string;
  request: { url: string; queryString: object[] };
  response: { status: number; content: { text: string; size: number } };
}

describe("harOf", () => {
  const { log } = harOf(EVENTS, "https://here.example", (at) => new Date(1_000_000 + at)) as Har;

  it("has an entry for each answer, in order, with times, and what has none beside them", () => {
    expect(log.version).toBe("1.2");
    expect(log.entries.map(({ time, response }) => [time, response.status])).toEqual([[40, 200]]);
    expect(log._unanswered.map(({ time, comment }) => [time, comment])).toEqual([
      [15, "dropped as stale"],
      [5, "no response"],
      [0, "no response yet"],
    ]);
    expect(log._unanswered[0].startedDateTime).toBe("1970-01-01T00:16:40.010Z");
  });

  it("has in front what a page asks as it opens", () => {
    const opened = harOf(EVENTS, "https://here.example", (at) => new Date(at), { "/v1/countries": { countries: [] } });
    const [first, ...others] = (opened as Har).log.entries;
    expect(first.request.url).toBe("https://here.example/v1/countries?access_token=bt_web_replay");
    expect(first.response.content.text).toBe('{"countries":[]}');
    expect(others).toHaveLength(1);
  });

  it("has what a service was called with as the body of a POST", () => {
    const queries: TraceEvent[] = [
      { row: "requests", id: 9, at: 1, call: "service", params: { path: "/v1/services/courier", town: "A & B" } },
      { row: "answered", id: 9, at: 2, status: 200, answer: { outcome: "none" } },
    ];
    const [{ request }] = (harOf(queries, "https://here.example", (at) => new Date(at)) as Har).log.entries;
    expect(request).toMatchObject({
      method: "POST",
      url: "https://here.example/v1/services/courier?access_token=bt_web_replay",
      postData: { mimeType: "application/json", text: '{"town":"A & B"}' },
    });
  });

  it("writes URLs as a page with the key of replays asks them, and answers whole", () => {
    const [query, , record] = log._unanswered.map(({ request }) => request);
    expect(query.url).toBe("https://here.example/v1/suggest?q=h+%26+m&access_token=bt_web_replay");
    expect(query.queryString).toEqual([
      { name: "q", value: "h & m" },
      { name: "access_token", value: "bt_web_replay" },
    ]);
    expect(record.url).toBe("https://here.example/v1/records/qr-2?access_token=bt_web_replay");
    expect(JSON.parse(log.entries[0].response.content.text)).toEqual({ outcome: "none", suggestions: [] });
    expect(log.comment).toContain("bt_web_replay");
  });
});
