import base from "/work/main/e2e/playwright.config.ts";
export default {
  ...base,
  testDir: "/work/main/e2e",
  globalSetup: "/work/main/e2e/support/sign-in.ts",
  timeout: 40000,
  expect: { timeout: 6000 },
};
