import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../testing/own-server.ts";
import { ask, type Ready, shared } from "../testing/shared.ts";

const PUBLIC = "https://addresses.example";

describe("behind a proxy that speaks TLS", { tags: ["long"], timeout: 120_000 }, () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready;
  let here: string;

  beforeAll(async () => {
    ownDb = await ownDatabase("behind_proxy", "seeded");
    server = new OwnServer(ownDb.url, "seeded", "5290", { PUBLIC_URL: PUBLIC, TRUST_PROXY: "loopback" });
    server.start();
    ready = await server.ready();
    here = ready.url;
  }, 200_000);
  afterAll(async () => {
    await server.end("SIGTERM");
    await ownDb.drop();
  });

  /** As a proxy hands it on; some keep the host that people named, others do not. */
  const handOn = (path: string, { from = "198.51.100.1", ...init }: RequestInit & { from?: string } = {}) =>
    fetch(`${here}${path}`, {
      ...init,
      redirect: "manual",
      headers: { "x-forwarded-proto": "https", "x-forwarded-for": from, ...(init.headers as object) },
    });
  const enter = (name: string, from: string) =>
    handOn("/sign-in", {
      method: "POST",
      from,
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name, password: "a wrong password" }),
    });

  it("signs in with a link of its public address, into a cookie that is safe and of this host alone", async () => {
    expect(ready.signIn).toMatch(/^https:\/\/addresses\.example\/sign-in\?token=/);
    const signedIn = await handOn(ready.signIn.slice(PUBLIC.length));
    const cookie = signedIn.headers.get("set-cookie")!;
    expect(cookie).toMatch(/^__Host-bibliotope_\d+=/);
    expect(cookie).toMatch(/; Path=\/;/);
    expect(cookie).toMatch(/; HttpOnly; Secure; SameSite=Strict/);
    expect(cookie).not.toMatch(/domain=/i);
    const headers = { cookie: cookie.split(";")[0] };
    const session = await (await handOn("/api/session", { headers })).json();
    expect(session).toMatchObject({ role: "manage" });
    // signing out takes it away again
    const out = await handOn("/api/session", {
      method: "DELETE",
      headers: { ...headers, "x-csrf-token": session.csrf },
    });
    expect(out.status).toBe(204);
    expect(out.headers.get("set-cookie")).toMatch(/^__Host-bibliotope_\d+=; Path=\/; Expires=Thu, 01 Jan 1970.*Secure/);
  });

  it("tells browsers to come over TLS alone, and to take nothing for what it is not", async () => {
    expect((await handOn("/")).headers.get("strict-transport-security")).toBe("max-age=31536000");
    for (const path of ["/", "/v1/countries", "/kit/v1/bibliotope.js", "/api/session", "/nothing"])
      expect((await handOn(path)).headers.get("x-content-type-options"), path).toBe("nosniff");
  });

  it("takes its own pages for its own, and no others", async () => {
    const suggest = (origin: string) =>
      handOn(`/v1/suggest?q=12+harb&access_token=${ready.keys.web}`, { headers: { origin } });
    expect((await suggest(PUBLIC)).status).toBe(200);
    expect((await suggest("https://elsewhere.example")).status).toBe(403);
    // over the wire's way around Express as well as through it
    expect((await handOn(`/v1/countries?access_token=${ready.keys.web}`, { headers: { origin: PUBLIC } })).status).toBe(
      200,
    );
  });

  it("hands out addresses that lead to it", async () => {
    const link = await handOn("/v1/links?of=qr-hgwrp5", { headers: { authorization: `Bearer ${ready.keys.srv}` } });
    const { url, qr } = await link.json();
    expect([url, qr].every((one) => one.startsWith(`${PUBLIC}/p/`))).toBe(true);
  });

  it("tells those apart who come through it", async () => {
    const statuses = [];
    for (let i = 0; i < 6; i++) statuses.push((await enter("Guessed", "198.51.100.20")).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
    expect((await enter("Guessed", "198.51.100.21")).status).toBe(401);
  });
});

describe("under a path of a host that has other things too", { tags: ["long"], timeout: 120_000 }, () => {
  const PATH = "/tools/addresses";
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready;
  let host: string;

  beforeAll(async () => {
    ownDb = await ownDatabase("under_path", "seeded");
    server = new OwnServer(ownDb.url, "seeded", "5290", { PUBLIC_URL: `${PUBLIC}${PATH}/` });
    server.start();
    ready = await server.ready();
    host = new URL(ready.url).origin;
  }, 200_000);
  afterAll(async () => {
    await server.end("SIGTERM");
    await ownDb.drop();
  });
  const get = (path: string, headers = {}) => fetch(`${host}${path}`, { headers, redirect: "manual" });

  it("ready.json and the sign-in link name the path, and what signs in goes back to it", async () => {
    expect(ready.url).toBe(`${host}${PATH}`);
    expect(ready.signIn.startsWith(`${PUBLIC}${PATH}/sign-in?token=`)).toBe(true);
    const signedIn = await get(ready.signIn.slice(PUBLIC.length));
    expect(signedIn.headers.get("location")).toBe(`${PATH}/`);
    expect((await get(PATH)).headers.get("location")).toBe(`${PATH}/`);
  });

  it("every file that a page of its own names is there", async () => {
    for (const path of ["/", "/forms/become-a-reader/compose", "/f/become-a-reader"]) {
      const at = `${host}${PATH}${path}`;
      const page = await (await fetch(at)).text();
      const files = [...page.matchAll(/(?:href|src)="([^"]+)"/g)].map(([, file]) => new URL(file, at).href);
      expect(files.length).toBeGreaterThan(1);
      for (const file of files) {
        expect(file.startsWith(`${host}${PATH}/`), file).toBe(true);
        expect((await fetch(file)).status, file).toBe(200);
      }
    }
  });

  it("lookups, links and problems name the path", async () => {
    const headers = { authorization: `Bearer ${ready.keys.srv}` };
    expect((await get(`${PATH}/v1/suggest?q=12+harb`, headers)).status).toBe(200);
    const { url, qr } = await (await get(`${PATH}/v1/links?of=qr-hgwrp5`, headers)).json();
    for (const one of [url, qr]) expect(one.startsWith(`${PUBLIC}${PATH}/p/`), one).toBe(true);
    const shown = await get(url.slice(PUBLIC.length));
    expect(shown.status).toBe(200);
    const [, map] = /<img class="where" src="([^"]+)"/.exec(await shown.text())!;
    expect((await fetch(new URL(map, `${host}${url.slice(PUBLIC.length)}`))).headers.get("content-type")).toBe(
      "image/png",
    );
    for (const path of ["/v1/suggest", "/api/session", "/nothing"]) {
      const { type } = await (await get(`${PATH}${path}`)).json();
      expect((await get(type)).status, type).toBe(200);
    }
  });

  it("is there for a proxy that cuts the path off, and not under what only begins like it", async () => {
    expect((await get("/readyz")).status).toBe(200);
    expect((await get(`${PATH}s/readyz`)).status).toBe(404);
  });
});

describe("without a proxy", { tags: ["long"] }, () => {
  it("takes nobody's word for where they come from, or over what", async () => {
    const enter = (from: string) =>
      ask("/sign-in", {
        key: null,
        method: "POST",
        headers: { "content-type": "application/json", "x-forwarded-for": from, "x-forwarded-proto": "https" },
        body: JSON.stringify({ name: "Guessed from nowhere", password: "a wrong password" }),
      });
    const statuses = [];
    for (let i = 0; i < 6; i++) statuses.push((await enter(`203.0.113.${i}`)).status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
    expect((await fetch(shared().url)).headers.get("strict-transport-security")).toBeNull();
  });
});
