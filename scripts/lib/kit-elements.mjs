import { readdirSync } from "node:fs";
import { join } from "node:path";
import { root } from "./places.mjs";

/**
 * The kit's elements, each with an entry of the package and a script of its own: by the end of `NAME-element.ts`.
 * @type {readonly string[]}
 */
export const ELEMENTS = readdirSync(join(root, "packages/kit/src/elements"))
  .flatMap((file) => /^(\w+)-element\.ts$/.exec(file)?.[1] ?? [])
  .sort();
