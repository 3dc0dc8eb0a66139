import fc from "fast-check";
import { inject } from "vitest";

// Runs before every test, in Node and in the pages of Chromium alike: how the laws are tried comes from vitest.config.ts.
fc.configureGlobal(inject("laws"));
