/** The kit without a build step: everything, and the elements are made known at once. */
import { defineElements } from "./elements/index.ts";

export * from "./index.ts";

defineElements();
