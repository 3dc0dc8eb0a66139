import type { RequestListener } from "node:http";
import {
  type Attributes,
  context,
  defaultTextMapGetter,
  propagation,
  ROOT_CONTEXT,
  type Span,
  SpanKind,
  SpanStatusCode,
  trace,
} from "@opentelemetry/api";
import type { Knex } from "knex";
import { routeOf } from "../http/log.ts";

/** Traces of what a thread does, sent to a collector by OTLP. Neither paths nor queries nor statements are in them. */
export interface Tracing {
  /** Makes a span of each request, a part of the trace that its `traceparent` names. */
  requests(listener: RequestListener): RequestListener;
  /** Sends what is not sent yet. */
  end(): Promise<void>;
}

const tracer = () => trace.getTracer("bibliotope");

/** Does a piece of work as a span of its own; where no traces are made, it is just done. */
export function inSpan<T>(name: string, attributes: Attributes, work: () => Promise<T>): Promise<T> {
  return tracer().startActiveSpan(name, { attributes }, async (span) => {
    try {
      return await work();
    } catch (error) {
      // what was wrong may hold what was looked up: its kind alone
      span.setStatus({ code: SpanStatusCode.ERROR });
      span.setAttribute("error.type", error instanceof Error ? error.name : "unknown");
      throw error;
    } finally {
      span.end();
    }
  });
}

/**
 * Begins to make traces. Its packages are loaded only then. The sampler, headers of the exporter and the service's name are
 * those of OpenTelemetry's own variables (`OTEL_TRACES_SAMPLER`, `OTEL_EXPORTER_OTLP_HEADERS`, `OTEL_SERVICE_NAME`).
 * @param endpoint of a collector, without `/v1/traces`
 */
export async function startTracing(
  endpoint: string,
  { database, version, thread }: { database: Knex; version: string; thread: number },
): Promise<Tracing> {
  const [sdk, { OTLPTraceExporter }, { defaultResource, detectResources, envDetector, resourceFromAttributes }] =
    await Promise.all([
      import("@opentelemetry/sdk-trace-node"),
      import("@opentelemetry/exporter-trace-otlp-http"),
      import("@opentelemetry/resources"),
    ]);
  const exporter = new OTLPTraceExporter({ url: `${endpoint.replace(/\/$/, "")}/v1/traces` });
  const provider = new sdk.NodeTracerProvider({
    resource: defaultResource()
      .merge(
        resourceFromAttributes({
          "service.name": "bibliotope",
          "service.version": version,
          "service.instance.id": `${process.pid}-${thread}`,
        }),
      )
      .merge(detectResources({ detectors: [envDetector] })),
    spanProcessors: [new sdk.BatchSpanProcessor(exporter)],
  });
  // sets the context that follows asynchronous calls, and the propagator of W3C Trace Context
  provider.register();
  watch(database);
  return { requests, end: () => provider.shutdown().catch(() => undefined) };
}

function requests(listener: RequestListener): RequestListener {
  return (request, response) => {
    const around = propagation.extract(ROOT_CONTEXT, request.headers, defaultTextMapGetter);
    const method = request.method ?? "";
    const options = { kind: SpanKind.SERVER, attributes: { "http.request.method": method } };
    const span = tracer().startSpan(method, options, around);
    response.once("close", () => {
      const route = routeOf(request);
      span.updateName(`${method} ${route}`);
      span.setAttributes({ "http.route": route, "http.response.status_code": response.statusCode });
      if (response.statusCode >= 500) span.setStatus({ code: SpanStatusCode.ERROR });
      span.end();
    });
    context.with(trace.setSpan(around, span), () => listener(request, response));
  };
}

/** What is asked of the database within a span. */
function watch(database: Knex): void {
  const open = new Map<string, Span>();
  const end = ({ __knexQueryUid: id }: Query, isFailed: boolean) => {
    const span = open.get(id);
    open.delete(id);
    if (isFailed) span?.setStatus({ code: SpanStatusCode.ERROR });
    span?.end();
  };
  database.on("query", ({ __knexQueryUid: id, method }: Query) => {
    // what nobody asked for, such as polling for changes, is no trace
    if (!trace.getActiveSpan()) return;
    const attributes = { "db.system.name": "postgresql", "db.operation.name": method ?? "raw" };
    open.set(id, tracer().startSpan(`database ${method ?? "raw"}`, { kind: SpanKind.CLIENT, attributes }));
  });
  database.on("query-response", (_: unknown, query: Query) => end(query, false));
  database.on("query-error", (_: unknown, query: Query) => end(query, true));
}

/** What Knex tells of a query. */
interface Query {
  __knexQueryUid: string;
  method?: string;
}
