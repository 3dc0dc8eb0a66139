import { build } from "./lib/build.mjs";
import { installPackages } from "./lib/packages.mjs";
import { bin, root } from "./lib/places.mjs";
import { must, show } from "./lib/run.mjs";
import { command } from "./lib/say.mjs";

/**
 * Moves the weights of the search up and down, keeps what makes the questions of three quarters of the countries come out better, and tells what
 * that does to the last quarter. `examples` writes the questions that hold each weight.
 */
await command(async () => {
  await installPackages();
  await build();
  await must("Compiling", bin("tsc"), ["-b", "bench"], { cwd: root });
  return show(process.execPath, ["bench/dist/fit/main.js", ...process.argv.slice(2)], { cwd: root });
});
process.exit();
