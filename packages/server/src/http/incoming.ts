import type { IncomingMessage, ServerResponse } from "node:http";
import type { Engine } from "@bibliotope/core/search";
import type { AsksOf, Call, CallName, PathPart, Situation } from "@bibliotope/wire";
import { CALLS } from "@bibliotope/wire";
import accepts from "accepts";
import type { StoredKey } from "../keys/keys.repository.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import { notReady } from "./engine.ts";
import { goneSignal } from "./gone.ts";
import { queryOf } from "./read-request.ts";
import { SeenEngine } from "./seen-engine.ts";
import type { Reply } from "./send-reply.ts";

/** A request of the wire on the way to the answer, whatever carries it. */
export class Incoming<N extends CallName = CallName> {
  #query: URLSearchParams | undefined;
  /** The key that it came with, once that is checked. */
  key!: StoredKey;
  /** The request, once that is read. */
  params!: AsksOf<N>;
  /** What a try key wants played. */
  situation: Situation | undefined;
  /** What it was answered, once it was. */
  reply: Reply | undefined;
  /** The name under which its answer may be kept. */
  keepAs: string | undefined;
  /** The engine that it asked. */
  engineAsked: Engine | undefined;

  constructor(
    readonly name: N,
    /** What is in the path. */
    readonly parts: Readonly<Record<PathPart<N>, string>>,
    /** The address as it was requested, with the query string. */
    readonly url: string,
    readonly request: IncomingMessage,
    readonly response: ServerResponse,
    private readonly index: LiveIndex,
  ) {}

  /** Its query string. */
  get query(): URLSearchParams {
    this.#query ??= queryOf(this.url);
    return this.#query;
  }

  get call(): Call {
    return CALLS[this.name];
  }

  /** True for a question in the query string. */
  get isGet(): boolean {
    return isGet(this.request);
  }

  /** True while no index is open. */
  get isEmpty(): boolean {
    return !this.index.engine;
  }

  /** The engine as the key may see it. @throws HttpProblem 503 while no index is open */
  get engine(): SeenEngine {
    const { engine } = this.index;
    this.engineAsked = engine;
    if (engine) return new SeenEngine(engine, this.key);
    throw notReady(this.index);
  }

  /** Ends when the client goes away before it has its answer. */
  get gone(): AbortSignal {
    return goneSignal(this.response);
  }

  /** Asked languages, from `lang` or else from Accept-Language. */
  languages(lang?: readonly string[]): readonly string[] {
    if (lang) return lang;
    if (this.request.headers["accept-language"] === undefined) return [];
    return accepts(this.request)
      .languages()
      .filter((tag) => tag !== "*");
  }

  /** Which of some media types is wanted most, by the Accept header; the first where it does not say. */
  wants(types: readonly string[]): string | undefined {
    const { accept } = this.request.headers;
    if (accept === undefined || accept === "*/*") return types[0];
    const wanted = accepts(this.request).type([...types]);
    return typeof wanted === "string" ? wanted : undefined;
  }
}

export const isGet = ({ method }: IncomingMessage) => method === "GET" || method === "HEAD";

/** A header that may stand once. */
export const headerOf = ({ headers }: IncomingMessage, name: string): string | undefined => {
  const value = headers[name];
  return Array.isArray(value) ? value[0] : value;
};
