import compression from "compression";
import cookieParser from "cookie-parser";
import express, { type Express, type RequestHandler } from "express";
import type { Knex } from "knex";
import type { Logger } from "pino";
import type { Files } from "./bring/files.ts";
import type { Looks } from "./bring/looks.ts";
import type { PublishedForms } from "./forms/published-forms.ts";
import type { Heights } from "./heights/heights.ts";
import { openToPages } from "./http/cors.ts";
import type { Drain } from "./http/drain.ts";
import { checkKey } from "./http/key-check.ts";
import { limitByKey } from "./http/limit.ts";
import { logRequests } from "./http/log.ts";
import { otherMethods } from "./http/methods.ts";
import { pagePolicy } from "./http/pages.ts";
import { BODY_LIMIT, HttpProblem, problems } from "./http/problem.ts";
import { exactRouter } from "./http/router.ts";
import { requireSession } from "./http/session.ts";
import { playSituation } from "./http/situations.ts";
import type { Jobs } from "./jobs/jobs.ts";
import type { KeyRing } from "./keys/key-ring.ts";
import type { Permits } from "./keys/permits.ts";
import type { UseCounter } from "./keys/use-counter.ts";
import type { LiveIndex } from "./publication/live-index.ts";
import { batchRoutes } from "./routes/batches.route.ts";
import { correctionRoutes, reportRoutes } from "./routes/corrections.route.ts";
import { countryRoutes } from "./routes/countries.route.ts";
import { dataRoutes, fileRoutes } from "./routes/data.route.ts";
import { formRoutes } from "./routes/forms.route.ts";
import { heightRoutes } from "./routes/height.route.ts";
import { jobRoutes } from "./routes/jobs.route.ts";
import { lookupRoutes } from "./routes/lookups.route.ts";
import { manageRoutes } from "./routes/manage.route.ts";
import { formPageRoute, kitRoutes, studioRoutes } from "./routes/pages.route.ts";
import { healthRoutes, openApiRoute, problemPages } from "./routes/service.route.ts";
import { sheetRoutes } from "./routes/sheets.route.ts";
import { signInRoutes } from "./routes/sign-in.route.ts";
import { stillRoutes } from "./routes/still.route.ts";
import { wireBatchRoutes } from "./routes/wire-batches.route.ts";
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
  jobs: Jobs;
  files: Files;
  looks: Looks;
  sessions: Sessions;
  drain: Drain;
  log: Logger;
  /** The web key of our own pages, and the try key with which a form is rehearsed. */
  webKey: string;
  tryKey: string;
  /** Folders of the built kit and workbench. */
  kitFolder: string;
  studioFolder: string;
  /** Called when a sign-in link was used up. */
  signedIn: () => void;
}

/** The whole HTTP face. Read top to bottom: it is the order in which a request meets it. */
export function makeApp(house: House): Express {
  const app = express();
  app.disable("x-powered-by");
  app.set("query parser", "simple");
  app.set("case sensitive routing", true);
  app.use(house.drain.watch);
  app.use(logRequests(house.log));
  app.use(compression());
  app.use(healthRoutes(house));

  const wire = exactRouter();
  wire.use(openToPages);
  wire.use(openApiRoute(house.version));
  wire.use(checkKey(house.ring, house.counter), limitByKey(house.permits));
  wire.use(wireBatchRoutes(house));
  wire.use(express.json({ limit: BODY_LIMIT, strict: false }));
  wire.use(playSituation);
  wire.use(
    lookupRoutes(house.index, house.database),
    countryRoutes(house.index),
    formRoutes(house.published),
    sheetRoutes(house.tiles, house.heights),
    stillRoutes(house.index, house.tiles, house.database),
    heightRoutes(house.heights, house.index),
    reportRoutes(house),
  );
  wire.use(otherMethods);
  app.use("/v1", wire);
  app.use(kitRoutes(house.kitFolder));

  app.use(pagePolicy, cookieParser());
  const api = exactRouter();
  api.use(
    requireSession(house.sessions),
    fileRoutes(house),
    express.json({ limit: BODY_LIMIT, strict: false }),
    dataRoutes(house),
    batchRoutes(house),
    correctionRoutes(house),
    jobRoutes(house),
    manageRoutes({ ...house, studioKey: house.webKey, tryKey: house.tryKey }),
  );
  app.use("/api", api);
  app.use("/api", nothingHere);
  app.use(signInRoutes(house.database, house.signedIn));
  app.use(problemPages());
  app.use(formPageRoute(house.published, house.webKey, house.kitFolder));
  app.use(studioRoutes(house.studioFolder));
  app.use(nothingHere);
  app.use(problems);
  return app;
}

const nothingHere: RequestHandler = (request) => {
  throw new HttpProblem("not-found", `There is nothing at ${request.path.slice(0, 200)}.`);
};
