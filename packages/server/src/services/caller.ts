import type { AllowedHost } from "@bibliotope/wire";
import { Agent, type Dispatcher, errors, request } from "undici";
import { textDecoder } from "../text-decoder.ts";
import { CallFailed, type CameBack } from "./call-failed.ts";
import { addressesOf, allowedFor, guardedLookup, type Resolve } from "./guard.ts";

/** A request as it leaves. */
export interface OutRequest {
  method: string;
  url: string;
  headers: Record<string, string>;
  body?: string;
}

/** Bytes that are read of an answer, and times that it may send us on within the host. */
const [MOST_BYTES, MOST_HOPS] = [2 ** 20, 3];
/** Milliseconds for which a connection is kept for the next request. */
const KEEP_ALIVE = 10_000;

/** Asks outside services: no further than is allowed, no longer and no more than is good. */
export class Caller {
  readonly #agents = new Map<boolean, Agent>();

  /**
   * @param hosts those that may be called, as they are now
   * @param resolve finds the addresses of a name; the system when not given
   */
  constructor(
    private readonly hosts: () => readonly AllowedHost[],
    private readonly resolve?: Resolve,
  ) {}

  /** @throws CallFailed for whatever is no answer @param limit milliseconds for all of it */
  async call(out: OutRequest, limit: number): Promise<CameBack> {
    const late = AbortSignal.timeout(Math.ceil(limit));
    try {
      return await this.#follow(out, late, MOST_HOPS);
    } catch (error) {
      if (late.aborted)
        throw new CallFailed("slow", `It did not respond within ${Math.round(limit / 100) / 10} seconds.`);
      throw failureOf(error);
    }
  }

  async close(): Promise<void> {
    await Promise.all([...this.#agents.values()].map((agent) => agent.destroy()));
  }

  async #follow(out: OutRequest, signal: AbortSignal, hops: number): Promise<CameBack> {
    const url = new URL(out.url);
    const { isInside } = allowedFor(url, this.hosts());
    // an address that is written as one is never looked up
    await addressesOf(url.hostname, isInside, this.resolve);
    const { statusCode, headers, body } = await request(url, {
      method: out.method as Dispatcher.HttpMethod,
      headers: { "accept-encoding": "identity", "user-agent": "Bibliotope", ...out.headers },
      body: out.body,
      signal,
      dispatcher: this.#agent(isInside),
    });
    if (statusCode >= 300 && statusCode < 400 && headers.location) {
      await body.dump();
      const next = new URL(String(headers.location), url);
      if (next.origin !== url.origin)
        throw new CallFailed("refused", `It redirects to another host, ${next.host}, which is not allowed.`);
      if (!hops) throw new CallFailed("malformed", "It redirects too often.");
      const isSame = statusCode === 307 || statusCode === 308 || out.method === "GET";
      const on = isSame ? out : { method: "GET", headers: out.headers };
      return this.#follow({ ...on, url: next.href }, signal, hops - 1);
    }
    const all = Object.entries(headers).flatMap(([name, value]) =>
      [value].flat().map((one) => ({ name, value: String(one ?? "") })),
    );
    const encoding = String(headers["content-encoding"] ?? "identity");
    if (encoding !== "identity")
      throw new CallFailed("malformed", `Its response is compressed (${encoding}) although that was not requested.`);
    const type = String(headers["content-type"] ?? "");
    const bytes = await readAll(body);
    return {
      status: statusCode,
      headers: all,
      mediaType: type.split(";")[0].trim().toLowerCase(),
      text: decode(bytes, type),
    };
  }

  #agent(isInside: boolean): Agent {
    let agent = this.#agents.get(isInside);
    if (!agent) {
      agent = new Agent({
        connect: { lookup: guardedLookup(isInside, this.resolve), timeout: 30_000 },
        keepAliveTimeout: KEEP_ALIVE,
        maxHeaderSize: 32 * 1024,
        headersTimeout: 35_000,
        bodyTimeout: 35_000,
        pipelining: 1,
      });
      this.#agents.set(isInside, agent);
    }
    return agent;
  }
}

async function readAll(body: Dispatcher.ResponseData["body"]): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of body) {
    bytes += chunk.length;
    if (bytes > MOST_BYTES) {
      body.destroy();
      throw new CallFailed("malformed", "Its response is larger than one megabyte.");
    }
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** The text of an answer, in the charset that it names, or that its XML does. */
function decode(bytes: Buffer, type: string): string {
  const declared = /^\s*<\?xml[^>]*\bencoding=["']([\w.-]+)["']/.exec(bytes.subarray(0, 200).toString("latin1"))?.[1];
  const charset = /;\s*charset="?([\w.:-]+)/i.exec(type)?.[1] ?? declared ?? "utf-8";
  try {
    return textDecoder(charset, true).decode(bytes);
  } catch {
    throw new CallFailed("malformed", `Its response is not text in ${charset}.`);
  }
}

const CERTIFICATE = /CERT|SELF_SIGNED|UNABLE_TO_VERIFY|ALTNAME/;

function failureOf(error: unknown): CallFailed {
  if (error instanceof CallFailed) return error;
  const { code = "", message, cause } = error as NodeJS.ErrnoException & { cause?: unknown };
  if (cause instanceof CallFailed) return cause;
  if (CERTIFICATE.test(code)) return new CallFailed("down", `Its certificate is not valid (${code}).`);
  if (error instanceof errors.HeadersOverflowError) return new CallFailed("malformed", "Its headers are too large.");
  if (error instanceof errors.InvalidArgumentError)
    return new CallFailed("malformed", `The request cannot be sent: ${message}.`);
  if (code === "ECONNREFUSED") return new CallFailed("down", "Nothing listens there.");
  if (/other side closed|terminated|ECONNRESET|UND_ERR_SOCKET/.test(`${message} ${code}`))
    return new CallFailed("down", "It closed the connection early.");
  return new CallFailed("down", `It does not respond (${code || message}).`);
}
