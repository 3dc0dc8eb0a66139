import { problemSchema } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { ask, json, shared } from "../../testing/shared.ts";

/** Reads a problem and checks that it is a whole one. */
async function problem(path: string, init?: Parameters<typeof ask>[1]) {
  const response = await ask(path, init);
  expect(response.headers.get("content-type")).toContain("application/problem+json");
  const body = problemSchema.parse(await response.json());
  expect(body.status).toBe(response.status);
  expect(body.detail.length).toBeGreaterThan(10);
  return body;
}
const post = (path: string, body: string, type = "application/json") =>
  problem(path, { method: "POST", headers: { "content-type": type }, body });

describe("text of all sorts is only ever text", () => {
  it.each([
    "'; DROP TABLE addresses; --",
    "<img src=x onerror=alert(1)>",
    "\u0001\u0007\u001b[2J",
    "שלום עולם",
    "\u202e12 harb\u202c",
    "😀😀😀",
    "a",
    "%",
    "../../etc/passwd",
    "{{7*7}}",
    "x".repeat(500),
  ])("%j", async (q) => {
    const { status, body } = await json(`/v1/suggest?q=${encodeURIComponent(q)}`);
    expect(status).toBe(200);
    expect(body.q).toBe(q.normalize("NFC"));
    const forward = await json(`/v1/forward?q=${encodeURIComponent(q)}`);
    expect(forward.status).toBe(200);
  });

  it("is refused where it is none: half of a surrogate pair, NUL", async () => {
    for (const body of ['{"q":"a\\ud800b"}', '{"q":"a\\u0000"}'])
      expect((await post("/v1/suggest", body)).issues).toMatchObject([
        { parameter: "q", message: "contains an invalid character" },
      ]);
    expect((await problem("/v1/suggest?q=a%00")).status).toBe(400);
  });

  it("reads overlong UTF-8 and half a percent sign as text", async () => {
    for (const q of ["%ED%A0%80", "%C0%AF", "%", "%zz"]) expect((await json(`/v1/suggest?q=${q}`)).status).toBe(200);
  });
});

describe("what cannot be read is named, with a value that works", () => {
  it.each([
    ["/v1/suggest", "q", "is missing"],
    [`/v1/suggest?q=${"x".repeat(10_000)}`, "q", "at most 500 characters"],
    ["/v1/suggest?q=x&limit=NaN", "limit", "is not a number"],
    ["/v1/suggest?q=x&near=NaN,NaN", "near", "is not a number"],
    ["/v1/suggest?q=x&countries=Atlantis", "countries", "two letters"],
    ["/v1/suggest?q=x&kinds=castle", "kinds", "invalid option"],
    ["/v1/suggest?q=x&q=y", "q", "given twice"],
    ["/v1/suggest?q=x&country=QR", "country", "is not a parameter of this call"],
    ["/v1/forward", "q", "give q, or at least one part"],
    ["/v1/reverse?at=95,-21", "at", "were latitude and longitude swapped?"],
    ["/v1/reverse?at=-21,195", "at", "a longitude lies between -180 and 180"],
    ["/v1/reverse?at=-35.2,-21.6&height=400", "height", "is not true or false"],
    ["/v1/reverse?at=here", "at", "is not a position: latitude,longitude"],
    ["/v1/reverse?at=1,2&radius=-5", "radius", "too small"],
  ])("%s", async (path, parameter, message) => {
    const { status, issues, detail } = await problem(path);
    expect(status).toBe(400);
    expect(issues![0].parameter).toBe(parameter);
    expect(issues![0].message).toContain(message);
    expect(detail).toContain(parameter);
    if (issues![0].example) {
      const needed =
        path.startsWith("/v1/reverse") && parameter !== "at"
          ? "&at=1,2"
          : path.startsWith("/v1/suggest") && parameter !== "q"
            ? "&q=x"
            : "";
      expect((await ask(`${path.split("?")[0]}?${issues![0].example}${needed}`)).status).toBe(200);
    }
  });

  it("a body that is not JSON, not an object, of another type, or too large", async () => {
    expect(await post("/v1/suggest", "{q:")).toMatchObject({ status: 400, type: "/problems/malformed" });
    expect(await post("/v1/suggest", '"12 harb"')).toMatchObject({ status: 400 });
    expect(await post("/v1/suggest", "[1]")).toMatchObject({ status: 400 });
    expect(await post("/v1/suggest", "null")).toMatchObject({ status: 400 });
    expect(await post("/v1/suggest", "q=12", "application/x-www-form-urlencoded")).toMatchObject({ status: 415 });
    expect(await post("/v1/suggest", "<q/>", "text/xml")).toMatchObject({ status: 415 });
    expect(await post("/v1/suggest", JSON.stringify({ q: "x".repeat(200_000) }))).toMatchObject({ status: 413 });
  });

  it("a body with names that mean something to JavaScript changes nothing", async () => {
    const { status, issues } = await post("/v1/suggest", '{"q":"x","__proto__":{"limit":1},"constructor":1}');
    expect(status).toBe(400);
    expect(issues!.map(({ parameter }) => parameter)).toContain("constructor");
    expect((await json("/v1/suggest?q=harbour")).body.suggestions).toHaveLength(7);
  });
});

describe("paths and methods", () => {
  it("that are not there", async () => {
    expect(await problem("/v1/nowhere")).toMatchObject({ status: 404 });
    expect(await problem("/v1/countries/Atlantis")).toMatchObject({ status: 404 });
    expect((await problem("/v1/countries/QM")).detail).toContain("only for QR, QV, QY");
    expect(await problem("/v1/forms/no-such-form")).toMatchObject({ status: 404 });
    expect(await problem("/nowhere", { key: null })).toMatchObject({ status: 404 });
    expect(await problem("/kit/v1/../../package.json", { key: null })).toMatchObject({ status: 404 });
    expect(await problem("/kit/v1/..%2f..%2fpackage.json", { key: null })).toMatchObject({ status: 404 });
    expect(await problem("/v1/records/%E0%A4%A", {})).toMatchObject({ status: 400 });
  });

  it("that do not go together", async () => {
    const response = await ask("/v1/suggest?q=x", { method: "DELETE" });
    expect(response.status).toBe(405);
    expect(response.headers.get("allow")).toBe("GET, POST");
    expect(await problem("/v1/countries", { method: "POST" })).toMatchObject({ status: 405 });
    expect(await problem("/v1/records/qr-000000", { method: "PUT" })).toMatchObject({ status: 405 });
  });

  it("of tiles that do not exist", async () => {
    for (const tile of ["21/0/0", "3/8/0", "3/0/-1", "a/b/c", "1.5/0/0", "99999999/0/0"]) {
      expect((await ask(`/v1/tiles/features/${tile}`)).status, tile).toBe(404);
    }
  });

  it("leave everything as it was", async () => {
    expect((await json("/v1/suggest?q=12+harb")).body.suggestions[0].line).toBe("12 Harbour Row, Tidewell");
    expect((await fetch(`${shared().url}/healthz`)).status).toBe(200);
  });
});

describe("every problem", () => {
  it("has a page that says what to do", async () => {
    const { type } = await problem("/v1/suggest");
    const page = await ask(type, { key: null });
    expect(page.status).toBe(200);
    expect(await page.text()).toContain("Invalid request");
    expect((await ask("/problems/constructor", { key: null })).status).toBe(404);
  });
});
