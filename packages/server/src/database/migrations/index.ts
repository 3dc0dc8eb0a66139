import type { Knex } from "knex";
import * as twentyFourth from "./2026-11-30-store.ts";
import * as twentyThird from "./2026-11-30-tiles.ts";
import * as seventeenth from "./2026-11-batch-registers.ts";
import * as eleventh from "./2026-11-batches.ts";
import * as twelfth from "./2026-11-corrections.ts";
import * as first from "./2026-11-gazetteer.ts";
import * as nineteenth from "./2026-11-guessing.ts";
import * as fifth from "./2026-11-heights.ts";
import * as fourth from "./2026-11-houses.ts";
import * as fourteenth from "./2026-11-installation.ts";
import * as seventh from "./2026-11-key-rules.ts";
import * as eighth from "./2026-11-key-use.ts";
import * as thirteenth from "./2026-11-loads.ts";
import * as third from "./2026-11-lookups.ts";
import * as tenth from "./2026-11-own-data.ts";
import * as ninth from "./2026-11-people.ts";
import * as eighteenth from "./2026-11-picture-hosts.ts";
import * as fifteenth from "./2026-11-rehearsal-states.ts";
import * as sixth from "./2026-11-rehearsals.ts";
import * as twentieth from "./2026-11-retention.ts";
import * as twentySecond from "./2026-11-second-factor.ts";
import * as sixteenth from "./2026-11-services.ts";
import * as twentyFirst from "./2026-11-sessions.ts";
import * as second from "./2026-11-workbench.ts";

interface Step {
  name: string;
  up: (database: Knex) => Promise<void>;
  down: (database: Knex) => Promise<void>;
}

const STEPS: Step[] = [
  { name: "2026-11-gazetteer", ...first },
  { name: "2026-11-workbench", ...second },
  { name: "2026-11-lookups", ...third },
  { name: "2026-11-houses", ...fourth },
  { name: "2026-11-heights", ...fifth },
  { name: "2026-11-rehearsals", ...sixth },
  { name: "2026-11-key-rules", ...seventh },
  { name: "2026-11-key-use", ...eighth },
  { name: "2026-11-people", ...ninth },
  { name: "2026-11-own-data", ...tenth },
  { name: "2026-11-batches", ...eleventh },
  { name: "2026-11-corrections", ...twelfth },
  { name: "2026-11-loads", ...thirteenth },
  { name: "2026-11-installation", ...fourteenth },
  { name: "2026-11-rehearsal-states", ...fifteenth },
  { name: "2026-11-services", ...sixteenth },
  { name: "2026-11-batch-registers", ...seventeenth },
  { name: "2026-11-picture-hosts", ...eighteenth },
  { name: "2026-11-guessing", ...nineteenth },
  { name: "2026-11-retention", ...twentieth },
  { name: "2026-11-sessions", ...twentyFirst },
  { name: "2026-11-second-factor", ...twentySecond },
  { name: "2026-11-30-tiles", ...twentyThird },
  { name: "2026-11-30-store", ...twentyFourth },
];

/** The migrations in their order; compiled with the server, so that no file is looked for at run time. */
export const MIGRATIONS: Knex.MigrationSource<Step> = {
  getMigrations: async () => STEPS,
  getMigrationName: (step) => step.name,
  getMigration: async ({ up, down }) => ({ up, down }),
};
