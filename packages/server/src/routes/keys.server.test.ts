import { describe, expect, it } from "vitest";
import { ask, json, shared, signedIn } from "../../testing/shared.ts";

const { keys, url } = shared();
const PATH = "/v1/suggest?q=12+harb";
const from = (key: string, headers: Record<string, string>) => json(PATH, { key, headers });

describe("a request without a key that is known", () => {
  it("is refused with what to do", async () => {
    const { status, headers, body } = await json(PATH, { key: null });
    expect(status).toBe(401);
    expect(headers.get("www-authenticate")).toBe("Bearer");
    expect(body.detail).toContain("Authorization: Bearer");
    expect((await json(PATH, { key: "bt_srv_wrong" })).status).toBe(401);
    expect((await json(`${PATH}&access_token=bt_web_wrong`, { key: null })).status).toBe(401);
  });

  it("still tells a page of another origin why", async () => {
    const { headers } = await json(PATH, { key: null, headers: { origin: "https://members.example" } });
    expect(headers.get("access-control-allow-origin")).toBe("https://members.example");
  });
});

describe("a web key", () => {
  it("works on the origins that it names", async () => {
    expect((await from(keys.web, { origin: "http://localhost:5173" })).status).toBe(200);
    expect((await from(keys.web, { origin: "http://127.0.0.1:9999" })).status).toBe(200);
    expect((await from(keys.web, { origin: url })).status).toBe(200);
  });

  it("says which origin it may not be used from, and what to do", async () => {
    const { status, body } = await from(keys.web, { origin: "https://elsewhere.example" });
    expect(status).toBe(403);
    expect(body.detail).toContain("https://elsewhere.example");
    expect(body.detail).toContain("workbench");
  });

  it.each([
    "http://localhost.evil.example:80",
    "http://localhost:5173.evil.example",
    "https://localhost:5173",
    "null",
    "http://localhost:abc",
  ])("is not fooled by the origin %s", async (origin) => {
    expect((await from(keys.web, { origin })).status).toBe(403);
  });

  it("works without an origin for our own pages only", async () => {
    expect((await from(keys.web, { "sec-fetch-site": "same-origin" })).status).toBe(200);
    expect((await from(keys.web, { "sec-fetch-site": "cross-site" })).status).toBe(403);
    expect((await from(keys.web, {})).status).toBe(403);
  });

  it("may stand in the query, so that a page needs no preflight", async () => {
    const { status } = await json(`${PATH}&access_token=${keys.web}`, {
      key: null,
      headers: { origin: "http://localhost:5173" },
    });
    expect(status).toBe(200);
  });
});

describe("keys that are not for pages", () => {
  it("work from servers and programs", async () => {
    for (const key of [keys.srv, keys.app, keys.try]) expect((await from(key, {})).status).toBe(200);
  });

  it("are refused from a browser, where everybody can read them", async () => {
    for (const key of [keys.srv, keys.app]) {
      const { status, body } = await from(key, { origin: "http://localhost:5173" });
      expect(status).toBe(403);
      expect(body.detail).toContain("Revoke it");
      expect((await from(key, { "sec-fetch-site": "same-origin" })).status).toBe(403);
    }
  });
});

describe("browsers of other origins", () => {
  it("get 204 to a preflight, from any origin", async () => {
    const response = await ask("/v1/suggest", {
      key: null,
      method: "OPTIONS",
      headers: {
        origin: "https://members.example",
        "access-control-request-method": "POST",
        "access-control-request-headers": "content-type",
      },
    });
    expect(response.status).toBe(204);
    expect(response.headers.get("access-control-allow-origin")).toBe("https://members.example");
    expect(response.headers.get("access-control-allow-headers")).toContain("Content-Type");
  });

  it("may read the headers that matter, and embed what they load", async () => {
    const { headers } = await from(keys.web, { origin: "http://localhost:5173" });
    for (const name of ["ETag", "X-Request-Id", "Retry-After", "Server-Timing"])
      expect(headers.get("access-control-expose-headers")).toContain(name);
    expect(headers.get("cross-origin-resource-policy")).toBe("cross-origin");
    expect(headers.get("vary")).toContain("Origin");
  });

  it("may load the kit from anywhere", async () => {
    const response = await ask("/kit/v1/bibliotope.js", { key: null, headers: { origin: "https://members.example" } });
    expect(response.status).toBe(200);
    expect(response.headers.get("access-control-allow-origin")).toBe("https://members.example");
    expect(response.headers.get("content-type")).toContain("javascript");
  });
});

describe("keys made in the workbench", () => {
  it("work at once on the origin that they name, and there only", async () => {
    const browser = await signedIn();
    const made = await browser.send("POST", "/api/keys", {
      kind: "web",
      name: "Members",
      origins: ["https://members.example"],
    });
    expect(made.status).toBe(201);
    const { key, ...summary } = (await made.json()) as { key: string; id: number };
    expect(key).toMatch(/^bt_web_[\w-]{27}$/);
    expect((await from(key, { origin: "https://members.example" })).status).toBe(200);
    expect((await from(key, { origin: "http://localhost:5173" })).status).toBe(403);
    const { keys: listed } = (await (await browser.get("/api/keys")).json()) as { keys: object[] };
    expect(listed).toContainEqual({ ...summary, usedAt: expect.any(String) });
    expect(JSON.stringify(listed)).not.toContain(key);
  });

  it("are refused when they are made wrong", async () => {
    const browser = await signedIn();
    expect((await browser.send("POST", "/api/keys", { kind: "web", name: "x", origins: ["*"] })).status).toBe(400);
    expect((await browser.send("POST", "/api/keys", { kind: "root", name: "x" })).status).toBe(400);
  });
});
