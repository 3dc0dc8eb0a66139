import { afterEach, describe, expect, it, vi } from "vitest";
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
  const asked: string[] = [];
  vi.stubGlobal("fetch", async (url: string) => {
    asked.push(url);
    return new Response(typeof body === "string" ? body : JSON.stringify(body), { status, headers });
  });
  return asked;
}

const client = (more = {}) => new Client({ key: KEY, url: "https://maps.example/", ...more });
const trouble = async (promise: Promise<unknown>) =>
  promise.then(
    () => undefined,
    (error: unknown) => error as LookupError,
  );

afterEach(() => vi.unstubAllGlobals());

describe("what is asked", () => {
  it("encodes whatever was typed, and carries the key in the query", async () => {
    const asked = answering(200, { suggestions: [] });
    await client().suggest("12 hårb & Søn=1/#?", { countries: "QR", limit: undefined });
    const url = new URL(asked[0]);
    expect(url.origin + url.pathname).toBe("https://maps.example/v1/suggest");
    expect([...url.searchParams]).toEqual([
      ["q", "12 hårb & Søn=1/#?"],
      ["countries", "QR"],
      ["access_token", KEY],
    ]);
  });

  it("writes positions as LAT,LON, and refs as part of the path", async () => {
    const asked = answering(200, {});
    await client().reverse({ lat: -35.2, lon: -21.4 });
    await client().record("../secrets");
    expect(new URL(asked[0]).searchParams.get("at")).toBe("-35.2,-21.4");
    expect(new URL(asked[1]).pathname).toBe("/v1/records/..%2Fsecrets");
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

  it("tells the person why a key is refused", async () => {
    answering(403, { detail: "The key “Members” may not be used from http://localhost:9." });
    expect((await trouble(client().suggest("x")))!.message).toContain("may not be used from http://localhost:9");
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
    const asked = trouble(client().suggest("x", {}, controller.signal));
    controller.abort();
    expect(await asked).not.toBeInstanceOf(LookupError);
  });
});

describe("the trace", () => {
  it("hears of each question and its answer, without the key", async () => {
    answering(200, { suggestions: [] });
    const heard: TraceEvent[] = [];
    await client({ trace: (event: TraceEvent) => heard.push(event) }).suggest("x");
    expect(heard.map(({ row }) => row)).toEqual(["requests", "answered"]);
    expect(heard[0]).toMatchObject({ call: "suggest", asked: { path: "/v1/suggest", q: "x" } });
    expect(JSON.stringify(heard)).not.toContain(KEY);
  });
});
