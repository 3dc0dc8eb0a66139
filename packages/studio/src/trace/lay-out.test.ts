import type { TraceEvent } from "@bibliotope/kit";
import { describe, expect, it } from "vitest";
import { trace, traceReducer } from "../state/trace.slice.ts";
import { layOut, summary } from "./lay-out.ts";

const key = (at: number, text: string): TraceEvent => ({ row: "keys", at, text, key: text.at(-1)! });
const send = (at: number, id: number, call = "suggest"): TraceEvent => ({
  row: "requests",
  id,
  at,
  call,
  params: { q: "x" },
});
const answered = (at: number, id: number, status = 200): TraceEvent => ({
  row: "answered",
  id,
  at,
  status,
  answer: { id },
});
const filled = (at: number): TraceEvent => ({
  row: "fields",
  at,
  why: "chosen",
  line: "12 Harbour Row",
  fillings: [
    { field: "town", value: "Tidewell", by: "{town}" },
    { field: "unit", value: "", by: "address-line2" },
  ],
});

const EVENTS: TraceEvent[] = [
  key(1000, "1"),
  send(1020, 1),
  key(1080, "12"),
  { row: "dropped", id: 1, at: 1081 },
  send(1100, 2),
  answered(1110, 2),
  { row: "list", at: 1111, count: 7, text: "12" },
  { row: "keys", at: 1500, text: "line", key: "↵" },
  send(1501, 3, "record"),
  answered(1506, 3),
  filled(1507),
];

describe("layOut", () => {
  it("has a row of their own for services, each by its name, with how it ended", () => {
    const service = (id: number, outcome: string): TraceEvent[] => [
      { row: "requests", id, at: id, call: "service", params: { path: "/v1/services/courier", town: "Tidewell" } },
      { row: "answered", id, at: id + 5, status: 200, answer: { outcome } },
    ];
    const events = [...service(10, "answered"), ...service(20, "slow"), ...service(30, "outside")];
    expect(layOut(events).map(({ row, text, shape }) => [row, text, shape])).toEqual([
      ["services", "courier", "answered"],
      ["services", "courier", "failed"],
      ["services", "courier", "answered"],
    ]);
    expect(summary(events)[0]).toBe("0 keys · 0 requests · 3 services");
  });

  it("puts everything between the beginning and the end, in order", () => {
    const marks = layOut(EVENTS);
    for (const { from, to } of marks) {
      expect(from).toBeGreaterThanOrEqual(0);
      expect(to).toBeLessThanOrEqual(1);
      expect(to).toBeGreaterThanOrEqual(from);
    }
    expect(marks.filter(({ row }) => row === "keys").map(({ text }) => text)).toEqual(["1", "2", "↵"]);
  });

  it("tells answered, dropped, failed and waiting requests apart", () => {
    const shapes = layOut([...EVENTS, send(1600, 4), answered(1610, 4, 403), send(1620, 5)])
      .filter(({ row }) => row === "requests")
      .map(({ shape }) => shape);
    expect(shapes).toEqual(["dropped", "answered", "answered", "failed", "waiting"]);
  });

  it("keeps what was sent and what came back", () => {
    const request = layOut(EVENTS).find(({ shape }) => shape === "answered")!;
    expect(request).toMatchObject({ sent: { q: "x" }, came: { id: 2 }, title: "suggest: 10 ms" });
  });

  it("counts the fields that got a value", () => {
    const field = layOut(EVENTS).find(({ row }) => row === "fields")!;
    const written = [
      { field: "town", value: "Tidewell", by: "{town}" },
      { field: "unit", value: "", by: "address-line2" },
    ];
    expect(field).toMatchObject({ text: "chosen: 1 field", title: "Chosen from the list: 12 Harbour Row", written });
  });

  it("tells a press on the map from a key", () => {
    const place = { lat: -35.2, lon: -21.6 };
    const pressed: TraceEvent = { row: "keys", at: 3, text: "-35.2, -21.6", key: "⌖", place };
    expect(layOut([pressed])[0]).toMatchObject({ text: "map", title: "Clicked on the map at 0 ms" });
    expect(summary([pressed])).toEqual(["0 keys · 0 requests"]);
  });

  it("shows a space as a sign", () => {
    expect(layOut([{ row: "keys", at: 1, text: "1 ", key: " " }])[0].text).toBe("␣");
  });

  it("is empty before anything happened", () => {
    expect(layOut([])).toEqual([]);
  });
});

describe("summary", () => {
  it("counts keys and requests, what was dropped, and the letters until the first list", () => {
    expect(summary(EVENTS)).toEqual([
      "2 keys · 3 requests",
      "1 dropped as stale",
      "first line after 2 letters, 111 ms",
    ]);
    expect(summary([key(1, "a")])).toEqual(["1 key · 0 requests"]);
    expect(summary([])).toEqual([]);
  });
});

describe("the trace in the store", () => {
  const run = (events: TraceEvent[]) =>
    events.reduce((state, event) => traceReducer(state, trace.happened(event)), traceReducer(undefined, trace.wiped()))
      .events;

  it("begins anew with the first key after a filled form", () => {
    expect(run([...EVENTS, key(5000, "x")])).toEqual([key(5000, "x")]);
  });

  it("begins anew with a press on the map", () => {
    expect(run([...EVENTS, send(5000, 9, "reverse")])).toHaveLength(1);
  });

  it("is of a rehearsal until the next key after its end", () => {
    const actions = [
      trace.happened(key(1, "a")),
      trace.began("A reader"),
      ...EVENTS.map((event) => trace.happened(event)),
      trace.happened(key(5000, "x")),
    ];
    const run = actions.reduce(traceReducer, traceReducer(undefined, trace.wiped()));
    expect(run).toMatchObject({ about: "A reader", isRunning: true });
    expect(run.events).toHaveLength(EVENTS.length + 1);
    const after = [trace.ended(), trace.happened(key(6000, "y"))].reduce(traceReducer, run);
    expect(after).toEqual({ about: "", isRunning: false, events: [key(6000, "y")] });
  });

  it("goes on while the person corrects a field", () => {
    const corrected: TraceEvent = {
      row: "fields",
      at: 1600,
      why: "corrected",
      fillings: [{ field: "town", value: "x" }],
    };
    expect(run([...EVENTS, corrected])).toHaveLength(EVENTS.length + 1);
  });

  it("keeps a bounded number of events", () => {
    expect(run(Array.from({ length: 900 }, (_, i) => key(i, "x"))).length).toBeLessThanOrEqual(400);
  });
});
