import type { IncomingMessage } from "node:http";
import type { TLSSocket } from "node:tls";

/** How people reach this server: by itself, or at an address of a proxy before it. */
export interface PublicPlace {
  /** Scheme, host and port where people find it, where that is not what a request says. */
  origin?: string | undefined;
  /** Whose word is taken for where a request comes from: so many proxies, or those at these addresses; nobody's when false. */
  trusted: false | number | string;
}

/**
 * Reads where people find the server.
 * @throws RangeError that says how it is written; its words follow what was given
 */
export function readOrigin(text: string): string {
  const url = URL.canParse(text) ? new URL(text) : undefined;
  const isPlain = url && !url.username && !url.password && url.pathname === "/" && !url.search && !url.hash;
  if (url && isPlain && /^https?:$/.test(url.protocol)) return url.origin;
  throw new RangeError("is no address of a server. Write scheme, host and port alone: https://addresses.example");
}

const ADDRESS = /^(?:loopback|linklocal|uniquelocal|[\d.]+(?:\/\d+)?|[\da-f:]+(?:\/\d+)?)$/i;

/**
 * Reads whose word is taken for where a request comes from.
 * @throws RangeError that says how it is written; its words follow what was given
 */
export function readTrust(text: string): PublicPlace["trusted"] {
  if (/^\s*[1-9]\s*$/.test(text)) return Number(text);
  const names = text.split(",").map((name) => name.trim());
  if (names.every((name) => ADDRESS.test(name) && !/^\d$/.test(name))) return names.join(", ");
  throw new RangeError(
    "names no proxies. Write how many stand before this server (1), or their addresses: loopback, 10.0.0.0/8",
  );
}

/** Where a request found this server, as whoever asks reaches it. */
export function originOf({ socket, headers }: IncomingMessage, { origin }: PublicPlace): string {
  if (origin) return origin;
  return `${(socket as Partial<TLSSocket>).encrypted ? "https" : "http"}://${headers.host ?? "localhost"}`;
}

/** Where a browser makes and uses passkeys: they are for a host, whatever its port. */
export function passkeyPlaceOf(request: IncomingMessage, place: PublicPlace): { origin: string; host: string } {
  const origin = originOf(request, place);
  return { origin, host: new URL(origin).hostname };
}

/** True where people come over TLS alone. */
export const isSafe = ({ origin }: PublicPlace) => origin?.startsWith("https:") ?? false;
