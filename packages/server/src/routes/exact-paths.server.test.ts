import { readFileSync } from "node:fs";
import { request } from "node:http";
import { join } from "node:path";
import { CALLS, type Call } from "@bibliotope/wire";
import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { ask, shared, sharedHome, signedIn } from "../../testing/shared.ts";

/** A question for each call by GET that counts against a key's limit: its own example. */
const COUNTED: Readonly<Record<string, string>> = Object.fromEntries(
  (Object.values(CALLS) as Call[]).flatMap(({ path, methods, key, example }) => {
    if (key.counts === "nothing" || key.kinds || !methods.includes("GET")) return [];
    const left = new URLSearchParams({ ...example });
    const filled = path.replace(/\{(\w+)\}/g, (_, part: string) => {
      left.delete(part);
      return example[part];
    });
    return [[key.as, `${filled}?${left}`]];
  }),
);

/** The ways in which the name of a call may be written otherwise, each letter by itself. */
const WRITTEN = [
  (letter: string) => letter,
  (letter: string) => letter.toUpperCase(),
  (letter: string) => `%${letter.charCodeAt(0).toString(16)}`,
  (letter: string) => `${letter}/`,
  (letter: string) => `/${letter}`,
  (letter: string) => `./${letter}`,
  (letter: string) => `${letter};x`,
];

/** A question with the path of its call written in another way. */
const otherwise = fc
  .record({
    call: fc.constantFrom(...Object.keys(COUNTED)),
    ways: fc.array(fc.nat(WRITTEN.length - 1), { minLength: 1, maxLength: 12 }),
    version: fc.constantFrom("/v1", "/V1", "/v1/", "//v1", "/v1/."),
    slash: fc.constantFrom("", "/"),
  })
  .map(({ call, ways, version, slash }) => {
    const name = [...call].map((letter, i) => WRITTEN[ways[i % ways.length]](letter)).join("");
    return COUNTED[call].replace(/^\/v1/, version).replace(`/${call}`, `/${name}${slash}`);
  });

let key: string;
beforeAll(async () => {
  const browser = await signedIn();
  const made = await browser.send("POST", "/api/keys", { kind: "srv", name: "Used up", perMinute: 1 });
  key = ((await made.json()) as { key: string }).key;
  await ask("/v1/distance?from=-35,-21&to=-36,-22", { key });
});

describe("a path", () => {
  it("that is answered is counted, however it is written: a key that is used up gets nothing by any of them", async () => {
    await fc.assert(
      fc.asyncProperty(otherwise, async (path) => {
        const { status } = await ask(path, { key });
        expect([404, 429], path).toContain(status);
      }),
      { numRuns: 400 },
    );
  });
});

describe("what nobody is to have", () => {
  it.each([
    "/.git/config",
    "/.env",
    "/package.json",
    "/kit/",
    "/kit/v1/",
    "/assets/",
    "/kit/v1/../../../package.json",
    "/kit/v1/%2e%2e/%2e%2e/%2e%2e/package.json",
    "/assets/..%2f..%2f..%2fpackage.json",
    "/kit/v1/bibliotope.js%00.html",
  ])("%s is not answered with a file, a list of a folder, or an error of ours", async (path) => {
    const { status, body } = await raw("GET", path);
    expect(status).toBeGreaterThanOrEqual(200);
    expect(status).toBeLessThan(500);
    expect(body).not.toMatch(/"dependencies"|\[core\]|Index of|DATABASE_URL/);
  });

  it("is sent back by no method: a TRACE would show what a script may not read", async () => {
    const { status, body } = await raw("TRACE", "/v1/countries", { cookie: "bibliotope_1=secret" });
    expect(status).toBeGreaterThanOrEqual(400);
    expect(body).not.toContain("secret");
  });

  /** Asks for a path as it is written: fetch would tidy it. */
  function raw(method: string, path: string, headers: Record<string, string> = {}) {
    const { hostname, port } = new URL(shared().url);
    return new Promise<{ status: number; body: string }>((resolve, reject) => {
      request({ hostname, port, method, path, headers }, (response) => {
        let body = "";
        response.on("data", (piece: Buffer) => {
          body += piece.toString();
        });
        response.on("end", () => resolve({ status: response.statusCode ?? 0, body }));
      })
        .on("error", reject)
        .end();
    });
  }
});

describe("the log", () => {
  const REF = "qr-zzlogd";

  it("has the pattern of a path, and never what was looked up by it", async () => {
    const paths = [
      ...Object.values(CALLS).map(({ path }) => path.replace(/\{\w+\}/g, REF)),
      `/v1/records/${REF}`,
      `/v1/Records/${REF}`,
      `/v1/${REF}`,
      `/v1/records/${REF}/`,
      `/v1/postcodes/QR?starts=${REF}`,
      `/${REF}`,
      `/assets/${REF}.js`,
      `/kit/v1/${REF}.js`,
      `/f/${REF}`,
      `/api/forms/${REF}`,
      `/api/forms/${REF}/rehearsals`,
      `/api/${REF}`,
      `/lookups/${REF}`,
    ];
    const browser = await signedIn();
    for (const path of paths)
      for (const method of ["GET", "POST", "DELETE"]) {
        await ask(path, { method });
        if (path.startsWith("/api/"))
          await browser.send(method, path, method === "GET" ? undefined : {}).catch(() => 0);
      }
    await browser.get(`/api/forms/${REF}`);
    const log = () => readFileSync(join(sharedHome(), "log", "server.log"), "utf8");
    for (const route of ["/v1/records/{ref}", "/api/forms/:ref", "/f/:ref", "/v1/*", "/assets/*"])
      await expect.poll(log, { timeout: 10_000 }).toContain(`"route":"${route}"`);
    expect(log()).not.toContain(REF);
  });
});
