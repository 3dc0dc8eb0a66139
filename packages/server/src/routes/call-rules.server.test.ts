import { setTimeout as wait } from "node:timers/promises";
import { CALLS, type Call, type CallName, KEY_CALLS, KEY_KINDS, type MadeKey } from "@bibliotope/wire";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { ask, json, shared, signedIn } from "../../testing/shared.ts";

const ROWS = "text\n12 Harbour Row Tidewell\nStorgränd 3 Vårhamn\n";
const FILE = { method: "POST", headers: { "content-type": "text/csv" }, body: ROWS };

let browser: Awaited<ReturnType<typeof signedIn>>;
beforeAll(async () => {
  browser = await signedIn();
});

async function make(rules: object): Promise<MadeKey> {
  const response = await browser.send("POST", "/api/keys", { kind: "srv", name: "Tested", ...rules });
  expect(response.status).toBe(201);
  return (await response.json()) as MadeKey;
}

interface Question {
  path: string;
  init: RequestInit;
}

/** The example of each call as a request: those of a batch are asked of one that this key has made, where it may. */
async function questions(key: string): Promise<Record<CallName, Question>> {
  const made = await json("/v1/batches", { ...FILE, key });
  const id = String(made.body.id ?? 1);
  const all = (Object.entries(CALLS) as [CallName, Call][]).map(([name, call]): [CallName, Question] => {
    const left = new URLSearchParams({ ...call.example });
    const path = call.path.replace(/\{(\w+)\}/g, (_, part: string) => {
      left.delete(part);
      return part === "id" ? id : encodeURIComponent(call.example[part]);
    });
    if (call.takes) return [name, { path: `${path}?${left}`, init: FILE }];
    if (call.methods.some((method) => method === "GET")) return [name, { path: `${path}?${left}`, init: {} }];
    const init = { method: "POST", headers: { "content-type": "application/json" } };
    return [name, { path, init: { ...init, body: JSON.stringify(Object.fromEntries(left)) } }];
  });
  return Object.fromEntries(all) as Record<CallName, Question>;
}

const status = async ({ path, init }: Question, key: string, more: RequestInit = {}) =>
  (await ask(path, { ...init, ...more, key, headers: { ...init.headers, ...more.headers } })).status;

/** Statuses by call. */
async function statuses(query: Record<CallName, Question>, key: string, more: RequestInit = {}) {
  const all: Record<string, number> = {};
  for (const [name, question] of Object.entries(query)) all[name] = await status(question, key, more);
  return all;
}

const byCall = (expected: (call: Call, name: CallName) => number) =>
  Object.fromEntries((Object.entries(CALLS) as [CallName, Call][]).map(([name, call]) => [name, expected(call, name)]));

describe("every call", () => {
  it("answers its own example, and says in a HEAD what it says in a GET", { tags: ["long"] }, async () => {
    const { keys } = shared();
    const query = await questions(keys.srv);
    expect(await statuses(query, keys.srv)).toEqual(byCall(({ status: usual = 200 }) => usual));
    await vi.waitFor(
      async () => expect((await json(query.batch.path)).body.state, "a batch that still runs has news").toBe("done"),
      20_000,
    );
    for (const [name, { path, init }] of Object.entries(query)) {
      if (init.method === "POST") continue;
      const [got, headed] = [await ask(path), await ask(path, { method: "HEAD" })];
      expect(headed.status, name).toBe(got.status);
      expect(headed.headers.get("etag"), name).toBe(got.headers.get("etag"));
      expect(await headed.text(), name).toBe("");
    }
  });

  it("takes its methods, and names them to others", { tags: ["long"] }, async () => {
    const { keys } = shared();
    const query = await questions(keys.srv);
    for (const [name, call] of Object.entries(CALLS) as [CallName, Call][])
      for (const method of ["GET", "POST", "PUT", "PATCH", "DELETE"]) {
        const takes = call.methods.some((one) => one === method);
        const response = await ask(query[name].path, { method, key: keys.srv });
        if (takes) expect(response.status, `${method} ${name}`).not.toBe(405);
        else expect([response.status, response.headers.get("allow")]).toEqual([405, call.methods.join(", ")]);
      }
  });

  it("is another path in capital letters, and where letters are encoded", async () => {
    const { keys } = shared();
    for (const [name, question] of Object.entries(await questions(keys.srv))) {
      const [, version, first, rest] = /^\/(v1)\/(\w+)(.*)$/.exec(question.path)!;
      for (const path of [
        `/${version}/${first.toUpperCase()}${rest}`,
        `/${version}/${first[0].toUpperCase()}${first.slice(1)}${rest}`,
        `/${version}/%${first.charCodeAt(0).toString(16)}${first.slice(1)}${rest}`,
        `/V1/${first}${rest}`,
      ])
        expect(await status({ ...question, path }, keys.srv), `${name}: ${path}`).toBe(404);
    }
  });

  it("is for the kinds of key that it names, from where they may be used", { tags: ["long"] }, async () => {
    const page = { headers: { origin: "https://members.example", "sec-fetch-site": "cross-site" } };
    for (const kind of KEY_KINDS) {
      const isOfPages = kind === "web" || kind === "view";
      const { key } = await make({ kind, origins: isOfPages ? ["https://members.example"] : [] });
      const query = await questions(key);
      const usual = byCall(({ key: { kinds }, status: ok = 200 }) => (kinds && !kinds.includes(kind) ? 403 : ok));
      const refused = byCall(() => 403);
      const [inPage, elsewhere] = [await statuses(query, key, page), await statuses(query, key)];
      expect(inPage, kind).toEqual(isOfPages || kind === "try" ? usual : refused);
      expect(elsewhere, kind).toEqual(isOfPages ? refused : usual);
    }
  });

  it("is refused to a key that is kept to another kind of lookup, that has ended, or that is not known", {
    tags: ["long"],
  }, async () => {
    for (const as of KEY_CALLS) {
      const { key } = await make({ calls: [as] });
      const query = await questions(key);
      const expected = byCall(({ key: own, status: ok = 200 }) => (own.as === as || own.always ? ok : 403));
      expect(await statuses(query, key), as).toEqual(expected);
    }
    const ended = await make({ endsAt: new Date(Date.now() - 1000).toISOString() });
    const query = await questions(shared().keys.srv);
    expect(await statuses(query, ended.key)).toEqual(byCall(() => 401));
    expect(await statuses(query, "bt_srv_nobody")).toEqual(byCall(() => 401));
  });

  it("counts against a key's amount, or is what a page needs to be shown", async () => {
    const query = await questions(shared().keys.srv);
    for (const [name, call] of Object.entries(CALLS) as [CallName, Call][]) {
      const { key } = await make({ perMinute: 1 });
      expect((await ask("/v1/distance?from=1,1&to=2,2", { key })).status).toBe(200);
      const { counts } = call.key;
      expect(await status(query[name], key), name).toBe(counts === "nothing" ? (call.status ?? 200) : 429);
    }
  });
});

describe("a key that is kept to a country", () => {
  const HERE = "-35.1841,-21.6253";
  const STREET = "/v1/forward?q=Harbour+Row,+Tidewell&kinds=street&limit=1";

  it("sees nothing of another one, whatever it asks", async () => {
    const { key } = await make({ countries: ["QV"] });
    const { body: street } = await json(STREET);
    const { body: house } = await json("/v1/forward?q=12+Harbour+Row,+Tidewell&limit=1");
    const [inside, ref] = [street.features[0].id, house.features[0].id];
    const of = async (path: string, init: RequestInit = {}) => json(path, { key, ...init });

    expect((await of(`/v1/suggest?q=12&inside=${inside}`)).body.suggestions).toEqual([]);
    expect((await of(`/v1/forward?q=12&inside=${inside}`)).body.features).toEqual([]);
    expect((await of("/v1/suggest?q=12+harbour+row+tidewell")).body.suggestions).not.toContainEqual(
      expect.objectContaining({ ref }),
    );
    expect((await of(`/v1/reverse?at=${HERE}`)).body.features).toEqual([]);
    for (const path of [`/v1/records/${ref}`, `/v1/still?of=${ref}&width=64&height=64`, "/v1/postcodes/QR?starts=HT"])
      expect((await of(path)).status, path).toBe(403);
    const report = { method: "POST", headers: { "content-type": "application/json" } };
    expect((await of("/v1/reports", { ...report, body: JSON.stringify({ ref, text: "Not there" }) })).status).toBe(403);
    expect((await of(`/v1/height?at=${HERE}`)).body.metres).toBeNull();
    expect((await json(`/v1/height?at=${HERE}`)).body.metres).toBeGreaterThan(-10);
    expect((await of("/v1/countries")).body.countries).toMatchObject([{ code: "QV" }]);
    expect((await of("/v1/countries/QR")).status).toBe(404);
    const ids = async (more: object) =>
      (await json("/v1/tiles/features/16/28831/39618", more)).body.features.flatMap(
        ({ id = "" }: { id?: string }) => id,
      );
    expect((await ids({})).some((id: string) => id.startsWith("qr-"))).toBe(true);
    expect((await ids({ key })).filter((id: string) => id && !id.startsWith("qv-"))).toEqual([]);
  });

  it("makes batches of which no row is answered with another one", { tags: ["long"] }, async () => {
    const { key } = await make({ countries: ["QV"] });
    const made = await json("/v1/batches", { ...FILE, key });
    expect(made.status).toBe(202);
    for (;;) {
      const { body } = await json(`/v1/batches/${made.body.id}`, { key });
      if (body.state === "done") break;
      expect(["waiting", "running"]).toContain(body.state);
      await wait(50);
    }
    const rows = await (await ask(`/v1/batches/${made.body.id}/rows?format=geojson`, { key })).json();
    const refs = JSON.stringify(rows).match(/"q[rvy]-[0-9a-z]{6}"/g) ?? [];
    expect(refs.filter((ref) => !ref.startsWith('"qv-'))).toEqual([]);
  });
});

describe("a suggestion inside a street", () => {
  it("keeps to the countries and kinds that are requested, and to a box", async () => {
    const { body } = await json("/v1/forward?q=Harbour+Row,+Tidewell&kinds=street&limit=1");
    const inside = body.features[0].id;
    const lines = async (more: string) =>
      (await json(`/v1/suggest?q=1&inside=${inside}&limit=100${more}`)).body.suggestions;
    const all = await lines("");
    expect(all.length).toBeGreaterThan(3);
    expect(await lines("&countries=QR&kinds=address")).toEqual(all);
    for (const more of ["&countries=QV", "&kinds=town", "&box=0,0,1,1"]) expect(await lines(more), more).toEqual([]);
    const { lat, lon } = all[2].at;
    const [south, west] = [lat - 1e-5, lon - 1e-5];
    const near = await lines(`&box=${west},${south},${west + 2e-5},${south + 2e-5}`);
    expect(near.map(({ ref }: { ref: string }) => ref)).toContain(all[2].ref);
    expect(near.length).toBeLessThan(all.length);
  });
});
