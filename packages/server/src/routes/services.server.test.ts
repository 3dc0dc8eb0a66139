import { execFile } from "node:child_process";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { join } from "node:path";
import { promisify } from "node:util";
import type { Service } from "@bibliotope/core/service";
import { type HeldService, OWN_CALLS, serviceAnswer, triedService } from "@bibliotope/wire";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { ask as askWire, json, shared, sharedHome, signedIn } from "../../testing/shared.ts";

let browser: Awaited<ReturnType<typeof signedIn>>;
let server: Server;
let here = "";
/** What the service of this test answers, and how often it was called. */
let answers: (given: { url: string; headers: Record<string, unknown>; body: string }) => {
  status?: number;
  type?: string;
  body?: string;
};
let count = 0;

beforeAll(async () => {
  browser = await signedIn();
  server = createServer(async (request, response) => {
    count++;
    let body = "";
    for await (const chunk of request) body += chunk;
    const answer = answers({ url: request.url ?? "", headers: request.headers, body });
    response.writeHead(answer.status ?? 200, { "content-type": answer.type ?? "application/json" });
    response.end(answer.body);
  }).listen(0, "127.0.0.1");
  await new Promise((resolve) => server.once("listening", resolve));
  const { port } = server.address() as AddressInfo;
  here = `http://127.0.0.1:${port}`;
  const allowed = { scheme: "http", host: "127.0.0.1", port, isInside: true };
  expect((await browser.send("POST", "/api/hosts", allowed)).status).toBe(201);
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const own = (part: Partial<Service> & { path?: string } = {}): Service => {
  const { path = "/", ...rest } = part;
  return {
    name: `own${Math.random()
      .toString(36)
      .replace(/[^a-z]/g, "")}`,
    title: "Own",
    ask: { by: "http", method: "GET", url: `${here}${path}{?town}` },
    inputs: [{ name: "town", kind: "text" }],
    values: [{ name: "day", way: "/day", kind: "text" }],
    ...rest,
  };
};
async function save(service: Service, revision?: number): Promise<Response> {
  return browser.send("PUT", `/api/services/${service.name}`, { service, ...(revision ? { revision } : {}) });
}
const ask = async (name: string, inputs: object = {}, more: object = {}, query = "") => {
  const headers = { "content-type": "application/json" };
  const init = { method: "POST", headers, body: JSON.stringify(inputs), ...more };
  return json(`/v1/services/${name}${query}`, init);
};

describe("the services of the reading network", () => {
  it.each<[string, object, object]>([
    [
      "courier",
      { town: "Tidewell" },
      { outcome: "answered", values: { days: ["Monday", "Tuesday", "Thursday", "Saturday"], next: "Monday" } },
    ],
    ["collection", { town: "Tidewell", books: "3" }, { values: { cost: "2.85", insured: "yes" } }],
    ["route", { from: "-35.184,-21.625", to: "-35.2,-21.6" }, { values: { minutes: expect.stringMatching(/^\d+$/) } }],
    [
      "tides",
      { harbour: "Tidewell", day: "2026-06-01" },
      { values: { high: expect.arrayContaining([expect.any(String)]) } },
    ],
    [
      "tides",
      { harbour: "Tidewell", take: "5", patience: "0.2" },
      { outcome: "slow", values: { high: [], metres: "" } },
    ],
    [
      "register",
      { house: "12", street: "Harbour Row", town: "Tidewell", country: "QR" },
      { outcome: "answered", standing: "otherwise", values: { street: "Harbour Rows", owners: expect.any(Array) } },
    ],
    ["register", { house: "12", street: "Mill Lane", town: "Tidewell" }, { standing: "known" }],
    ["register", { house: "999", street: "Mill Lane", town: "Tidewell" }, { standing: "unknown" }],
    ["register", { house: "3", street: "Storgränd", town: "Vårhamn", country: "QS" }, { outcome: "outside", took: 0 }],
    ["courier", { town: "12" }, { outcome: "none", values: { days: [], next: "" } }],
  ])("%s answers %o", async (name, inputs, expected) => {
    // the tide table takes as long as it is asked to
    const { status, body } = await ask(name, inputs);
    expect(status).toBe(200);
    expect(serviceAnswer.parse(body)).toMatchObject(expected);
  });

  it("refuse what is missing, of another kind, or not theirs", async () => {
    expect(await ask("courier")).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining("town: is missing") },
    });
    expect((await ask("collection", { town: "A", books: "many" })).body.detail).toContain("books: is no number");
    expect((await ask("courier", { town: "A", nonsense: "b" })).body.detail).toContain("no input of this service");
    expect((await ask("baker", {})).status).toBe(404);
    expect((await ask("courier", { town: "x".repeat(5000) })).status).toBe(400);
    expect((await ask("courier", { town: ["a"] })).status).toBe(400);
  });

  it("play how they end, for a try key", async () => {
    const { keys } = shared();
    for (const outcome of ["none", "slow", "down", "refused", "malformed"])
      expect(
        (await ask("courier", { town: "Tidewell" }, { key: keys.try }, `?situation=${outcome}`)).body,
      ).toMatchObject({
        outcome,
        values: { days: [] },
      });
    expect((await ask("courier", { town: "A" }, { key: keys.try }, "?situation=limit")).status).toBe(200);
    expect((await ask("courier", { town: "A" }, {}, "?situation=down")).status).toBe(403);
  });

  it("are called from a page of another origin with a web key", async () => {
    const headers = {
      "content-type": "application/json",
      origin: "http://localhost:3000",
      "sec-fetch-site": "cross-site",
    };
    const path = `/v1/services/courier?access_token=${shared().keys.web}`;
    const preflight = await askWire(path, {
      key: null,
      method: "OPTIONS",
      headers: { origin: headers.origin, "access-control-request-method": "POST" },
    });
    expect(preflight.status).toBe(204);
    const answered = await askWire(path, { key: null, method: "POST", headers, body: '{"town":"Tidewell"}' });
    expect(answered.headers.get("access-control-allow-origin")).toBeTruthy();
    expect((await answered.json()).outcome).toBe("answered");
  });
});

describe("a service of one's own", () => {
  it("is described, called, changed over the revision it was made from, and dropped", async () => {
    answers = ({ url }) => ({ body: JSON.stringify({ day: url }) });
    const service = own();
    const saved = await save(service);
    expect([saved.status, ((await saved.json()) as HeldService).isAllowed]).toEqual([200, true]);
    expect((await ask(service.name, { town: "A & B" })).body.values).toEqual({ day: "/?town=A%20%26%20B" });
    expect((await save(service)).status).toBe(409);
    expect((await save({ ...service, title: "Anew" }, 1)).status).toBe(200);
    expect((await save({ ...service, title: "Late" }, 1)).status).toBe(409);
    const listed = (await (await browser.get("/api/services")).json()).services;
    expect(listed.find(({ name }: { name: string }) => name === service.name)).toMatchObject({
      title: "Anew",
      state: { how: "unasked" },
    });
    expect((await browser.send("DELETE", `/api/services/${service.name}`, {})).status).toBe(204);
    expect((await ask(service.name)).status).toBe(404);
  });

  it("is refused with what is wrong, and not called where nobody has allowed it", async () => {
    const wrong = await save(own({ values: [{ name: "Day", way: "/day", kind: "text" }] }));
    expect([wrong.status, (await wrong.json()).detail]).toEqual([400, expect.stringContaining("lowercase letters")]);
    const away = own({ ask: { by: "http", method: "GET", url: "http://169.254.169.254/latest" } });
    expect(((await (await save(away)).json()) as HeldService).isAllowed).toBe(false);
    expect((await ask(away.name)).body.outcome).toBe("refused");
  });

  it("keeps an answer to the same inputs as long as it says, and no other", async () => {
    answers = ({ url }) => ({ body: JSON.stringify({ day: url }) });
    const service = own({ keep: 60 });
    await save(service);
    count = 0;
    expect((await ask(service.name, { town: "A" })).body.kept).toBe(false);
    expect((await ask(service.name, { town: "A" })).body).toMatchObject({ kept: true, values: { day: "/?town=A" } });
    await ask(service.name, { town: "B" });
    expect(count).toBe(2);
    await save({ ...service, title: "Anew" }, 1);
    await ask(service.name, { town: "A" });
    expect(count).toBe(3);
  });

  it("is requested again where that changes nothing, and left alone where it fails and fails", async () => {
    let left = 1;
    answers = () => (left-- > 0 ? { status: 503 } : { body: '{"day":"Monday"}' });
    const service = own({ again: 1 });
    await save(service);
    expect((await ask(service.name)).body.values.day).toBe("Monday");
    answers = () => ({ status: 500 });
    const post = own({ again: 3, ask: { by: "http", method: "POST", url: here } });
    await save(post);
    count = 0;
    for (let i = 0; i < 6; i++) expect((await ask(post.name)).body.outcome).toBe("down");
    expect(count).toBeLessThanOrEqual(6);
    answers = () => ({ body: '{"day":"Monday"}' });
    expect((await ask(post.name)).body.outcome).toBe("down");
    const listed = (await (await browser.get("/api/services")).json()).services;
    expect(listed.find(({ name }: { name: string }) => name === post.name).state).toMatchObject({ how: "alone" });
  });

  it("is given up where reading its XML takes too long, and lookups go on meanwhile", { tags: ["long"] }, async () => {
    answers = () => ({ type: "text/xml", body: `<a>${"<b><c/></b>".repeat(3000)}</a>` });
    const counting = (way: string) => own({ values: [{ name: "day", way, kind: "number" }] });
    const [endless, plain] = [counting("count(//b[count(//c[count(//b) > 1]) > 1])"), counting("count(//b)")];
    for (const service of [endless, plain]) await save(service);
    let isRead = false;
    const given = ask(endless.name).finally(() => {
      isRead = true;
    });
    let slowest = 0;
    while (!isRead) {
      const began = performance.now();
      expect((await json("/v1/suggest?q=12+harb")).status).toBe(200);
      slowest = Math.max(slowest, performance.now() - began);
    }
    expect((await given).body).toMatchObject({ outcome: "malformed", values: { day: "" } });
    // it was read for five seconds
    expect(slowest).toBeLessThan(2000);
    answers = () => ({ type: "text/xml", body: `<a>${"<b><c/></b>".repeat(50)}</a>` });
    expect((await ask(plain.name)).body).toMatchObject({ outcome: "answered", values: { day: "50" } });
  });

  it("may be called by one key so often a minute", async () => {
    answers = () => ({ body: '{"day":"Monday"}' });
    const service = own({ perMinute: 2 });
    await save(service);
    const statuses = [];
    for (let i = 0; i < 3; i++) statuses.push((await ask(service.name)).status);
    expect(statuses).toEqual([200, 200, 429]);
    expect((await ask(service.name, {}, { key: shared().keys.app })).status).toBe(200);
  });

  it("is tried as it stands, with all that came back", async () => {
    answers = () => ({ body: '{"day":"Monday","more":[1,2]}' });
    const send = (service: Service) =>
      browser.send("POST", `/api/services/${service.name}/try`, { service, inputs: { town: "A" } });
    const tried = triedService.parse(await (await send(own())).json());
    expect(tried).toMatchObject({ outcome: "answered", status: 200, form: "json", values: { day: "Monday" } });
    expect(tried.body).toContain('"more":[1,2]');
    expect(tried.curl).toContain(`${here}/?town=A`);
    answers = () => ({ type: "text/html", body: "<!doctype html>Sign in" });
    const page = triedService.parse(await (await send(own())).json());
    expect(page).toMatchObject({ outcome: "malformed", form: "text", words: "It returned a page instead of data." });
    expect(page.body).toContain("Sign in");
  });

  it("is tried as it is saved by who only edits: where a secret goes is not theirs to say", async () => {
    const name = `Editor ${Math.random().toString(36).slice(2)}`;
    const password = "correct horse battery";
    expect((await browser.send("POST", "/api/people", { name, role: "edit", password })).status).toBe(201);
    const { url } = shared();
    const entered = await fetch(`${url}/sign-in`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name, password }),
    });
    const cookie = entered.headers.get("set-cookie")!.split(";")[0];
    const { csrf } = await (await fetch(`${url}/api/session`, { headers: { cookie } })).json();
    const heard: string[] = [];
    answers = (given) => {
      heard.push(`${given.url} ${given.headers["x-stolen"]}`);
      return { body: '{"day":"Monday"}' };
    };
    const saved = own();
    await save(saved);
    const headers = [{ name: "X-Stolen", value: "{secret.courier-token}" }];
    const service = { ...saved, ask: { by: "http", method: "GET", url: `${here}/elsewhere`, headers } };
    const tried = await fetch(`${url}/api/services/${saved.name}/try`, {
      method: "POST",
      headers: { cookie, "content-type": "application/json", "x-csrf-token": csrf },
      body: JSON.stringify({ service, inputs: { town: "A" } }),
    });
    expect(tried.status).toBe(200);
    expect(heard).toEqual(["/?town=A undefined"]);
  });

  it("is proposed from the WSDL that is pasted", async () => {
    const { services } = await (await browser.get("/api/services")).json();
    const { host } = services.find(({ name }: { name: string }) => name === "register");
    const wsdl = await (await fetch(`${host}/register?wsdl`)).text();
    const { operations } = await (await browser.send("POST", "/api/wsdl", { wsdl })).json();
    expect(operations).toEqual([
      {
        name: "Confirm",
        ask: {
          ...{ by: "soap", version: "1.2", operation: "Confirm", namespace: "urn:land-register:lorramere:1" },
          ...{ url: `${host}/register`, action: "urn:land-register:lorramere:1/Confirm" },
        },
        inputs: [
          { name: "house", kind: "text" },
          { name: "street", kind: "text", required: true },
          { name: "town", kind: "text", required: true },
          { name: "country", kind: "text" },
        ],
      },
    ]);
    expect((await browser.send("POST", "/api/wsdl", { wsdl: "<a/>" })).status).toBe(400);
  });
});

describe("a secret", () => {
  const VALUE = `s3cret-${Math.random().toString(36).slice(2)}-${"x".repeat(20)}`;

  it("goes to the service, and nowhere else: no answer, log, error, file or dump of the database has it", async () => {
    expect((await browser.send("PUT", "/api/secrets/own-token", { value: VALUE })).status).toBe(204);
    let sent = "";
    // a service that says again what it was sent
    answers = ({ headers }) => {
      sent = String(headers.authorization);
      return { body: JSON.stringify({ day: "Monday", heard: headers.authorization }) };
    };
    const headers = [{ name: "Authorization", value: "Bearer {secret.own-token}" }];
    const service = own({ ask: { by: "http", method: "GET", url: here, headers } });
    await save(service);
    const shown = [
      (await ask(service.name)).body,
      await (await browser.send("POST", `/api/services/${service.name}/try`, { service, inputs: {} })).json(),
    ];
    expect(sent).toBe(`Bearer ${VALUE}`);
    answers = () => ({ status: 500, body: VALUE });
    shown.push(await (await browser.send("POST", `/api/services/${service.name}/try`, { service, inputs: {} })).json());
    for (const [name, { method, path }] of Object.entries(OWN_CALLS))
      if (method === "GET" && !path.includes("{") && name !== "jobEvents")
        shown.push(await (await browser.get(`/api${path}`)).text());
    expect(JSON.stringify(shown)).not.toContain(VALUE);
    const files = readdirSync(sharedHome(), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => join(entry.parentPath, entry.name));
    for (const file of files)
      if (statSync(file).size < 50_000_000) expect(readFileSync(file).includes(VALUE), file).toBe(false);
    const tables = ["services", "service_secrets", "service_hosts"].flatMap((table) => ["--table", table]);
    const { stdout } = await promisify(execFile)("pg_dump", [...tables, shared().databaseUrl], { maxBuffer: 2 ** 28 });
    expect(stdout).toContain("own-token");
    expect(stdout).not.toContain(VALUE);
    expect(stdout).not.toContain(Buffer.from(VALUE).toString("hex"));
  });

  it("is named with what asks by it, kept while it is needed, and never read back", async () => {
    const { secrets } = await (await browser.get("/api/secrets")).json();
    expect(secrets.find(({ name }: { name: string }) => name === "courier-token")).toMatchObject({
      isReadable: true,
      services: ["route"],
    });
    expect((await browser.send("DELETE", "/api/secrets/courier-token", {})).status).toBe(409);
    expect((await browser.send("PUT", "/api/secrets/spare", { value: "x" })).status).toBe(204);
    expect((await browser.send("DELETE", "/api/secrets/spare", {})).status).toBe(204);
    expect((await browser.send("PUT", "/api/secrets/Wrong%20name", { value: "x" })).status).toBe(400);
    const missing = own({
      ask: { by: "http", method: "GET", url: here, headers: [{ name: "X-A", value: "{secret.nowhere}" }] },
    });
    await save(missing);
    expect((await ask(missing.name)).body.outcome).toBe("refused");
  });
});

describe("a batch", () => {
  it("checks clear rows against a register, and hands out what it says in columns of their own", {
    tags: ["long"],
  }, async () => {
    const rows =
      "street,town\n12 Harbour Row,Tidewell\nMill Lane 12,Tidewell\nqqqzzz 7,Nowhere\nØstergränd 3,Vårhamn\n";
    const made = await json("/v1/batches?register=register", {
      method: "POST",
      headers: { "content-type": "text/csv" },
      body: rows,
    });
    expect(made.status).toBe(202);
    const path = `/v1/batches/${made.body.id}`;
    await vi.waitFor(async () => expect((await json(path)).body.state).toBe("done"), 30_000);
    const [heads, ...lines] = (await (await askWire(`${path}/rows`)).text()).trim().split("\n");
    expect(heads.trim()).toMatch(/,register,register number,register address$/);
    expect(lines.map((line) => line.trim().split(",").slice(-8).join(","))).toEqual([
      expect.stringMatching(/otherwise,\d-\d+,"12, Harbour Rows, Tidewell"$/),
      expect.stringMatching(/known,\d-\d+,$/),
      expect.stringMatching(/,,$/),
      expect.stringMatching(/outside,,$/),
    ]);
    const geojson = await (await askWire(`${path}/rows?format=geojson`)).json();
    expect(geojson.features[0].properties.found.register).toMatchObject({ standing: "otherwise" });
    const wrong = await json("/v1/batches?register=courier", {
      method: "POST",
      headers: { "content-type": "text/csv" },
      body: rows,
    });
    expect(wrong).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining("there is no register named") },
    });
  });
});
