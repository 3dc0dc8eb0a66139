import type { RequestListener } from "node:http";
import cookieParser from "cookie-parser";
import express, { type Express, type RequestHandler, type Router } from "express";
import type { Knex } from "knex";
import type { Logger } from "pino";
import type { PublishedForms } from "./forms/published-forms.ts";
import type { Heights } from "./heights/heights.ts";
import { carryLookups, compressed, mountWire } from "./http/carry.ts";
import type { Drain } from "./http/drain.ts";
import { logRequest } from "./http/log.ts";
import { ownRoutes } from "./http/own.ts";
import { pagePolicy } from "./http/pages.ts";
import { HttpProblem, problems } from "./http/problem.ts";
import { isSafe, type PublicPlace, underPath } from "./http/public-place.ts";
import type { NoteSecurity } from "./http/security-log.ts";
import { requireSession, SAFE } from "./http/session.ts";
import { Wire } from "./http/wire.ts";
import type { Files } from "./import/files.ts";
import type { Looks } from "./import/looks.ts";
import type { Jobs } from "./jobs/jobs.ts";
import type { KeyRing } from "./keys/key-ring.ts";
import type { Permits } from "./keys/permits.ts";
import type { UseCounter } from "./keys/use-counter.ts";
import type { LinkKeys } from "./links/link-keys.ts";
import type { LiveIndex } from "./publication/live-index.ts";
import { reviewHandlers } from "./routes/batches.route.ts";
import { correctionHandlers, reportHandlers } from "./routes/corrections.route.ts";
import { countryHandlers } from "./routes/countries.route.ts";
import { dataHandlers } from "./routes/data.route.ts";
import { formHandlers } from "./routes/forms.route.ts";
import { heightHandlers } from "./routes/height.route.ts";
import { jobHandlers } from "./routes/jobs.route.ts";
import { ownKeyHandlers } from "./routes/key.route.ts";
import { keyHandlers } from "./routes/keys.route.ts";
import { linkHandlers, linkKeyHandlers, linkRoutes } from "./routes/links.route.ts";
import { lookupHandlers } from "./routes/lookups.route.ts";
import { manageHandlers } from "./routes/manage.route.ts";
import { formPageRoute, kitRoutes, studioRoutes } from "./routes/pages.route.ts";
import { peopleHandlers } from "./routes/people.route.ts";
import { pickRoute } from "./routes/pick.route.ts";
import { rehearsalHandlers } from "./routes/rehearsals.route.ts";
import { retentionHandlers } from "./routes/retention.route.ts";
import { secondFactorHandlers } from "./routes/second-factor.route.ts";
import { healthRoutes, problemPages } from "./routes/service.route.ts";
import { serviceHandlers, serviceRoutes } from "./routes/services.route.ts";
import { sheetHandlers } from "./routes/sheets.route.ts";
import { signInRoutes } from "./routes/sign-in.route.ts";
import { stillHandlers } from "./routes/still.route.ts";
import { batchHandlers } from "./routes/wire-batches.route.ts";
import type { Sealing } from "./services/sealing.ts";
import type { Services } from "./services/services.ts";
import type { SheetTiles } from "./sheets/sheet-tiles.ts";
import type { Sessions } from "./users/sessions.ts";

/** Everything the wire and the workbench stand on. */
export interface House {
  version: string;
  database: Knex;
  index: LiveIndex;
  tiles: SheetTiles;
  heights: Heights;
  ring: KeyRing;
  permits: Permits;
  counter: UseCounter;
  published: PublishedForms;
  services: Services;
  sealing: Sealing;
  /** What links are signed with. */
  linkKeys: LinkKeys;
  /** How people reach it. */
  place: PublicPlace;
  noteSecurity: NoteSecurity;
  jobs: Jobs;
  files: Files;
  looks: Looks;
  sessions: Sessions;
  drain: Drain;
  log: Logger;
  /** Whether lookups are carried without Express; off only to measure what that saves, and to compare. */
  carriesLookups: boolean;
  /** The web key of our own pages, and the try key with which a form is rehearsed. */
  webKey: string;
  tryKey: string;
  /** Folders of the built kit and workbench. */
  kitFolder: string;
  studioFolder: string;
  /** Called when a sign-in link was used up. */
  signedIn: () => void;
}

/** The public wire: what each of its calls is answered by. */
function wireOf(house: House): Wire {
  const { database, tiles, heights, published, services } = house;
  return new Wire(house, {
    ...lookupHandlers(database, heights),
    ...countryHandlers,
    ...heightHandlers(heights),
    ...sheetHandlers(tiles, heights),
    ...stillHandlers(tiles, database),
    ...formHandlers(published),
    ...ownKeyHandlers,
    ...reportHandlers(database),
    ...serviceHandlers(services),
    ...linkHandlers(house),
    ...batchHandlers(house),
  });
}

/** The workbench's own calls. */
function ownOf(house: House): Router {
  const { database, webKey, tryKey } = house;
  return ownRoutes(
    {
      ...manageHandlers(house),
      ...rehearsalHandlers(database),
      ...keyHandlers({ ...house, ownKeys: [webKey, tryKey] }),
      ...peopleHandlers(database),
      ...secondFactorHandlers(house),
      ...dataHandlers(house),
      ...jobHandlers(house),
      ...reviewHandlers(house),
      ...correctionHandlers(house),
      ...serviceRoutes(house),
      ...linkKeyHandlers(house.linkKeys),
      ...retentionHandlers(database),
    },
    house.noteSecurity,
  );
}

/** Answers every request: lookups without Express, all else by it. */
export function makeListener(house: House): RequestListener {
  const wire = wireOf(house);
  const app = makeApp(house, wire);
  return underPath(house.place, house.carriesLookups ? carryLookups(wire, house, app) : app);
}

/** The whole HTTP face. Read top to bottom: it is the order in which a request meets it. */
function makeApp(house: House, wire: Wire): Express {
  const app = express();
  app.disable("x-powered-by");
  app.set("query parser", "simple");
  app.set("trust proxy", house.place.trusted);
  app.set(SAFE, isSafe(house.place));
  app.set("case sensitive routing", true);
  app.use((request, response, next) => {
    house.drain.watch(response);
    logRequest(house.log, request, response);
    next();
  });
  app.use(compressed());
  app.use(healthRoutes(house));

  app.use(mountWire(wire));
  app.use(kitRoutes(house.kitFolder));

  app.use(
    pagePolicy(() => house.services.pictureOrigins, isSafe(house.place)),
    cookieParser(),
  );
  app.use("/api", requireSession(house.sessions), ownOf(house), nothingHere);
  app.use(signInRoutes(house));
  app.use(problemPages());
  app.use(formPageRoute(house.published, house.webKey, house.kitFolder));
  app.use(linkRoutes(house));
  app.use(pickRoute(house.ring, house.kitFolder, house.place));
  app.use(studioRoutes(house.studioFolder, house.place));
  app.use(nothingHere);
  app.use(problems);
  return app;
}

const nothingHere: RequestHandler = (request) => {
  throw new HttpProblem("not-found", `There is nothing at ${request.path.slice(0, 200)}.`);
};
