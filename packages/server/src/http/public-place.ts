import type { IncomingMessage, RequestListener } from "node:http";
import type { TLSSocket } from "node:tls";

/** How people reach this server: by itself, or at an address of a proxy before it. */
export interface PublicPlace {
  /** Scheme, host and port where people find it, where that is not what a request has. */
  origin?: string | undefined;
  /** The path that it is served under, as "/addresses"; empty at the top of a host. */
  path: string;
  /** Whose word is taken for where a request comes from: so many proxies, or those at these addresses; nobody's when false. */
  trusted: false | number | string;
  /** The port by which people know the process, for threads of it that listen on others. */
  port?: number;
}

/** Paths of one or more plain segments, with or without a slash at the end. */
const BASE_PATH = /^(?:\/[\w~-][\w.~-]*)*\/?$/;
/** First segments of paths that the server answers itself: under one of them it could not tell whether a proxy cut the path. */
const OWN_SEGMENT =
  /^\/(?:v1|api|kit|f|p|pick|problems|assets|sign-in|forms|lookups|data|batches|services|values|keys|pieces|healthz|readyz)(?:\/|$)/i;

/**
 * Reads the public URL of the server: scheme, host, port and the path that it is served under.
 * @throws RangeError with the format; its words follow what was given
 */
export function readPublicUrl(text: string): Required<Pick<PublicPlace, "origin" | "path">> {
  const url = URL.canParse(text) ? new URL(text) : undefined;
  const isPlain = url && !url.username && !url.password && !url.search && !url.hash && BASE_PATH.test(url.pathname);
  if (!url || !isPlain || !/^https?:$/.test(url.protocol))
    throw new RangeError(
      "is not a URL. Write scheme, host and port, with a path if there is one: https://members.example/addresses",
    );
  if (OWN_SEGMENT.test(url.pathname))
    throw new RangeError("has a path that starts like one of the server's own. Choose another, for example /addresses");
  return { origin: url.origin, path: url.pathname.replace(/\/$/, "") };
}

const ADDRESS = /^(?:loopback|linklocal|uniquelocal|[\d.]+(?:\/\d+)?|[\da-f:]+(?:\/\d+)?)$/i;

/**
 * Reads whose word is taken for where a request comes from.
 * @throws RangeError with the format; its words follow what was given
 */
export function readTrust(text: string): PublicPlace["trusted"] {
  if (/^\s*[1-9]\s*$/.test(text)) return Number(text);
  const names = text.split(",").map((name) => name.trim());
  if (names.every((name) => ADDRESS.test(name) && !/^\d$/.test(name))) return names.join(", ");
  throw new RangeError(
    "does not name proxies. Write how many are in front of this server (1), or their addresses: loopback, 10.0.0.0/8",
  );
}

/** Where a request found this server, as whoever asks reaches it. */
export function originOf({ socket, headers }: IncomingMessage, { origin }: PublicPlace): string {
  if (origin) return origin;
  return `${(socket as Partial<TLSSocket>).encrypted ? "https" : "http"}://${headers.host ?? "localhost"}`;
}

/** The port where people find it, where that is said. */
export function portOf({ origin, port: own }: PublicPlace): number | undefined {
  if (!origin) return own;
  const { protocol, port } = new URL(origin);
  return Number(port || (protocol === "https:" ? 443 : 80));
}

/** The address that a request found this server under, without a slash at the end. */
export const addressOf = (request: IncomingMessage, place: PublicPlace) => `${originOf(request, place)}${place.path}`;

const paths = new WeakMap<IncomingMessage, string>();

/** The path that a request's server is served under; empty at the top of a host. */
export const basePathOf = (request: IncomingMessage) => paths.get(request) ?? "";

/**
 * Takes the path that the server is served under off each request, so that everything behind answers as at the top of a
 * host. Requests without it are answered too: some proxies cut it off themselves.
 */
export function underPath({ path }: PublicPlace, listener: RequestListener): RequestListener {
  if (!path) return listener;
  return (request, response) => {
    const { url = "/" } = request;
    paths.set(request, path);
    if (url.startsWith(`${path}/`)) request.url = url.slice(path.length);
    // without the slash, what a page names beside itself would lie elsewhere
    else if (url === path || url.startsWith(`${path}?`)) {
      response.writeHead(308, { location: `${path}/${url.slice(path.length)}` }).end();
      return;
    }
    listener(request, response);
  };
}

/** Where a browser makes and uses passkeys: they are for a host, whatever its port. */
export function passkeyPlaceOf(request: IncomingMessage, place: PublicPlace): { origin: string; host: string } {
  const origin = originOf(request, place);
  return { origin, host: new URL(origin).hostname };
}

/** True where people come over TLS alone. */
export const isSafe = ({ origin }: PublicPlace) => origin?.startsWith("https:") ?? false;
