import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { TraceEvent } from "../trace.ts";
import { Client } from "./client.ts";
import { LookupError } from "./errors.ts";

const KEY = "bt_web_test";

/** Answers the next fetch; gives the URL that was asked. */
function answering(
  status: number,
  body: unknown,
  headers: Record<string, string> = { "content-type": "application/json" },
) {
  const queries: string[] = [];
  vi.stubGlobal("fetch", async (url: string) => {
    queries.push(url);
    return new Response(typeof body === "string" ? body : JSON.stringify(body), { status, headers });
  });
  return queries;
}

const client = (more = {}) => new Client({ key: KEY, url: "https://maps.example/", ...more });
const trouble = async (promise: Promise<unknown>) =>
  promise.then(
    () => undefined,
    (error: unknown) => error as LookupError,
  );

afterEach(() => vi.unstubAllGlobals());

describe("what is played", () => {
  it("is played for the calls that are named alone", async () => {
    const urls: string[] = [];
    const client = new Client({
      ...{ key: "bt_try_x", url: "https://here.example", situation: "down", plays: ["service"] },
      fetch: async (url) => {
        urls.push(url);
        return new Response("{}", { status: 200 });
      },
    });
    await client.suggest("a");
    await client.ask("courier", {});
    expect(urls.map((url) => new URL(url).searchParams.get("situation"))).toEqual([null, "down"]);
  });
});

describe("what is requested", () => {
  it("encodes whatever was typed, and carries the key in the query", async () => {
    const queries = answering(200, { suggestions: [] });
    await client().suggest("12 hårb & Søn=1/#?", { countries: "QR", limit: undefined });
    const url = new URL(queries[0]);
    expect(url.origin + url.pathname).toBe("https://maps.example/v1/suggest");
    expect([...url.searchParams]).toEqual([
      ["q", "12 hårb & Søn=1/#?"],
      ["countries", "QR"],
      ["access_token", KEY],
    ]);
  });

  it("carries the key of a server in a header, and in no address", async () => {
    const sent: [string, RequestInit][] = [];
    vi.stubGlobal("fetch", async (url: string, init: RequestInit) => {
      sent.push([url, init]);
      return new Response("{}");
    });
    await new Client({ key: "bt_srv_secret", url: "https://maps.example" }).countries();
    expect(sent[0][0]).toBe("https://maps.example/v1/countries?");
    expect(sent[0][1].headers).toEqual({ Authorization: "Bearer bt_srv_secret" });
  });

  it("writes positions as LAT,LON, and refs as part of the path", async () => {
    const queries = answering(200, {});
    await client().reverse({ lat: -35.2, lon: -21.4 });
    await client().record("../secrets");
    expect(new URL(queries[0]).searchParams.get("at")).toBe("-35.2,-21.4");
    expect(new URL(queries[1]).pathname).toBe("/v1/records/..%2Fsecrets");
  });
});

describe("what goes wrong", () => {
  it.each([
    [401, "refused", false],
    [403, "refused", false],
    [404, "missing", false],
    [400, "malformed", false],
    [429, "limit", true],
    [503, "broken", true],
  ])("status %i is “%s”", async (status, kind, again) => {
    answering(status, { title: "t", detail: "Add that origin to the key.", status, type: "/problems/x" });
    const error = await trouble(client().suggest("x"));
    expect(error).toBeInstanceOf(LookupError);
    expect(error).toMatchObject({ trouble: kind, again });
    expect(error!.problem?.detail).toBe("Add that origin to the key.");
  });

  it("tells the person that the search may not be used here, and the developer why", async () => {
    answering(403, { detail: "The key “Members” may not be used from http://localhost:9." });
    const refused = await trouble(client().suggest("x"));
    expect(refused?.message).toBe("Address search is not allowed on this page.");
    expect(refused?.problem?.detail).toContain("may not be used from http://localhost:9");
  });

  it("takes an answer that is no JSON as broken, not as empty", async () => {
    answering(200, "<html>proxy</html>");
    expect(await trouble(client().suggest("x"))).toMatchObject({ trouble: "broken" });
    answering(502, "<html>bad gateway</html>");
    expect(await trouble(client().suggest("x"))).toMatchObject({ trouble: "broken" });
  });

  it("says off-line when the service cannot be reached", async () => {
    vi.stubGlobal("fetch", async () => {
      throw new TypeError("fetch failed");
    });
    expect(await trouble(client().suggest("x"))).toMatchObject({ trouble: "offline", again: true });
  });

  it("gives up after the time limit, and says so", async () => {
    vi.stubGlobal(
      "fetch",
      (_url: string, { signal }: RequestInit) =>
        new Promise((_, reject) => signal!.addEventListener("abort", () => reject(signal!.reason))),
    );
    expect(await trouble(client({ timeout: 20 }).suggest("x"))).toMatchObject({ trouble: "slow", again: true });
  });

  it("leaves a question that was dropped to the one who dropped it", async () => {
    vi.stubGlobal(
      "fetch",
      (_url: string, { signal }: RequestInit) =>
        new Promise((_, reject) => signal!.addEventListener("abort", () => reject(signal!.reason))),
    );
    const controller = new AbortController();
    const request = trouble(client().suggest("x", {}, controller.signal));
    controller.abort();
    expect(await request).not.toBeInstanceOf(LookupError);
  });
});

describe("the trace", () => {
  it("hears of each question and its answer, without the key", async () => {
    answering(200, { suggestions: [] });
    const heard: TraceEvent[] = [];
    await client({ trace: (event: TraceEvent) => heard.push(event) }).suggest("x");
    expect(heard.map(({ row }) => row)).toEqual(["requests", "answered"]);
    expect(heard[0]).toMatchObject({ call: "suggest", params: { path: "/v1/suggest", q: "x" } });
    expect(JSON.stringify(heard)).not.toContain(KEY);
  });
});

describe("repeating a request", () => {
  const replies = (...list: [status: number, headers?: Record<string, string>][]) => {
    const queries: string[] = [];
    vi.stubGlobal("fetch", async (url: string) => {
      const [status, headers = {}] = list[Math.min(queries.length, list.length - 1)];
      queries.push(url);
      return new Response(JSON.stringify({ features: [queries.length] }), { status, headers });
    });
    return queries;
  };
  const forward = (more = {}) => {
    const answer = client(more).forward({ q: "x" });
    answer.catch(() => undefined);
    return answer;
  };

  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("is done twice after a fault that may pass, each time after a longer pause", async () => {
    const queries = replies([503], [502], [200]);
    const answer = forward();
    await vi.advanceTimersByTimeAsync(150);
    expect(queries).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(170);
    expect(queries).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(700);
    expect(await answer).toEqual({ features: [3] });
  });

  it("is given up after that, and never done for what will not pass, or while one types", async () => {
    const queries = replies([500]);
    const answer = forward();
    await vi.advanceTimersByTimeAsync(5000);
    expect(await trouble(answer)).toMatchObject({ trouble: "broken" });
    expect(queries).toHaveLength(3);
    for (const status of [400, 401, 403, 404]) {
      const once = replies([status]);
      const refused = forward();
      await vi.advanceTimersByTimeAsync(5000);
      expect(await trouble(refused)).toBeInstanceOf(LookupError);
      expect(once, String(status)).toHaveLength(1);
    }
    const typed = replies([500]);
    const suggested = client().suggest("x");
    suggested.catch(() => undefined);
    await vi.advanceTimersByTimeAsync(5000);
    expect(typed).toHaveLength(1);
  });

  it("waits as long as the service says, and does not wait for long", async () => {
    const queries = replies([429, { "retry-after": "1" }], [200]);
    const answer = forward();
    await vi.advanceTimersByTimeAsync(990);
    expect(queries).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(20);
    expect(await answer).toEqual({ features: [2] });
    const busy = replies([429, { "retry-after": "30" }]);
    const refused = forward();
    await vi.advanceTimersByTimeAsync(10);
    expect(await trouble(refused)).toMatchObject({ trouble: "limit", after: 30_000 });
    expect(busy).toHaveLength(1);
  });

  it("is done as often as one wants, and stops when nobody waits", async () => {
    const queries = replies([500]);
    const answer = forward({ retries: 0 });
    await vi.advanceTimersByTimeAsync(3000);
    await trouble(answer);
    expect(queries).toHaveLength(1);
    const controller = new AbortController();
    const given = replies([500]);
    const stopped = client().forward({ q: "x" }, controller.signal);
    stopped.catch(() => undefined);
    await vi.advanceTimersByTimeAsync(50);
    controller.abort();
    await vi.advanceTimersByTimeAsync(5000);
    expect(given).toHaveLength(1);
  });

  it("is not needed for the same question within half a minute, unless an answer is played", async () => {
    const queries = replies([200]);
    const one = client();
    await one.forward({ q: "x" });
    await one.forward({ q: "x" });
    await one.forward({ q: "y" });
    expect(queries).toHaveLength(2);
    await vi.advanceTimersByTimeAsync(31_000);
    await one.forward({ q: "x" });
    expect(queries).toHaveLength(3);
    const played = client({ situation: "none" });
    await played.forward({ q: "x" });
    await played.forward({ q: "x" });
    expect(queries).toHaveLength(5);
  });
});
