import type { IncomingMessage, ServerResponse } from "node:http";
import { type CallName, openApi } from "@bibliotope/wire";
import express, { type Request, type Response } from "express";
import type { KeyRing } from "../keys/key-ring.ts";
import type { Permits } from "../keys/permits.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import type { Metrics } from "../metrics/metrics.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import { Busy } from "./busy.ts";
import { type CallAt, OPENAPI_PATH } from "./call-paths.ts";
import { callOf } from "./calls.ts";
import { openToPages } from "./cors.ts";
import { countUse } from "./count-use.ts";
import { Incoming, isGet } from "./incoming.ts";
import { KeptReplies } from "./kept-replies.ts";
import { checkKey, keyOf } from "./key-check.ts";
import { takePermits } from "./limit.ts";
import { BODY_LIMIT, failWith } from "./problem.ts";
import type { PublicPlace } from "./public-place.ts";
import { bodyOf, read, wordsOf } from "./read-request.ts";
import { type Reply, type Streamed, sendReply } from "./send-reply.ts";
import { play, situationOf } from "./situations.ts";
import { WaitingLine } from "./waiting-line.ts";

/** Answers one call. */
type Handler<N extends CallName> = (incoming: Incoming<N>) => Reply | Streamed | Promise<Reply> | Promise<Streamed>;
/** One for every call of the wire: the compiler finds a missing one. */
export type Handlers = { readonly [N in CallName]: Handler<N> };

interface Needs {
  version: string;
  index: LiveIndex;
  ring: KeyRing;
  permits: Permits;
  counter: UseCounter;
  metrics?: Metrics;
  place: PublicPlace;
  /** False to ask the engine each time, to measure that. */
  keepsReplies?: boolean;
}

const readJson = express.json({ limit: BODY_LIMIT, strict: false });

/** Made once: a refusal is to cost next to nothing. */
const TOO_MUCH = new Busy(1);

/**
 * The wire over HTTP: what a request of /v1 meets, in this order, from the path to the answer. Needs nothing of Express, so
 * that lookups may be carried without it.
 */
export class Wire {
  readonly #openApi: Reply;
  readonly #kept: KeptReplies;
  readonly #line = new WaitingLine();

  constructor(
    private readonly needs: Needs,
    private readonly handlers: Handlers,
  ) {
    this.#openApi = { mediaType: "application/json", body: JSON.stringify(openApi(needs.version)) };
    this.#kept = new KeptReplies(needs.index, needs.keepsReplies);
  }

  /** How many questions were made whose answers may be kept, and how many of them were. */
  get keptCounts(): Readonly<{ requests: number; kept: number }> {
    return this.#kept.counts;
  }

  /** Answers a request, whatever comes: it never fails. @param url of the request, with the query string */
  carry(request: IncomingMessage, response: ServerResponse, url: string): void {
    try {
      if (openToPages(request, response)) return;
      const path = url.split("?", 1)[0];
      if (path === OPENAPI_PATH && isGet(request)) {
        sendReply(request, response, this.#openApi);
        return;
      }
      const found = callOf(path, request.method);
      const answer = () => void this.#send(found, request, response, url);
      if (found.call.tag !== "Lookups") answer();
      else if (!this.#line.enter(answer, () => response.closed)) {
        this.needs.metrics?.turnedAway();
        throw TOO_MUCH;
      }
    } catch (error) {
      failWith(error, request, response);
    }
  }

  async #send(found: CallAt, request: IncomingMessage, response: ServerResponse, url: string): Promise<void> {
    try {
      const reply = await this.#answer(this.#incoming(found, request, response, url));
      if ("stream" in reply) await reply.stream(response);
      else sendReply(request, response, reply);
    } catch (error) {
      failWith(error, request, response);
    }
  }

  /** With its key, which may do this. */
  #incoming({ name, call, parts }: CallAt, request: IncomingMessage, response: ServerResponse, url: string): Incoming {
    const { ring, index, place } = this.needs;
    const incoming = new Incoming(name, parts as never, url, request, response, index);
    incoming.key = keyOf(incoming, ring);
    if (!call.key.always)
      countUse(response, this.needs, incoming.key, incoming.call.key.as as never, () => incoming.reply);
    checkKey(request, call, incoming.key, place);
    ring.used(incoming.key);
    return incoming;
  }

  async #answer(incoming: Incoming): Promise<Reply | Streamed> {
    const { response, call, key } = incoming;
    const permits = takePermits(this.needs.permits, call, key);
    const headers = permits instanceof Promise ? await permits : permits;
    for (const name in headers) response.setHeader(name, headers[name]);
    const kept = this.#kept.find(incoming);
    if (kept) {
      incoming.reply = kept;
      return kept;
    }
    const sent = incoming.isGet || call.takes ? wordsOf(incoming.query) : await bodyOfCall(incoming);
    const words = call.formerly?.params?.(sent) ?? sent;
    incoming.situation = situationOf(incoming);
    if (incoming.situation && call.plays !== "itself") await play(incoming.situation);
    const { asks } = (!incoming.isGet && call.many) || call;
    if (asks) incoming.params = read(words, asks) as never;
    const reply = await (this.handlers[incoming.name] as Handler<CallName>)(incoming);
    if ("stream" in reply) return reply;
    incoming.reply = reply;
    this.#kept.keep(incoming, reply);
    return reply;
  }
}

/** Reads a body of JSON. @throws HttpProblem for another one */
async function bodyOfCall({ request, response }: Incoming): Promise<Record<string, unknown>> {
  await new Promise<void>((resolve, reject) => {
    readJson(request as Request, response as Response, (error: unknown) => (error ? reject(error) : resolve()));
  });
  return bodyOf(request, (request as Request).body);
}
