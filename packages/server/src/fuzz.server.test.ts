import { once } from "node:events";
import { mkdtempSync, readFileSync } from "node:fs";
import { Agent, request } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import { pathToFileURL } from "node:url";
import { CALLS, type Call, OWN_CALLS, type OwnCall, type OwnCallName, problemSchema } from "@bibliotope/wire";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../testing/own-server.ts";
import { type Ready, readReady } from "../testing/shared.ts";
import { sized } from "../testing/sizes.ts";

/** Requests: `BIBLIOTOPE_FUZZ` says how many, as for a million by hand. */
const RUNS = Number(process.env.BIBLIOTOPE_FUZZ ?? sized(150, 30_000));
const PATIENCE = 120_000 + RUNS * 30;
/** Requests under way at once: one in short runs, so that what failed is known at once. */
const AT_ONCE = RUNS > 10_000 ? 16 : 1;
const WATCH = pathToFileURL(join(import.meta.dirname, "../testing/loop-watch.mjs")).href;
/** Times that each request of a pause is asked again, alone: whichever makes one each time is what made it. */
const AGAIN = 3;
/** Milliseconds between two notes of the server's memory and of how long its loop stood still. */
const NOTED_EVERY = 60_000;

let server: OwnServer;
let drop: () => Promise<void>;
let ready: Ready;
let session: Record<string, string>;
let loop: string;
beforeAll(async () => {
  const own = await ownDatabase("fuzzed", "seeded");
  drop = own.drop;
  loop = join(mkdtempSync(join(tmpdir(), "bibliotope-loop-")), "loop.json");
  server = new OwnServer(own.url, "seeded", "5570", { NODE_OPTIONS: `--import=${WATCH}`, BIBLIOTOPE_TEST_LOOP: loop });
  server.start();
  ready = await server.ready();
  await enter();
}, 180_000);
afterAll(async () => {
  await server.end("SIGTERM");
  await drop();
});

/** Signs in, or in again: among what is requested are changes that end sessions. */
async function enter(): Promise<void> {
  const { signIn } = readReady(server.home);
  const entered = await fetch(signIn, { redirect: "manual" });
  const cookie = entered.headers.get("set-cookie")!.split(";")[0];
  const { csrf } = (await (await fetch(`${ready.url}/api/session`, { headers: { cookie } })).json()) as {
    csrf: string;
  };
  session = { cookie, "x-csrf-token": csrf };
}

const agent = new Agent({ keepAlive: true, maxSockets: AT_ONCE });
/** Asks, with a path as it is written. @returns the status and the problem that came, if one did */
async function ask(method: string, path: string, headers: Record<string, string>, body?: string) {
  const { port } = new URL(ready.url);
  const length = body === undefined ? {} : { "content-length": Buffer.byteLength(body) };
  const sent = request({ host: "127.0.0.1", port, method, path, agent, headers: { ...headers, ...length } });
  sent.end(body);
  const [response] = await once(sent, "response");
  const pieces: Buffer[] = [];
  for await (const piece of response) pieces.push(piece);
  const text = Buffer.concat(pieces).toString();
  return { status: response.statusCode as number, text, isProblem: /problem/.test(response.headers["content-type"]) };
}

/** Values that were not thought of, of every type. */
const odd = fc.oneof(
  {
    weight: 10,
    arbitrary: fc.constantFrom<unknown>(
      ...["a\0b", "\ud800", "", " ", "%", "'; drop table keys; --", "x".repeat(2000), "__proto__", "NaN", "null"],
      ...[2 ** 31, -(2 ** 31) - 1, 1e308, -0, 0.5, null, true, [], {}, [[[]]]],
      { length: { toString: 1 } },
      { constructor: 1, toString: null },
    ),
  },
  {
    // seldom: each takes as long as fifty others
    weight: 1,
    arbitrary: fc.constantFrom("a\0b", 7, "lang", null).map((value) => Array.from({ length: 20_000 }, () => value)),
  },
  { weight: 10, arbitrary: fc.string({ unit: "binary", maxLength: 30 }) },
  { weight: 10, arbitrary: fc.jsonValue({ maxDepth: 3 }) },
);
const WORDS = [
  ...[
    "q",
    "at",
    "near",
    "lang",
    "kinds",
    "countries",
    "inside",
    "box",
    "limit",
    "format",
    "from",
    "to",
    "starts",
    "text",
  ],
  ...["name", "kind", "origins", "calls", "endsAt", "perMinute", "perDay", "role", "password", "before", "definition"],
  ...[
    "revision",
    "ref",
    "change",
    "note",
    "state",
    "steps",
    "expected",
    "situation",
    "about",
    "events",
    "versions",
    "why",
  ],
  ...[
    "file",
    "heads",
    "reading",
    "dataSet",
    "day",
    "ask",
    "asked",
    "outcome",
    "found",
    "keeps",
    "how",
    "place",
    "overlap",
  ],
  ...[
    "days",
    "key",
    "show",
    "offset",
    "columns",
    "size",
    "markers",
    "points",
    "width",
    "density",
    "line",
    "of",
    "label",
    "__proto__",
    "constructor",
  ],
];
const PARTS = [
  "1",
  "0",
  "999999999999",
  "a%00b",
  "%ED%A0%80",
  "become-a-reader",
  "qr-hgwrp5",
  "%2e%2e",
  "QR",
  "constructor",
];
/** Calls of the workbench that are left alone: they end the session, never end themselves, or take a file. */
const LEFT: readonly OwnCallName[] = ["signOut", "jobEvents", "handIn"];
const WORKBENCH = (Object.entries(OWN_CALLS) as [OwnCallName, OwnCall][])
  .filter(([name]) => !LEFT.includes(name))
  .map(([, { method, path }]) => `${method} /api${path.replace(/\{\w+\}/g, ":")}`)
  .concat("POST /sign-in", "POST /sign-in/passkey", "POST /sign-in/passkey/options");
const WIRE = (Object.values(CALLS) as Call[]).flatMap(({ path, methods }) =>
  methods.map((method) => `${method} ${path.replace(/\{\w+\}/g, ":")}`),
);
/** Words of the calls' own examples, so that what is odd stands beside what works. */
const USUAL = Object.assign({}, ...(Object.values(CALLS) as Call[]).map(({ example }) => example));

/** What the watch over the server's loop has noted. */
interface Watched extends Record<"longest" | "longestOwn" | "longestRun" | "high" | "rss", number> {
  pauses: { at: number; ran: number }[];
}

type Asked = typeof oddRequest extends fc.Arbitrary<infer T> ? T : never;
const oddRequest = fc.record({
  call: fc.constantFrom(...WIRE, ...WORKBENCH),
  parts: fc.array(fc.constantFrom(...PARTS), { minLength: 2, maxLength: 2 }),
  usual: fc.subarray(Object.entries(USUAL)),
  words: fc.array(fc.tuple(fc.constantFrom(...WORDS), odd), { maxLength: 5 }),
});

describe("whatever is requested, of whatever call", () => {
  it(
    "is answered or refused in words, and never breaks anything",
    async () => {
      const statuses = new Set<number>();
      let asks = 0;
      let notedAt = Date.now();
      let pauses = 0;
      const watched = () => JSON.parse(readFileSync(loop, "utf8")) as Watched;
      const note = () => {
        const { longest, longestOwn, longestRun, high, rss } = watched();
        console.info(
          `  ${asks} requests: ${Math.round(rss)} MB; ${pauses} pauses of over 50 ms, none made again by a request; the loop stood still for ${Math.round(longest)} ms at most (${Math.round(longestOwn)} ms without the times when it waited for a core; its thread ran for ${Math.round(longestRun)} ms at most), ${high.toFixed(1)} ms in one of ten thousand times`,
        );
      };
      const noteNow = () => {
        asks++;
        if (Date.now() - notedAt < NOTED_EVERY) return;
        notedAt = Date.now();
        note();
      };
      const tryOne = async ({ call, parts, usual, words }: Asked, isAgain = false) => {
        const [method, pattern] = call.split(" ");
        const left = [...parts];
        const path = pattern.replace(/:/g, () => left.shift() ?? "1");
        const isWire = path.startsWith("/v1");
        // in a language that nobody speaks: an answer that was kept is not of it, and is made again
        const language: Record<string, string> = isAgain ? { "accept-language": `x-${asks}` } : {};
        const headers = isWire ? { authorization: `Bearer ${ready.keys.srv}`, ...language } : session;
        const given = Object.fromEntries([...usual, ...words]);
        const query = new URLSearchParams(
          Object.entries(given).map(([word, value]): [string, string] => [
            word,
            String(JSON.stringify(value)).slice(0, 500),
          ]),
        );
        const isBody = method !== "GET";
        const { status, text, isProblem } = await ask(
          method,
          isBody ? path : `${path}?${query}`,
          { ...headers, ...(isBody ? { "content-type": "application/json" } : {}) },
          isBody ? JSON.stringify(given) : undefined,
        );
        statuses.add(status);
        if (status === 401 && !isWire && !path.startsWith("/sign-in")) await enter();
        noteNow();
        expect(status, `${call} ${text.slice(0, 300)}`).toBeLessThan(500);
        if (status < 400) return;
        expect(isProblem, `${call}: ${text.slice(0, 200)}`).toBe(true);
        expect(text.length).toBeLessThan(8000);
        expect(problemSchema.parse(JSON.parse(text)).issues?.length ?? 0).toBeLessThanOrEqual(10);
      };
      /** Whether the loop stood still after a moment. */
      const pausedSince = async (from: number) => {
        // it is noted once it is over
        await wait(15);
        return watched().pauses.some(({ at }) => at > from);
      };
      const tryAll = async (all: readonly Asked[]) => {
        const from = Date.now();
        await Promise.all(all.map((one) => tryOne(one)));
        if (AT_ONCE === 1 || Date.now() - from < 50 || !(await pausedSince(from))) return;
        pauses++;
        for (const one of all) {
          let made = 0;
          for (let time = 0; time < AGAIN; time++) {
            const began = Date.now();
            await tryOne(one, true);
            if (await pausedSince(began)) made++;
          }
          expect(made, `times that it stopped the loop for over 50 ms: ${JSON.stringify(one)}`).toBeLessThan(AGAIN);
        }
      };
      const several = fc.array(oddRequest, { minLength: AT_ONCE, maxLength: AT_ONCE });
      await fc.assert(fc.asyncProperty(several, tryAll), { numRuns: Math.ceil(RUNS / AT_ONCE) });
      if (RUNS > 10_000) note();
      for (const status of [200, 400, 404]) expect(statuses).toContain(status);
      expect((await fetch(`${ready.url}/readyz`)).status).toBe(200);
    },
    PATIENCE,
  );
});
