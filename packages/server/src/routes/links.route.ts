import { shortLine } from "@bibliotope/core/form";
import type { Position } from "@bibliotope/core/geo";
import { CALLS, type Call, type KeyKind, type LinkRequest, type StillRequest } from "@bibliotope/wire";
import type { Request, Response, Router } from "express";
import type { Knex } from "knex";
import QRCode from "qrcode";
import { countUse } from "../http/count-use.ts";
import { notReady } from "../http/engine.ts";
import { goneSignal } from "../http/gone.ts";
import type { Incoming } from "../http/incoming.ts";
import { mayAsk } from "../http/key-check.ts";
import { takePermits } from "../http/limit.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { addressOf, type PublicPlace } from "../http/public-place.ts";
import { jsonReply } from "../http/reply.ts";
import { exactRouter } from "../http/router.ts";
import { SeenEngine } from "../http/seen-engine.ts";
import type { Reply } from "../http/send-reply.ts";
import type { Handlers } from "../http/wire.ts";
import type { KeyRing } from "../keys/key-ring.ts";
import { hasEnded, type StoredKey } from "../keys/keys.repository.ts";
import type { Permits } from "../keys/permits.ts";
import type { UseCounter } from "../keys/use-counter.ts";
import { type Link, linkOf, tokenOf } from "../links/link.ts";
import type { LinkKeys } from "../links/link-keys.ts";
import { placePage } from "../links/place-page.ts";
import { placeLanguage } from "../links/place-words.ts";
import type { Metrics } from "../metrics/metrics.ts";
import type { LiveIndex } from "../publication/live-index.ts";
import type { TileMaker } from "../tiles/map-tiles.ts";
import { drawStill, recordOf } from "./still.route.ts";

/** Hours that a link of a key lasts at most which others can read: its page could as well ask anew. */
const OF_PAGES = 24;
const HOUR = 3600;

interface Needs {
  database: Knex;
  index: LiveIndex;
  tiles: TileMaker;
  ring: KeyRing;
  permits: Permits;
  counter: UseCounter;
  metrics?: Metrics;
  linkKeys: LinkKeys;
  place: PublicPlace;
}

/** Makes links that show one place to whoever has them. */
export function linkHandlers({ database, linkKeys, place }: Pick<Needs, "database" | "linkKeys" | "place">) {
  return { link } satisfies Partial<Handlers>;

  async function link(incoming: Incoming<"link">): Promise<Reply> {
    const { params, key } = incoming;
    const { of, hours } = params;
    if (isOfPages(key.kind) && hours > OF_PAGES)
      throw new HttpProblem(
        "malformed",
        `A key used in pages can only create links that last ${OF_PAGES} hours at most.`,
        [{ parameter: "hours", message: `at most ${OF_PAGES} for this kind of key`, example: `hours=${OF_PAGES}` }],
      );
    // nobody is handed a link to nothing
    if (of !== undefined) await recordOf(database, incoming.engine, of, []);
    const ends = Math.floor(Date.now() / 1000) + hours * HOUR;
    const token = tokenOf(linkKeys, { ...pick(params), key: key.id, ends });
    const path = `/p/${token}`;
    const here = addressOf(incoming.request, place);
    const url = `${here}${path}${params.shows === "still" ? ".png" : ""}`;
    const answer = {
      ...{ url, endsAt: new Date(ends * 1000).toISOString() },
      ...(params.shows === "page" ? { qr: `${here}${path}/qr.svg` } : {}),
    };
    return { ...jsonReply(incoming, answer, performance.now()), cache: "no-store" };
  }
}

/** Whoever opens a link to what is gone is no developer, and gets a page instead of a problem document. */
async function toReader<T>(looked: Promise<T>): Promise<T> {
  try {
    return await looked;
  } catch (error) {
    if (error instanceof HttpProblem && ["withdrawn", "not-found"].includes(error.problem))
      throw new HttpProblem("withdrawn", "This place is no longer in the data. Ask the sender of the link.");
    throw error;
  }
}

const isOfPages = (kind: KeyKind) => kind === "web" || kind === "view";

const pick = ({
  of,
  at,
  shows,
  label,
  lang,
  width,
  height,
  density,
  zoom,
  night,
}: LinkRequest): Omit<Link, "key" | "ends"> => ({
  ...{ shows, size: { width, height }, density },
  ...(of === undefined ? {} : { of }),
  ...(at ? { at } : {}),
  ...(label ? { label } : {}),
  ...(lang?.length ? { lang: lang[0] } : {}),
  ...(zoom ? { zoom } : {}),
  ...(night ? { night } : {}),
});

/** What people of the workbench may do about the key that signs. */
export function linkKeyHandlers(linkKeys: LinkKeys) {
  return { linkKey, renewLinkKey } satisfies Partial<OwnHandlers>;

  function linkKey() {
    return linkKeys.standing;
  }

  function renewLinkKey({ params }: Own<"renewLinkKey">) {
    linkKeys.renew(params.endsOld);
    return linkKeys.standing;
  }
}

/** `/p/TOKEN`: one place, or one picture of it, for whoever has the link. Nothing else can be called with it. */
export function linkRoutes(needs: Needs): Router {
  const { database, index, tiles, ring, permits, linkKeys, place } = needs;
  const router = exactRouter();
  router.get("/p/:token", (request, response) => {
    const { token } = request.params;
    const isStill = token.endsWith(".png");
    return isStill ? still(token.slice(0, -4), "still", request, response) : page(token, request, response);
  });
  router.get("/p/:token/map.png", (request, response) => still(request.params.token, "page", request, response));
  router.get("/p/:token/qr.svg", async (request, response) => {
    const { token } = request.params;
    open(token, "page", response);
    const svg = await QRCode.toString(`${addressOf(request, place)}/p/${token}`, {
      type: "svg",
      errorCorrectionLevel: "M",
      margin: 2,
    });
    response.set("Cache-Control", "private, max-age=3600").type("image/svg+xml").send(svg);
  });
  return router;

  async function page(token: string, request: Request, response: Response): Promise<void> {
    const { link, engine } = open(token, "page", response);
    const { of, lang, label, size, ends } = link;
    const record = of === undefined ? undefined : await toReader(recordOf(database, engine, of, lang ? [lang] : []));
    const at = record?.at ?? (link.at as Position);
    const [map, qr] = [`${token}/map.png`, `${token}/qr.svg`];
    const title = label ?? (record ? shortLine(record) : `${at.lat.toFixed(5)}, ${at.lon.toFixed(5)}`);
    const sources = engine.sources.map(({ name, licence }) => `${name}, ${licence}`).join("; ");
    const shown = {
      title,
      at,
      record,
      map,
      mapTwice: `${map}?density=2`,
      qr,
      size,
      ends: new Date(ends * 1000),
      sources,
      language: placeLanguage(lang ? [lang] : request.acceptsLanguages()),
    };
    response.vary("Accept-Language");
    response.set("Cache-Control", "private, max-age=300").type("html").send(placePage(shown));
  }

  async function still(token: string, shows: Link["shows"], request: Request, response: Response): Promise<void> {
    const { link, engine, key } = open(token, shows, response);
    const headers = await takePermits(permits, CALLS.still, key);
    for (const name in headers) response.setHeader(name, headers[name]);
    const { of, at, label, size, zoom, night = false, lang } = link;
    // of the page's own picture, more pixels for a finer screen
    const density = shows === "page" && request.query.density === "2" ? 2 : link.density;
    const params: StillRequest = { of, at, label, ...size, zoom, night, density, points: [], style: "streets" };
    const langs = lang ? [lang] : [];
    const png = await toReader(drawStill({ tiles, database }, engine, params, langs, goneSignal(response)));
    response
      .set("Cache-Control", "private, max-age=300")
      .set("Cross-Origin-Resource-Policy", "cross-origin")
      .type("png")
      .send(png);
  }

  /** @throws HttpProblem for what is no link, one that has ended, or one of a key that may not make it any more */
  function open(
    token: string,
    shows: Link["shows"],
    response: Response,
  ): { link: Link; engine: SeenEngine; key: StoredKey } {
    const link = linkOf(linkKeys, token);
    if (!link || link.shows !== shows)
      throw new HttpProblem("not-found", "There is no such link. Check that it was copied completely.");
    if (link.ends * 1000 <= Date.now())
      throw new HttpProblem("withdrawn", "This link has expired. Ask the sender for a new one.");
    const key = ring.byId(link.key);
    if (!key || hasEnded(key) || !mayAsk(CALLS.link as Call, key))
      throw new HttpProblem("withdrawn", "This link was revoked. Ask the sender for a new one.");
    countUse(response, needs, key, "links", () => undefined);
    const { engine } = index;
    if (engine) return { link, key, engine: new SeenEngine(engine, key) };
    throw notReady(index);
  }
}
