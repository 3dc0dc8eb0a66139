import type { IncomingMessage } from "node:http";
import type { Call } from "@bibliotope/wire";
import { allowsOrigin, type KeyRing } from "../keys/key-ring.ts";
import { hasEnded, type StoredKey } from "../keys/keys.repository.ts";
import { headerOf, type Incoming } from "./incoming.ts";
import { HttpProblem } from "./problem.ts";
import { originOf, type PublicPlace } from "./public-place.ts";

/** The key that a request came with. @throws HttpProblem where it has none, or one that is not known */
export function keyOf(incoming: Incoming, ring: KeyRing): StoredKey {
  const { authorization } = incoming.request.headers;
  const given = bearerOf(authorization) ?? tokenOf(incoming);
  if (!given) {
    throw new HttpProblem(
      "no-key",
      "Send a key: servers use the header Authorization: Bearer bt_srv_…, pages the parameter access_token=bt_web_….",
      undefined,
      { "WWW-Authenticate": "Bearer" },
    );
  }
  const key = ring.find(given);
  if (key) return key;
  throw new HttpProblem("no-key", "This key is unknown or was revoked. Copy it again from the workbench.", undefined, {
    "WWW-Authenticate": 'Bearer error="invalid_token"',
  });
}

const bearerOf = (authorization = "") => /^Bearer +(\S+)$/i.exec(authorization)?.[1];

/** The key in the query string; most stand there plainly, and reading all of it would cost more than the rest. */
function tokenOf(incoming: Incoming): string | null | undefined {
  return /[?&]access_token=([\w-]+)(?:&|$)/.exec(incoming.url)?.[1] ?? incoming.query.get("access_token");
}

/** @throws HttpProblem when a key has ended, may not be used from where the request comes, or not for this call */
export function checkKey(request: IncomingMessage, call: Call, key: StoredKey, place: PublicPlace): void {
  if (key.endsAt && hasEnded(key))
    throw new HttpProblem(
      "no-key",
      `The key “${key.name}” expired on ${key.endsAt.toISOString().slice(0, 10)}. Create another one in the workbench, or extend it.`,
      undefined,
      { "WWW-Authenticate": 'Bearer error="invalid_token"' },
    );
  checkPlace(request, key, place);
  checkCall(call, key);
}

/** Whether a key may ask for a call. */
export function mayAsk({ key: { as, kinds, always } }: Call, { kind, calls }: StoredKey): boolean {
  if (always) return true;
  return (!kinds || kinds.includes(kind)) && (!calls.length || (calls as string[]).includes(as));
}

/** @throws HttpProblem when the call is for other kinds of key, or the key is kept to other kinds of lookup */
function checkCall(call: Call, key: StoredKey): void {
  if (mayAsk(call, key)) return;
  const { kinds } = call.key;
  const { kind, name, calls } = key;
  if (kinds && !kinds.includes(kind))
    throw new HttpProblem(
      "not-allowed",
      `This call needs a key of the kind ${kinds.map((one) => `bt_${one}_`).join(", ")}: the key “${name}” can be read by others.`,
    );
  throw new HttpProblem(
    "not-allowed",
    `The key “${name}” allows only ${calls.join(", ")}. Change it in the workbench, or use another key.`,
  );
}

/** @throws HttpProblem when a key of this kind may not be used from there */
function checkPlace(request: IncomingMessage, key: StoredKey, place: PublicPlace): void {
  const { origin } = request.headers;
  const site = headerOf(request, "sec-fetch-site");
  if (key.kind === "try") return;
  if (key.kind === "web" || key.kind === "view") {
    checkPage(key, { origin, site, own: originOf(request, place) });
    return;
  }
  if (origin === undefined && site === undefined) return;
  const kind = key.kind === "srv" ? "server" : "program";
  throw new HttpProblem(
    "not-allowed",
    `This ${kind} key was sent from a page, where anyone can read it. Revoke it and use a web key there.`,
  );
}

function checkPage(
  key: StoredKey,
  { origin, site, own }: { origin: string | undefined; site: string | undefined; own: string },
): void {
  if (origin === undefined) {
    if (site === "same-origin") return;
    throw new HttpProblem(
      "not-allowed",
      "This key is for pages in a browser, but the request has no origin. On a server, use a server key.",
    );
  }
  if (origin === own || allowsOrigin(key, origin)) return;
  throw new HttpProblem(
    "not-allowed",
    `The key “${key.name}” does not allow ${origin.slice(0, 200)}. Add that origin to the key in the workbench, or use another key.`,
  );
}
