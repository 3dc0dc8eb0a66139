import { execFileSync } from "node:child_process";
import { copyFileSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "./lib/build.mjs";
import { writeTypes } from "./lib/kit-types.mjs";
import { writeNotices } from "./lib/notices.mjs";
import { bin, home, makeFolder, root } from "./lib/places.mjs";
import { must } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";

const kit = join(root, "packages/kit");
const folder = join(kit, "dist-package");
const ENTRIES = [
  "client",
  "search",
  "form",
  "fill",
  "map",
  "elements",
  "react",
  "vue",
  "lookup",
  "server",
  "testing",
  "playwright",
  "words",
];
/** Entries that are types alone. */
const TYPES = ["svelte"];

/** Packs the kit as it is installed: scripts, types, no dependency. */
await command(async () => {
  makeFolder(home);
  await build();
  say("Building the kit's package");
  await must("Building the package", bin("vite"), ["build", "--mode", "package", "--logLevel", "warn"], { cwd: kit });
  writeTypes(join(folder, "types"));
  const { version, license, engines } = JSON.parse(readFileSync(join(kit, "package.json"), "utf8"));
  const entry = (name) => ({
    types: `./types/kit/${name === "index" ? "" : `${name}/`}index.d.ts`,
    default: `./${name}.js`,
  });
  const manifest = {
    name: "@bibliotope/kit",
    version,
    description: "Address and place search for application forms: client, search box, form filling, map",
    license,
    engines,
    type: "module",
    sideEffects: false,
    exports: Object.fromEntries([
      [".", entry("index")],
      ...ENTRIES.map((name) => [`./${name}`, entry(name)]),
      ...TYPES.map((name) => [`./${name}`, { types: entry(name).types }]),
      ["./custom-elements.json", "./custom-elements.json"],
      ["./package.json", "./package.json"],
    ]),
    customElements: "./custom-elements.json",
    peerDependencies: { "@playwright/test": ">=1.49", react: ">=18", vue: ">=3.4" },
    peerDependenciesMeta: Object.fromEntries(
      ["@playwright/test", "react", "vue"].map((name) => [name, { optional: true }]),
    ),
  };
  writeFileSync(join(folder, "package.json"), `${JSON.stringify(manifest, null, 2)}\n`);
  const { customElementsManifest } = await import(join(kit, "dist/elements/elements-manifest.js"));
  writeFileSync(join(folder, "custom-elements.json"), `${JSON.stringify(customElementsManifest(), null, 2)}\n`);
  for (const file of ["README.md", "LICENSE"]) copyFileSync(join(kit, file), join(folder, file));
  writeNotices(folder, ["kit"]);
  const [{ filename }] = JSON.parse(
    execFileSync("npm", ["pack", "--json", "--pack-destination", home], { cwd: folder, encoding: "utf8" }),
  );
  say(`The package is ${join(home, filename)}`);
});
