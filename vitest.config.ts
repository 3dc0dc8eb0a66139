import { defineConfig } from "vitest/config";

/** Unit tests beside the code, and server tests against the server that `npm test` starts. */
export default defineConfig({
  resolve: { conditions: ["source"] },
  ssr: { resolve: { conditions: ["source"] } },
  test: {
    include: ["packages/*/src/**/*.test.{ts,tsx}", "bench/*.test.ts"],
    testTimeout: 90_000,
    hookTimeout: 180_000,
    // a test that found nothing to do is a mistake
    passWithNoTests: false,
  },
});
