import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { HEADLESS } from "../bench/browser.ts";
import { baseUrl, serverCount, stateFile } from "./support/house.ts";

/** The real interface in Debian's Chromium, against the server that `npm test` started. */
export default defineConfig({
  testDir: ".",
  testMatch: "*.spec.ts",
  globalSetup: "./support/sign-in.ts",
  outputDir: join(process.env.BIBLIOTOPE_TEST_HOME ?? ".", "e2e-results"),
  timeout: 150_000,
  expect: { timeout: 25_000 },
  // each worker has a server of its own: what one test changes, no test beside it sees
  workers: serverCount(),
  // a machine that stands still for a moment is no fault of the product; what fails twice is, and what passed late is named
  retries: process.env.CI ? 1 : 0,
  forbidOnly: true,
  reporter: [["list"], ["./support/second-tries.ts"]],
  use: {
    baseURL: baseUrl(),
    storageState: stateFile(),
    viewport: { width: 1280, height: 800 },
    // a trace of every test costs a third of its time; --trace on asks for one
    screenshot: "only-on-failure",
    launchOptions: HEADLESS,
  },
});
