import type { TraceEvent } from "@bibliotope/kit";
import { describe, expect, it } from "vitest";
import { harOf } from "./har.ts";

const EVENTS: TraceEvent[] = [
  { row: "keys", at: 0, text: "h", key: "h" },
  { row: "requests", id: 1, at: 10, call: "suggest", asked: { path: "/v1/suggest", q: "h & m" } },
  { row: "requests", id: 2, at: 20, call: "suggest", asked: { path: "/v1/suggest", q: "ha" } },
  { row: "dropped", id: 1, at: 25 },
  { row: "answered", id: 2, at: 60, status: 200, answer: { outcome: "none", suggestions: [] } },
  { row: "requests", id: 3, at: 70, call: "record", asked: { path: "/v1/records/qr-1" } },
  { row: "answered", id: 3, at: 75, status: 0, answer: "TypeError: failed" },
  { row: "requests", id: 4, at: 80, call: "record", asked: { path: "/v1/records/qr-2" } },
];
interface Har {
  log: { version: string; entries: Entry[] };
}
interface Entry {
  startedDateTime: string;
  time: number;
  comment?: string;
  request: { url: string; queryString: object[] };
  response: { status: number; content: { text?: string; size: number } };
}

describe("harOf", () => {
  const { log } = harOf(EVENTS, "https://here.example", (at) => new Date(1_000_000 + at)) as Har;

  it("has an entry for each request, in order, with times", () => {
    expect(log.version).toBe("1.2");
    expect(log.entries.map(({ time, response, comment }) => [time, response.status, comment])).toEqual([
      [15, 0, "dropped as stale"],
      [40, 200, undefined],
      [5, 0, undefined],
      [0, 0, "not answered yet"],
    ]);
    expect(log.entries[0].startedDateTime).toBe("1970-01-01T00:16:40.010Z");
  });

  it("writes URLs as they were asked, and answers whole", () => {
    expect(log.entries[0].request.url).toBe("https://here.example/v1/suggest?q=h+%26+m");
    expect(log.entries[0].request.queryString).toEqual([{ name: "q", value: "h & m" }]);
    expect(log.entries[3].request.url).toBe("https://here.example/v1/records/qr-2");
    expect(JSON.parse(log.entries[1].response.content.text!)).toEqual({ outcome: "none", suggestions: [] });
    expect(log.entries[2].response.content).toEqual({ size: 0, mimeType: "application/json" });
    expect(JSON.stringify(log)).not.toContain("access_token");
  });
});
