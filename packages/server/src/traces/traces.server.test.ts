import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { text } from "node:stream/consumers";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { OwnServer, ownDatabase } from "../../testing/own-server.ts";
import type { Ready } from "../../testing/shared.ts";

/** A span as OTLP has it in JSON: what the tests look at. */
interface Told {
  traceId: string;
  spanId: string;
  parentSpanId?: string;
  name: string;
  kind: number;
  attributes: { key: string; value: Record<string, unknown> }[];
  status?: { code?: number };
}

/** A collector: keeps what it is sent. */
const sent: string[] = [];
const collector = createServer((request, response) => {
  void text(request).then((body) => {
    if (request.url === "/v1/traces") sent.push(body);
    response.writeHead(200, { "content-type": "application/json" }).end("{}");
  });
});
// biome-ignore lint/suspicious/noExplicitAny: a document of another standard, of which a part is read
const resources = (): any[] => sent.flatMap((body) => JSON.parse(body).resourceSpans);
const spans = (): Told[] =>
  resources().flatMap(({ scopeSpans }) => scopeSpans.flatMap((one: { spans: Told[] }) => one.spans));
const attribute = (span: Told, name: string) =>
  Object.values(span.attributes.find(({ key }) => key === name)?.value ?? {})[0];
const TRACE = "4bf92f3577b34da6a3ce929d0e0e4736";
const PARENT = "00f067aa0ba902b7";

describe("traces", { tags: ["long"], timeout: 120_000 }, () => {
  let own: Awaited<ReturnType<typeof ownDatabase>>;
  let server: OwnServer;
  let ready: Ready & { ports: number[] };
  beforeAll(async () => {
    await new Promise<void>((resolve) => collector.listen(0, "127.0.0.1", resolve));
    own = await ownDatabase("traced", "seeded");
    server = new OwnServer(own.url, "seeded", "5750", {
      OTEL_EXPORTER_OTLP_ENDPOINT: `http://127.0.0.1:${(collector.address() as AddressInfo).port}/`,
      OTEL_RESOURCE_ATTRIBUTES: "deployment.environment.name=tests",
      OTEL_BSP_SCHEDULE_DELAY: "200",
      BIBLIOTOPE_THREADS: "2",
    });
    server.start();
    ready = (await server.ready()) as typeof ready;
  });
  afterAll(async () => {
    await server.end("SIGKILL");
    await own.drop();
    collector.close();
  });
  const ask = (path: string, port = ready.ports[0], headers: Record<string, string> = {}) =>
    fetch(`http://localhost:${port}${path}`, { headers: { authorization: `Bearer ${ready.keys.srv}`, ...headers } });

  it("have a span of each request, within the trace that it names, with what the database was asked", async () => {
    const traceparent = `00-${TRACE}-${PARENT}-01`;
    // a ref that no index has: the database is asked whether it ever was one
    await ask("/v1/records/qr-zzzzzz", undefined, { traceparent });
    await ask("/v1/suggest?q=secretquestion", ready.ports[1], { traceparent });
    const ours = () => spans().filter(({ traceId }) => traceId === TRACE);
    await expect.poll(() => ours().filter(({ kind }) => kind === 2).length, { timeout: 20_000 }).toBe(2);
    const [record] = ours().filter(({ name }) => name === "GET /v1/records/{ref}");
    expect(record.parentSpanId).toBe(PARENT);
    expect(attribute(record, "http.route")).toBe("/v1/records/{ref}");
    expect(Number(attribute(record, "http.response.status_code"))).toBe(404);
    const queries = ours().filter(({ parentSpanId }) => parentSpanId === record.spanId);
    expect(queries.length).toBeGreaterThan(0);
    for (const query of queries) expect(attribute(query, "db.system.name")).toBe("postgresql");
    const [suggest] = ours().filter(({ name }) => name === "GET /v1/suggest");
    expect(suggest.parentSpanId).toBe(PARENT);
  });

  it("begin a trace of their own where none is named, or what is named is none", async () => {
    const count = () =>
      spans().filter(({ name, parentSpanId }) => name === "GET /v1/countries" && !parentSpanId).length;
    await ask("/v1/countries");
    await ask("/v1/countries", undefined, { traceparent: "00-zz-xx-01" });
    await expect.poll(count, { timeout: 20_000 }).toBe(2);
  });

  it("say which thread of which version made them, and have neither what was looked up nor a key", async () => {
    const told = sent.join("\n");
    const of = resources().map(({ resource }) => JSON.stringify(resource));
    expect(of.every((one) => one.includes('"bibliotope"') && one.includes("deployment.environment.name"))).toBe(true);
    expect(new Set(of.map((one) => /service\.instance\.id[^}]*?-(\d)"/.exec(one)?.[1]))).toEqual(new Set(["1", "2"]));
    for (const secret of ["secretquestion", "qr-zzzzzz", ready.keys.srv, "select "]) expect(told).not.toContain(secret);
  });

  it("send what is left when the server ends", async () => {
    const before = spans().length;
    await ask("/v1/countries");
    expect(await server.end("SIGTERM")).toBe(0);
    expect(spans().length).toBeGreaterThan(before);
  });
});
