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
import { isSafe, type PublicPlace, portOf, underPath } from "./http/public-place.ts";
import type { NoteSecurity } from "./http/security-log.ts";
import { PUBLIC_PORT, requireSession, SAFE } from "./http/session.ts";
import { Wire } from "./http/wire.ts";
import type { Files } from "./import/files.ts";
import type { Inspections } from "./import/inspections.ts";
import type { Jobs } from "./jobs/jobs.ts";
import type { KeyRing } from "./keys/key-ring.ts";
import type { Permits } from "./keys/permits.ts";
import type { UseCounter } from "./keys/use-counter.ts";
import type { LinkKeys } from "./links/link-keys.ts";
import type { Metrics } from "./metrics/metrics.ts";
import type { LiveIndex } from "./publication/live-index.ts";
import { reviewHandlers } from "./routes/batches.route.ts";
import { correctionHandlers, reportHandlers } from "./routes/corrections.route.ts";
import { countryHandlers } from "./routes/countries.route.ts";
import { dataHandlers } from "./routes/data.route.ts";
import { DOCS_FOLDER, docsRoutes } from "./routes/docs.route.ts";
import { formHandlers } from "./routes/forms.route.ts";
import { heightHandlers } from "./routes/height.route.ts";
import { jobHandlers } from "./routes/jobs.route.ts";
import { ownKeyHandlers } from "./routes/key.route.ts";
import { keyHandlers } from "./routes/keys.route.ts";
import { linkHandlers, linkKeyHandlers, linkRoutes } from "./routes/links.route.ts";
import { lookupHandlers } from "./routes/lookups.route.ts";
import { manageHandlers } from "./routes/manage.route.ts";
import { formPageRoute, kitRoutes, studioFiles, studioRoutes } from "./routes/pages.route.ts";
import { peopleHandlers } from "./routes/people.route.ts";
import { pickRoute } from "./routes/pick.route.ts";
import { rehearsalHandlers } from "./routes/rehearsals.route.ts";
import { retentionHandlers } from "./routes/retention.route.ts";
import { secondFactorHandlers } from "./routes/second-factor.route.ts";
import { healthRoutes, problemPages } from "./routes/service.route.ts";
import { serviceHandlers, serviceRoutes } from "./routes/services.route.ts";
import { signInRoutes } from "./routes/sign-in.route.ts";
import { stillHandlers } from "./routes/still.route.ts";
import { tileHandlers } from "./routes/tiles.route.ts";
import { batchHandlers } from "./routes/wire-batches.route.ts";
import type { Sealing } from "./services/sealing.ts";
import type { Services } from "./services/services.ts";
import type { TileMaker } from "./tiles/map-tiles.ts";
import type { Sessions } from "./users/sessions.ts";

/** Everything the wire and the workbench stand on. */
export interface AppContext {
  version: string;
  database: Knex;
  index: LiveIndex;
  tiles: TileMaker;
  heights: Heights;
  ring: KeyRing;
  permits: Permits;
  counter: UseCounter;
  metrics?: Metrics;
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
  inspections: Inspections;
  sessions: Sessions;
  drain: Drain;
  log: Logger;
  /** Whether lookups are carried without Express; off only to measure what that saves, and to compare. */
  carriesLookups: boolean;
  /** The web key of our own pages, and the try key with which a form is rehearsed. */
  webKey: string;
  tryKey: string;
  /** Folders of the built kit, of all versions of it that were run here, and of the workbench. */
  kitFolder: string;
  keptKits: string;
  studioFolder: string;
  /** Called when a sign-in link was used up. */
  signedIn: () => void;
}

/** The public wire: what each of the calls is answered by. */
function wireOf(context: AppContext): Wire {
  const { database, tiles, heights, published, services } = context;
  return new Wire(context, {
    ...lookupHandlers(database, heights),
    ...countryHandlers,
    ...heightHandlers(heights),
    ...tileHandlers(tiles, heights),
    ...stillHandlers(tiles, database),
    ...formHandlers(published),
    ...ownKeyHandlers,
    ...reportHandlers(database),
    ...serviceHandlers(services),
    ...linkHandlers(context),
    ...batchHandlers(context),
  });
}

/** The workbench's own calls. */
function ownOf(context: AppContext): Router {
  const { database, webKey, tryKey } = context;
  return ownRoutes(
    {
      ...manageHandlers(context),
      ...rehearsalHandlers(database),
      ...keyHandlers({ ...context, ownKeys: [webKey, tryKey] }),
      ...peopleHandlers(database),
      ...secondFactorHandlers(context),
      ...dataHandlers(context),
      ...jobHandlers(context),
      ...reviewHandlers(context),
      ...correctionHandlers(context),
      ...serviceRoutes(context),
      ...linkKeyHandlers(context.linkKeys),
      ...retentionHandlers(database),
    },
    context.noteSecurity,
  );
}

/** Answers every request: lookups without Express, all else by it. */
export function makeListener(context: AppContext): RequestListener {
  const wire = wireOf(context);
  const app = makeApp(context, wire);
  return underPath(context.place, context.carriesLookups ? carryLookups(wire, context, app) : app);
}

/** All of HTTP. Read top to bottom: it is the order in which a request meets it. */
function makeApp(context: AppContext, wire: Wire): Express {
  const app = express();
  app.disable("x-powered-by");
  app.set("query parser", "simple");
  app.set("trust proxy", context.place.trusted);
  app.set(SAFE, isSafe(context.place));
  app.set(PUBLIC_PORT, portOf(context.place));
  app.set("case sensitive routing", true);
  app.use((request, response, next) => {
    context.drain.watch(response);
    logRequest(context.log, request, response);
    next();
  });
  app.use(compressed());
  app.use(healthRoutes(context));

  app.use(mountWire(wire));
  app.use(kitRoutes(context.kitFolder, context.keptKits));
  app.use(studioFiles(context.studioFolder));

  app.use(
    pagePolicy(() => context.services.pictureOrigins, isSafe(context.place)),
    cookieParser(),
  );
  app.use("/api", requireSession(context.sessions), ownOf(context), nothingHere);
  app.use(signInRoutes(context));
  app.use(problemPages());
  app.use(docsRoutes(DOCS_FOLDER));
  app.use(formPageRoute(context.published, context.webKey, context.kitFolder));
  app.use(linkRoutes(context));
  app.use(pickRoute(context.ring, context.kitFolder, context.place));
  app.use(studioRoutes(context.studioFolder, context.place));
  app.use(nothingHere);
  app.use(problems);
  return app;
}

const nothingHere: RequestHandler = (request) => {
  throw new HttpProblem("not-found", `There is nothing at ${request.path.slice(0, 200)}.`);
};
