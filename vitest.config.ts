import { playwright } from "@vitest/browser-playwright";
import { defineConfig } from "vitest/config";
import { HEADLESS } from "./bench/browser.ts";

/** Tests that need what `npm test` prepares: a build, a database, a server for each worker. */
const SERVER = "packages/*/src/**/*.server.test.ts";
/** Tests that are of whole worlds of addresses, and of what is measured with them: making one takes seconds. */
const WORLD = ["packages/*/src/**/*.world.test.ts", "packages/islands/src/**/*.test.ts", "bench/**/*.test.ts"];
/** Tests of single pieces that need a page: they run in Chromium, without a server. */
const PAGE = "packages/*/src/**/*.page.test.ts";
/**
 * How the laws are tried (fast-check): `npm test` tries every law with the same examples each time, so that a change is
 * judged by what it changes; `npm run test:long` tries each with ten times as many, new ones each time, and prints the seed
 * of what fails. `BIBLIOTOPE_SEED` sets the seed of either.
 */
const isLong = process.env.BIBLIOTOPE_LONG !== undefined;
const seed = process.env.BIBLIOTOPE_SEED ?? (isLong ? undefined : "20261130");
const laws = { ...(seed === undefined ? {} : { seed: Number(seed) }), ...(isLong ? { numRuns: 1000 } : {}) };
const setupFiles = ["./scripts/lib/laws.mjs"];
const shared = { resolve: { conditions: ["source"] }, ssr: { resolve: { conditions: ["source"] } } };

declare module "vitest" {
  interface ProvidedContext {
    laws: { seed?: number; numRuns?: number };
  }
}

export default defineConfig({
  ...shared,
  test: {
    // a test that found nothing to do is a mistake
    passWithNoTests: false,
    maxWorkers: 2,
    testTimeout: 90_000,
    hookTimeout: 180_000,
    provide: { laws },
    tags: [{ name: "long", description: "slow by nature: npm test leaves it to npm run test:long" }],
    projects: [
      {
        ...shared,
        test: {
          name: "unit",
          include: ["packages/*/src/**/*.test.{ts,tsx}", "e2e/support/*.test.ts", "scripts/**/*.test.ts"],
          exclude: [SERVER, PAGE, ...WORLD],
          setupFiles,
          testTimeout: 90_000,
          hookTimeout: 90_000,
          // nothing of these is left behind, so that files can share what they import
          isolate: false,
        },
      },
      {
        ...shared,
        test: {
          name: "world",
          include: WORLD,
          setupFiles,
          testTimeout: 90_000,
          // whole worlds are made before some
          hookTimeout: 90_000,
          isolate: false,
        },
      },
      {
        ...shared,
        // known from the start: one that is found on the way would load the pages anew
        optimizeDeps: { include: ["fast-check", "url-template"] },
        test: {
          name: "page",
          include: [PAGE],
          setupFiles,
          browser: {
            enabled: true,
            headless: true,
            provider: playwright({ launchOptions: HEADLESS }),
            instances: [{ browser: "chromium" }],
            viewport: { width: 900, height: 700 },
            screenshotFailures: false,
          },
        },
      },
      {
        ...shared,
        test: {
          name: "server",
          include: [SERVER],
          setupFiles,
          testTimeout: 90_000,
          hookTimeout: 180_000,
          // each asks a server over HTTP and leaves nothing behind in its own process: what they import is read once
          isolate: false,
        },
      },
    ],
  },
});
