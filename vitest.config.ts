import { playwright } from "@vitest/browser-playwright";
import { defineConfig } from "vitest/config";
import { HEADLESS } from "./bench/browser.ts";

/** Tests that need what `npm test` prepares: a build, a database, a server for each worker. */
const SERVER = "packages/*/src/**/*.server.test.ts";
/** Tests of single pieces that need a page: they run in Chromium, without a server. */
const PAGE = "packages/*/src/**/*.page.test.ts";
/** The laws' seed and number of examples. */
const setupFiles = ["./scripts/lib/laws.mjs"];
const shared = { resolve: { conditions: ["source"] }, ssr: { resolve: { conditions: ["source"] } } };

export default defineConfig({
  ...shared,
  test: {
    // a test that found nothing to do is a mistake
    passWithNoTests: false,
    maxWorkers: 2,
    testTimeout: 90_000,
    hookTimeout: 180_000,
    projects: [
      {
        ...shared,
        test: {
          name: "unit",
          include: [
            "packages/*/src/**/*.test.{ts,tsx}",
            "bench/**/*.test.ts",
            "e2e/support/*.test.ts",
            "scripts/**/*.test.ts",
          ],
          exclude: [SERVER, PAGE],
          setupFiles,
          testTimeout: 90_000,
          // nothing of these is left behind, so that files can share what they import
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
      { ...shared, test: { name: "server", include: [SERVER], setupFiles, testTimeout: 90_000, hookTimeout: 180_000 } },
    ],
  },
});
