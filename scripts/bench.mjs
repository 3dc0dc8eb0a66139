import { join } from "node:path";
import { parseArgs } from "node:util";
import { build } from "./lib/build.mjs";
import { postgisExtension, takenOut, wholeChromium, withLibraries } from "./lib/debian.mjs";
import { buildFormer } from "./lib/former.mjs";
import { installPackages } from "./lib/packages.mjs";
import { bin, home, makeFolder, root } from "./lib/places.mjs";
import { must, show } from "./lib/run.mjs";
import { command } from "./lib/say.mjs";
import { withServer } from "./lib/with-server.mjs";

const {
  values: { size, minutes, from },
  positionals: [only = ""],
} = parseArgs({
  options: {
    size: { type: "string", default: "demo" },
    minutes: { type: "string", default: "60" },
    from: { type: "string" },
  },
  allowPositionals: true,
});
const PARTS = [
  "http",
  "overload",
  "map",
  "services",
  "uses",
  "beside",
  "soak",
  "import",
  "towns",
  "threads",
  "fleet",
  "world",
  "against",
];
if (only && !PARTS.includes(only)) throw new Error(`a part of the benchmarks is ${PARTS.join(" or ")}, not ${only}`);

/**
 * Measures, and prints one table: at demo size with the server and the workbench, `--size 1m` or `10m` the engine; `http`, `overload`, `map`,
 * `services`, `uses`, `beside`, `import`, `towns`, `threads` or `fleet` that part alone. `soak` asks for an hour, or `--minutes N`. `world` asks a world of seventeen countries, and prints what is right by class and country;
 * `against --from REF` times the engine beside the one of an earlier commit.
 */
await command(async () => {
  const compile = () => must("Compiling the benchmarks", bin("tsc"), ["-b", "bench"], { cwd: root });
  if (only === "world") {
    await installPackages();
    await build();
    await compile();
    return show(process.execPath, ["bench/dist/world/main.js"], { cwd: root });
  }
  if (only === "against") {
    if (!from) throw new Error("--from names the commit to compare with");
    await installPackages();
    await build();
    await compile();
    const former = await buildFormer(from);
    await must("Compiling its benchmarks", bin("tsc"), ["-b", "bench"], { cwd: former });
    const args = ["--max-old-space-size=12000", "bench/dist/against.js", former, size];
    return show(process.execPath, args, { cwd: root });
  }
  // what is imported stays in its database, where other parts would measure it too
  const name = only === "import" || only === "towns" ? "bench-imported" : "bench";
  return withServer(name, 5070, wholeChromium, async (folder, database) => {
    if (size !== "10m" && !only) await postgisExtension();
    await compile();
    const debian = makeFolder(join(home, "debian"));
    const env =
      only === "threads" ? { ...withLibraries(debian), BENCH_WRK: await takenOut("wrk", debian) } : process.env;
    const args = [
      "--max-old-space-size=12000",
      "bench/dist/main.js",
      join(folder, "server-1", "ready.json"),
      database,
      size,
      only,
      minutes,
    ];
    return show(process.execPath, args, { cwd: root, env });
  });
});
process.exit();
