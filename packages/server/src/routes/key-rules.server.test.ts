import { KEY_CALLS, type KeySummary, keyList, type MadeKey, madeKey } from "@bibliotope/wire";
import { beforeAll, describe, expect, it } from "vitest";
import { ask, json, signedIn } from "../../testing/shared.ts";

let browser: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  browser = await signedIn();
});

async function make(rules: object): Promise<MadeKey> {
  const response = await browser.send("POST", "/api/keys", { kind: "srv", name: "Tested", ...rules });
  expect(response.status).toBe(201);
  return madeKey.parse(await response.json());
}

async function listed(id: number): Promise<KeySummary | undefined> {
  const { keys } = keyList.parse(await (await browser.get("/api/keys")).json());
  return keys.find((key) => key.id === id);
}

const hours = (count: number) => new Date(Date.now() + count * 3_600_000).toISOString();

/** Lookups of some kinds. */
const LOOKUPS = {
  suggest: "/v1/suggest?q=12+harb",
  forward: "/v1/forward?q=12+harbour+row+tidewell",
  distance: "/v1/distance?from=-35,-21&to=-36,-22",
} as const;

describe("what a key is kept to", () => {
  it("is a matrix: kind of key, where it is used from, and the origins that it names", async () => {
    const PAGE = { origin: "https://members.example", "sec-fetch-site": "cross-site" };
    const SUB = { origin: "https://eu.members.example", "sec-fetch-site": "cross-site" };
    const NONE = {};
    const one = ["https://members.example"];
    const subs = ["https://*.members.example"];
    for (const [kind, origins, headers, expected] of [
      ["web", one, PAGE, 200],
      ["web", one, SUB, 403],
      ["web", one, NONE, 403],
      ["web", subs, SUB, 200],
      ["web", subs, PAGE, 403],
      ["web", subs, { origin: "https://evil-members.example" }, 403],
      ["web", subs, { origin: "http://eu.members.example" }, 403],
      ["web", subs, { origin: "https://eu.members.example.evil.example" }, 403],
      ["web", subs, { origin: "https://a.b.members.example" }, 200],
      ["web", subs, { origin: "https://.members.example" }, 403],
      ["web", ["https://*.members.example:*"], { origin: "https://eu.members.example:8443" }, 200],
      ["web", [...one, ...subs], SUB, 200],
      ["web", [], PAGE, 403],
      ["web", subs, { origin: "https://evil.example#.members.example" }, 403],
      ["view", ["app://localhost"], { origin: "app://localhost" }, 200],
      ["view", ["app://localhost"], { origin: "app://localhost.evil" }, 403],
      ["view", ["app://localhost"], { origin: "other://localhost" }, 403],
      ["view", ["app://localhost"], { origin: "https://localhost" }, 403],
      ["view", ["app://localhost"], { origin: "null" }, 403],
      ["view", ["app://localhost"], NONE, 403],
      ["view", ["file://"], { origin: "file://" }, 200],
      ["view", one, PAGE, 200],
      ["srv", [], NONE, 200],
      ["srv", [], PAGE, 403],
      ["app", [], NONE, 200],
      ["app", [], PAGE, 403],
      ["try", [], NONE, 200],
      ["try", [], PAGE, 200],
    ] as const) {
      const { key } = await make({ kind, origins });
      const { status } = await json(LOOKUPS.suggest, { key, headers });
      expect(status, `${kind} ${origins} ${JSON.stringify(headers)}`).toBe(expected);
    }
  });

  it("is one matrix: kind of key × where it is used from × kind of lookup × how it stands", async () => {
    const OWN = "https://members.example";
    const FROM = {
      "a server": {},
      "its page": { origin: OWN, "sec-fetch-site": "cross-site" },
      "another page": { origin: "https://elsewhere.example", "sec-fetch-site": "cross-site" },
    };
    const wrong: string[] = [];
    let tried = 0;
    for (const kind of ["web", "srv", "app", "try"] as const)
      for (const state of ["live", "ended", "withdrawn", "at its limit"] as const) {
        const { id, key } = await make({
          kind,
          origins: kind === "web" ? [OWN] : [],
          calls: ["suggest", "distance"],
          ...(state === "ended" ? { endsAt: hours(-1) } : {}),
          ...(state === "at its limit" ? { perMinute: 1 } : {}),
        });
        if (state === "withdrawn") await browser.send("DELETE", `/api/keys/${id}`, {});
        const usual = kind === "web" ? FROM["its page"] : FROM["a server"];
        if (state === "at its limit") await ask(LOOKUPS.distance, { key, headers: usual });
        for (const [from, headers] of Object.entries(FROM))
          for (const call of ["suggest", "distance", "forward"] as const) {
            const isPlaceRight = kind === "try" || (kind === "web" ? from === "its page" : from === "a server");
            const expected =
              state === "ended" || state === "withdrawn"
                ? 401
                : !isPlaceRight || call === "forward"
                  ? 403
                  : state === "at its limit"
                    ? 429
                    : 200;
            const { status, body } = await json(LOOKUPS[call], { key, headers });
            tried++;
            // each refusal says what to do
            const isSaid = status === 200 || (body.detail?.length > 40 && body.status === status);
            if (status !== expected || !isSaid)
              wrong.push(`${kind} from ${from}, ${call}, ${state}: ${status}, not ${expected}`);
          }
      }
    expect(tried).toBe(144);
    expect(wrong).toEqual([]);
  });

  it("is countries: lookups look nowhere else, and requesting others is refused", async () => {
    const { key } = await make({ countries: ["QV"] });
    const codes = async (path: string) => {
      const { status, body } = await json(path, { key });
      expect(status, path).toBe(200);
      const { features } = body as { features: { properties: { parts: { country: { code: string } } } }[] };
      return new Set(features.map(({ properties }) => properties.parts.country.code));
    };
    expect(await codes("/v1/forward?q=Østergränd+3&limit=20")).toEqual(new Set(["QV"]));
    expect((await codes("/v1/forward?q=12+harbour+row+tidewell&limit=20")).has("QR")).toBe(false);
    expect(await codes("/v1/reverse?at=-35.1841,-21.6253&limit=20")).toEqual(new Set());
    const others = await json("/v1/forward?q=x&countries=QV,QR", { key });
    expect(others.status).toBe(403);
    expect(others.body.detail).toContain("allows only QV. Add QR in the workbench");
    expect((await json("/v1/forward?q=Østergränd&countries=qv", { key })).status).toBe(200);
    expect((await json("/v1/postcodes/QR?starts=HT", { key })).status).toBe(403);
    const { body } = await json("/v1/forward?q=12+harbour+row+tidewell&limit=1");
    expect((await json(`/v1/records/${body.features[0].id}`, { key })).status).toBe(403);
  });

  it("is an end: after it the key is refused with its name and what to do", async () => {
    const { key } = await make({ endsAt: hours(-1), name: "Over" });
    const { status, body } = await json(LOOKUPS.suggest, { key });
    expect(status).toBe(401);
    expect(body.detail).toMatch(/^The key “Over” expired on \d{4}-\d\d-\d\d\. Create another one in the workbench/);
    const later = await make({ endsAt: hours(1) });
    expect((await json(LOOKUPS.suggest, { key: later.key })).status).toBe(200);
  });
});

describe("a key that is there", () => {
  it("is changed, and the change counts at once", async () => {
    const { key, id, kind: _, createdAt: __, usedAt: ___, ...rules } = await make({ calls: ["suggest"] });
    expect((await ask(LOOKUPS.forward, { key })).status).toBe(403);
    const to = { ...rules, calls: ["forward"], name: "Other" };
    expect((await browser.send("PUT", `/api/keys/${id}`, to)).status).toBe(200);
    expect((await ask(LOOKUPS.forward, { key })).status).toBe(200);
    expect((await ask(LOOKUPS.suggest, { key })).status).toBe(403);
    expect(await listed(id)).toMatchObject({ name: "Other", calls: ["forward"] });
    expect((await browser.send("PUT", `/api/keys/${id}`, { ...to, kind: "web" })).status).toBe(400);
    expect((await browser.send("PUT", "/api/keys/0", to)).status).toBe(404);
  });

  it("is replaced: both work while they overlap, and the one before ends then", async () => {
    const before = await make({ calls: ["suggest"], name: "Replaced" });
    const response = await browser.send("POST", `/api/keys/${before.id}/replace`, { overlap: 24 });
    const after = madeKey.parse(await response.json());
    expect(after).toMatchObject({ name: "Replaced", calls: ["suggest"], endsAt: null });
    expect(after.key).not.toBe(before.key);
    for (const { key } of [before, after]) expect((await ask(LOOKUPS.suggest, { key })).status).toBe(200);
    const ends = Date.parse((await listed(before.id))!.endsAt!);
    expect(Math.abs(ends - Date.parse(hours(24)))).toBeLessThan(60_000);
    await browser.send("POST", `/api/keys/${before.id}/replace`, { overlap: 0 });
    expect((await ask(LOOKUPS.suggest, { key: before.key })).status).toBe(401);
    expect((await browser.send("POST", "/api/keys/0/replace", { overlap: 1 })).status).toBe(404);
    expect((await browser.send("POST", `/api/keys/${after.id}/replace`, { overlap: -1 })).status).toBe(400);
  });

  it("is withdrawn at once, and is seen no more", async () => {
    const { key, id } = await make({});
    expect((await ask(LOOKUPS.suggest, { key })).status).toBe(200);
    expect((await browser.send("DELETE", `/api/keys/${id}`, {})).status).toBe(204);
    const { status, body } = await json(LOOKUPS.suggest, { key });
    expect(status).toBe(401);
    expect(body.detail).toContain("was revoked");
    expect(await listed(id)).toBeUndefined();
    expect((await browser.send("DELETE", `/api/keys/${id}`, {})).status).toBe(404);
  });

  it("is left alone when the workbench itself asks with it", async () => {
    const { keys } = keyList.parse(await (await browser.get("/api/keys")).json());
    for (const { id, kind: _, createdAt: __, usedAt: ___, ...rules } of keys.filter(({ name }) =>
      /^Demo, (pages|tests)/.test(name),
    )) {
      for (const [method, path, body] of [
        ["DELETE", `/api/keys/${id}`, {}],
        ["POST", `/api/keys/${id}/replace`, { overlap: 0 }],
        ["PUT", `/api/keys/${id}`, { ...rules, calls: ["still"] }],
      ] as const) {
        const response = await browser.send(method, path, body);
        expect(response.status, `${method} ${path}`).toBe(409);
        expect(((await response.json()) as { detail: string }).detail).toContain("The workbench itself uses this key");
      }
      expect((await browser.send("PUT", `/api/keys/${id}`, rules)).status).toBe(200);
    }
  });

  it("tells when it was used last, and not before it was", async () => {
    const { key, id } = await make({});
    expect((await listed(id))?.usedAt).toBeNull();
    const began = Date.now();
    await ask(LOOKUPS.suggest, { key });
    const used = Date.parse((await listed(id))!.usedAt!);
    expect(used).toBeGreaterThanOrEqual(began - 1000);
    expect(used).toBeLessThanOrEqual(Date.now() + 1000);
  });
});

describe("what a key may be used for", () => {
  it("is told to whoever has it: all that it may, and no more of it", async () => {
    const { key } = await make({ kind: "srv", calls: ["suggest", "records"], countries: ["QV"], perDay: 900 });
    const { status, body, headers } = await json("/v1/key", { key });
    expect(status).toBe(200);
    expect(body).toEqual({
      ...{ kind: "srv", calls: ["suggest", "records"], countries: ["QV"], endsAt: null, perMinute: null, perDay: 900 },
    });
    expect(headers.get("cache-control")).toBe("no-store");
    const { key: all } = await make({ kind: "web", origins: ["https://members.example"] });
    const told = await json("/v1/key", { key: all, headers: { origin: "https://members.example" } });
    // a key of pages may make no batches; packed kits know tiles by the former name
    expect(new Set(told.body.calls)).toEqual(new Set(["sheets", ...KEY_CALLS.filter((call) => call !== "batches")]));
    expect((await json("/v1/key", { key: all })).status).toBe(403);
  });

  it("never names an origin that its kind may not have", async () => {
    const wrong = { kind: "web", name: "One", origins: ["app://localhost"] };
    expect((await browser.send("POST", "/api/keys", wrong)).status).toBe(400);
    const { id } = await make({ kind: "web", origins: ["https://members.example"] });
    const rules = { name: "One", origins: ["app://localhost"] };
    expect((await browser.send("PUT", `/api/keys/${id}`, rules)).status).toBe(400);
    for (const origin of ["app://local host", "app:localhost", "app://localhost/page", "javascript:alert(1)", "null"])
      expect((await browser.send("POST", "/api/keys", { ...wrong, kind: "view", origins: [origin] })).status).toBe(400);
  });
});
