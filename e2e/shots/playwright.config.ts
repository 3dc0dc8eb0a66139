import { defineConfig } from "@playwright/test";
import config from "../playwright.config.ts";

/** The pictures of docs/screenshots; not part of the tests. */
export default defineConfig({
  ...config,
  testDir: ".",
  testMatch: "*.shot.ts",
  globalSetup: "../support/sign-in.ts",
  reporter: "list",
});
