import type { IncomingMessage, ServerResponse } from "node:http";
import etag from "etag";
import fresh from "fresh";

/** An answer as it is sent. */
export interface Reply {
  status?: number;
  mediaType: string;
  /** Text goes out in UTF-8. */
  body: string | Uint8Array;
  cache?: string;
  /** Headers of the request on which it depends. */
  varies?: readonly string[];
  /** Milliseconds in the engine; equal questions get equal bytes, so it is in a header. */
  took?: number;
  headers?: Readonly<Record<string, string>>;
  /** How a lookup ended, and how many characters were typed before a record was chosen: for the counts. */
  outcome?: unknown;
  typed?: number;
  /** Worked out when it is first sent. */
  tag?: string;
}

/** An answer that is written as it is read. */
export interface Streamed {
  stream(response: ServerResponse): Promise<void>;
}

/** Bytes from which an answer is compressed: less goes out in the first flight of a connection, sooner as it is. */
export const COMPRESSED_FROM = 12_288;

/** Answers that nothing compresses yet, each with what does so. */
export const bare = new WeakMap<ServerResponse, (request: IncomingMessage, response: ServerResponse) => void>();

/** Every answer names the origin that it is for. */
export const VARIES_ANYWAY = ["Origin"];

/** Sends an answer: with the ETag, as 304 to whoever has it, without the body to HEAD. */
export function sendReply(request: IncomingMessage, response: ServerResponse, reply: Reply): void {
  const { status = 200, mediaType, body, cache, varies, took, headers } = reply;
  reply.tag ??= etag(body as Buffer | string, { weak: true });
  for (const name in headers) response.setHeader(name, headers[name]);
  if (took !== undefined) response.setHeader("Server-Timing", `engine;dur=${took.toFixed(2)}`);
  if (cache) response.setHeader("Cache-Control", cache);
  if (varies) response.setHeader("Vary", [...VARIES_ANYWAY, ...varies].join(", "));
  response.setHeader("ETag", reply.tag);
  response.statusCode = status;
  const isAsked = request.method === "GET" || request.method === "HEAD";
  if (isAsked && status === 200 && fresh(request.headers, { etag: reply.tag })) {
    response.statusCode = 304;
    response.end();
    return;
  }
  response.setHeader("Content-Type", typeof body === "string" ? `${mediaType}; charset=utf-8` : mediaType);
  const length = Buffer.byteLength(body as Buffer | string);
  response.setHeader("Content-Length", length);
  const squeeze = bare.get(response);
  if (squeeze && length >= COMPRESSED_FROM) squeeze(request, response);
  // the compressing middleware sets Vary on all that it might compress
  else if (squeeze) response.setHeader("Vary", `${response.getHeader("Vary")}, Accept-Encoding`);
  if (request.method === "HEAD") response.end();
  else response.end(body);
}
