import type { Request, RequestHandler } from "express";
import { allowsOrigin, type KeyRing } from "../keys/key-ring.ts";
import type { HeldKey } from "../keys/keys.repository.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import { countUse } from "./count-use.ts";
import { HttpProblem } from "./problem.ts";

/** Lets a request through whose key is known and may be used from where it comes. */
export function checkKey(ring: KeyRing, counter: UseCounter): RequestHandler {
  return (request, response, next) => {
    const given = keyOf(request);
    if (!given) {
      throw new HttpProblem(
        "no-key",
        "Send a key: from servers Authorization: Bearer bt_srv_…, from pages access_token=bt_web_….",
        undefined,
        { "WWW-Authenticate": "Bearer" },
      );
    }
    const key = ring.find(given);
    if (!key) {
      throw new HttpProblem(
        "no-key",
        "This key is not known, or was withdrawn. Copy it again from the workbench.",
        undefined,
        { "WWW-Authenticate": 'Bearer error="invalid_token"' },
      );
    }
    countUse(request, response, counter, key);
    if (key.endsAt && key.endsAt.getTime() <= Date.now())
      throw new HttpProblem(
        "no-key",
        `The key “${key.name}” ended on ${key.endsAt.toISOString().slice(0, 10)}. Make another in the workbench, or let it go on for longer.`,
        undefined,
        { "WWW-Authenticate": 'Bearer error="invalid_token"' },
      );
    checkPlace(request, key);
    checkCall(request, key);
    response.locals.key = key;
    ring.used(key);
    next();
  };
}

function keyOf(request: Request): string | undefined {
  const bearer = /^Bearer +(\S+)$/i.exec(request.get("Authorization") ?? "")?.[1];
  if (bearer) return bearer;
  const token = request.query.access_token;
  return typeof token === "string" && token ? token : undefined;
}

/** @throws HttpProblem when the key is kept to other kinds of lookup */
function checkCall({ path }: Request, { name, calls }: HeldKey): void {
  if (!calls.length || (calls as string[]).includes(path.split("/")[1])) return;
  throw new HttpProblem(
    "not-allowed",
    `The key “${name}” is for ${calls.join(", ")} only. Allow it more in the workbench, or use another key.`,
  );
}

/** @throws HttpProblem when a key of this kind may not be used from there */
function checkPlace(request: Request, key: HeldKey): void {
  const origin = request.get("Origin");
  const site = request.get("Sec-Fetch-Site");
  if (key.kind === "try") return;
  if (key.kind === "web") {
    checkPage(request, key, origin, site);
    return;
  }
  if (origin === undefined && site === undefined) return;
  const kind = key.kind === "srv" ? "server" : "program";
  throw new HttpProblem(
    "not-allowed",
    `This is a ${kind} key, and it came from a page where everybody can read it. Withdraw it, and use a web key there.`,
  );
}

function checkPage(request: Request, key: HeldKey, origin: string | undefined, site: string | undefined): void {
  if (origin === undefined) {
    if (site === "same-origin") return;
    throw new HttpProblem(
      "not-allowed",
      "This is a web key: it is for pages in a browser, and this request says no origin. From a server, use a server key.",
    );
  }
  if (origin === `${request.protocol}://${request.get("Host")}` || allowsOrigin(key, origin)) return;
  throw new HttpProblem(
    "not-allowed",
    `The key “${key.name}” may not be used from ${origin.slice(0, 200)}. Add that origin to the key in the workbench, or use another key.`,
  );
}
