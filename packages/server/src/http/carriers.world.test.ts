import { once } from "node:events";
import { request, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { CALLS, KEY_KINDS } from "@bibliotope/wire";
import fc from "fast-check";
import pino from "pino";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { StoredKey } from "../keys/keys.repository.ts";
import { wireAlone } from "./alone.ts";

const [RUNS, PATIENCE] = process.env.BIBLIOTOPE_LONG ? [10_000, 600_000] : [1500, 60_000];

const keyOf = (rules: Partial<StoredKey>): StoredKey => ({
  ...{ id: 1, kind: "srv", name: "Tested", origins: ["https://members.example"], calls: [], countries: [] },
  ...{ endsAt: null, perMinute: null, perDay: null },
  ...rules,
});
const keys: Record<string, StoredKey> = {
  ...Object.fromEntries(KEY_KINDS.map((kind) => [`bt_${kind}_1`, keyOf({ kind })])),
  bt_srv_kept: keyOf({ countries: ["QV"], calls: ["suggest", "forward", "records"] }),
  bt_srv_ended: keyOf({ endsAt: new Date(0) }),
};
let byExpress: Server;
let bare: Server;

beforeAll(async () => {
  const { islandsEngine } = await import("../../../islands/testing/islands.ts");
  ({ byExpress, bare } = wireAlone({ engine: islandsEngine, keys, log: pino({ level: "silent" }) }));
  for (const server of [byExpress, bare]) await once(server.listen(0, "127.0.0.1"), "listening");
});
afterAll(() => {
  for (const server of [byExpress, bare]) server.close().closeAllConnections();
});

interface Asked {
  method: string;
  path: string;
  headers: Record<string, string>;
  body?: string;
}

/** What comes back, as it came: headers by name, without those of the moment. */
async function ask(server: Server, { method, path, headers, body }: Asked) {
  const { port } = server.address() as AddressInfo;
  const sent = request({ host: "127.0.0.1", port, method, path, headers: { host: "here.example", ...headers } });
  sent.end(body);
  const [response] = await once(sent, "response");
  const pieces: Buffer[] = [];
  for await (const piece of response) pieces.push(piece);
  const { date: _, "x-request-id": __, "server-timing": time, ...told } = response.headers;
  return {
    status: response.statusCode,
    told,
    isTimed: time !== undefined,
    body: Buffer.concat(pieces).toString("hex"),
  };
}

const WORDS: Readonly<Record<string, string[]>> = {
  q: ["12 harb", "Harbour Row, Tidewell", "3 storgränd", "zzzz", "-35.1841,-21.6253", "", "a%00", "x".repeat(600)],
  at: ["-35.1841,-21.6253", "95,1", "here"],
  from: ["-35.2,-21.4", "1"],
  to: ["-35.3,-21.5"],
  starts: ["HT4", "3", "-"],
  countries: ["QR", "qv,QR", "Lorramere"],
  kinds: ["address", "street,town", "castle"],
  limit: ["1", "7", "0", "1000", "many"],
  lang: ["en", "qth-Grek,en", "not a tag"],
  format: ["csv", "gpx", "vcf", "opensearch", "nonsense"],
  gloss: ["1"],
  near: ["-35.2,-21.4"],
  situation: ["none", "differs", "several", "down", "storm"],
  typed: ["7"],
  other: ["1"],
};
/** Calls with words that work, and paths that are none. */
const LOOKUPS = Object.values(CALLS).flatMap(({ tag, path, example }) => (tag === "Lookups" ? { path, example } : []));
const NO_PATHS = [
  ...["/v1/Suggest", "/v1/suggest/", "/v1//suggest", "/v1/%73uggest", "/v1/records/%E0%A4%A", "/v1/nowhere"],
].map((path) => ({ path, example: { q: "12 harb" } }));
const REFS = ["qr-hgwrp5", "qr-zzzzzz", "nonsense", "%00"];

const one = <T>(...values: T[]) => fc.constantFrom(...values);
const mostly = <T>(usual: fc.Arbitrary<T>, other: fc.Arbitrary<T>) =>
  fc.oneof({ weight: 8, arbitrary: usual }, { weight: 1, arbitrary: other });
const some = (header: string, ...values: string[]) =>
  mostly<string | undefined>(fc.constant(undefined), one(...values)).map((value) => [header, value]);
const requests: fc.Arbitrary<Asked> = fc
  .record({
    method: mostly(fc.constant("GET"), one("HEAD", "POST", "OPTIONS", "DELETE")),
    call: mostly(one<{ path: string; example: Readonly<Record<string, string>> }>(...LOOKUPS), one(...NO_PATHS)),
    ref: one(...REFS),
    country: one("QR", "qv", "QM"),
    words: mostly(fc.constant<string[]>([]), fc.uniqueArray(one(...Object.keys(WORDS)), { maxLength: 4 })),
    typed: one(...WORDS.q.slice(0, 6)),
    pick: fc.array(fc.nat(100), { minLength: 5, maxLength: 5 }),
    key: mostly(one("bt_srv_1", "bt_try_1"), one(...Object.keys(keys), "bt_srv_nobody", undefined)),
    isToken: fc.boolean(),
    headers: fc.tuple(
      some("accept", "*/*", "text/csv", "application/json", "application/x-suggestions+json", "text/html", "image/png"),
      some("accept-language", "en", "qth-Grek, en;q=0.5", "*"),
      some("accept-encoding", "gzip", "br", "identity", "gzip, br"),
      some("origin", "https://members.example", "https://elsewhere.example", "http://here.example"),
      some("sec-fetch-site", "same-origin", "cross-site"),
      some("content-type", "application/json", "text/plain", "application/json; charset=utf-8"),
      some("bibliotope-situation", "none", "refused"),
    ),
    body: mostly<string | undefined>(fc.constant(undefined), one("{", "[]", "null", '{"q":{"length":{"toString":1}}}')),
  })
  .map(({ method, call, ref, country, words, typed, pick, key, isToken, headers, body }) => {
    const { ref: _, country: __, ...example } = call.example;
    const spoilt = Object.fromEntries(words.map((word, i) => [word, WORDS[word][pick[i] % WORDS[word].length]]));
    const chosen = Object.entries({ ...example, ...("q" in example ? { q: typed } : {}), ...spoilt });
    const query = new URLSearchParams([...chosen, ...(key && isToken ? [["access_token", key]] : [])]);
    const given = Object.fromEntries(headers.filter(([, value]) => value !== undefined)) as Record<string, string>;
    const isPost = method === "POST";
    return {
      method,
      path: `${call.path.replace("{ref}", ref).replace("{country}", country)}?${isPost ? "" : query}`,
      headers: { ...given, ...(key && !isToken ? { authorization: `Bearer ${key}` } : {}) },
      ...(isPost ? { body: body ?? JSON.stringify(Object.fromEntries(chosen)) } : {}),
    };
  });

describe("the two carriers of lookups", { tags: ["long"] }, () => {
  it(
    "answer the same to the byte, whatever is requested, the first time and the second",
    async () => {
      const seen = new Map<number, number>();
      await fc.assert(
        fc.asyncProperty(requests, async (request) => {
          const [express, ours] = [await ask(byExpress, request), await ask(bare, request)];
          expect(ours, JSON.stringify(request)).toEqual(express);
          seen.set(ours.status, (seen.get(ours.status) ?? 0) + 1);
          expect(ours.status).not.toBe(500);
          if (ours.status !== 200 || !ours.told.etag) return;
          const again = { ...request, headers: { ...request.headers, "if-none-match": ours.told.etag } };
          const [unchanged, too] = [await ask(byExpress, again), await ask(bare, again)];
          expect(too, JSON.stringify(again)).toEqual(unchanged);
          if (request.method !== "POST") expect(too.status).toBe(304);
        }),
        { numRuns: RUNS },
      );
      for (const status of [200, 204, 400, 401, 403, 404, 405])
        expect(seen.get(status), String(status)).toBeGreaterThan(5);
    },
    PATIENCE,
  );
});

describe("an answer that is kept", { tags: ["long"] }, () => {
  it("is of one key's countries, languages and form: nobody is answered what another may see", async () => {
    const send = (key: string, headers: Record<string, string> = {}) =>
      ask(bare, {
        method: "GET",
        path: "/v1/forward?q=12+Harbour+Row,+Tidewell&limit=1",
        headers: { authorization: `Bearer ${key}`, ...headers },
      });
    const [all, kept] = [await send("bt_srv_1"), await send("bt_srv_kept")];
    expect(kept.body).not.toBe(all.body);
    expect((await send("bt_srv_1", { accept: "text/csv" })).body).not.toBe(all.body);
    expect((await send("bt_srv_ended")).status).toBe(401);
    expect((await send("bt_srv_1", { "bibliotope-situation": "none" })).status).toBe(403);
    expect(await send("bt_srv_1")).toEqual(all);
  });
});
