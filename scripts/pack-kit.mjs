import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { copyFileSync, existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "./lib/build.mjs";
import { ELEMENTS } from "./lib/kit-elements.mjs";
import { writeTypes } from "./lib/kit-types.mjs";
import { withLock } from "./lib/lock.mjs";
import { writeNotices } from "./lib/notices.mjs";
import { bin, home, makeFolder, root } from "./lib/places.mjs";
import { must } from "./lib/run.mjs";
import { command, say } from "./lib/say.mjs";

const kit = join(root, "packages/kit");
const folder = join(kit, "dist-package");
/** Imports of the package, by the module of each. */
const ENTRIES = {
  ".": "index",
  ...Object.fromEntries(
    [
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
    ].map((name) => [`./${name}`, `${name}/index`]),
  ),
  ...Object.fromEntries(ELEMENTS.map((name) => [`./elements/${name}`, `elements/${name}-element`])),
};
/** Entries that are types alone. */
const TYPES = ["svelte"];

// whoever calls may be a test, for which components are compiled with checks of their development
process.env.NODE_ENV = "production";

/** Packs the kit as it is installed: scripts, types, no dependency. */
await command(async () => {
  makeFolder(home);
  // tests of examples may run side by side, and each packs first
  await withLock(join(home, "pack.lock"), "Another command is packing the kit; waiting for it", pack);
});

async function pack() {
  const hash = createHash("sha256").update(await build());
  for (const file of ["pack-kit.mjs", "lib/kit-types.mjs"]) hash.update(readFileSync(join(root, "scripts", file)));
  const digest = hash.digest("hex");
  const { version, license, engines } = JSON.parse(readFileSync(join(kit, "package.json"), "utf8"));
  const tarball = join(home, `bibliotope-kit-${version}.tgz`);
  const mark = join(home, "packed.digest");
  if (existsSync(tarball) && existsSync(mark) && readFileSync(mark, "utf8") === digest)
    return say(`The package is ${tarball}`);
  say("Building the kit's package");
  for (const mode of ["package", "package-relief"])
    await must("Building the package", bin("vite"), ["build", "--mode", mode, "--logLevel", "error"], { cwd: kit });
  writeTypes(join(folder, "types"));
  const types = (module) => `./types/kit/${module}.d.ts`;
  // Node from 20.19 on takes the same by require
  const entry = (name, module) => ({
    types: types(module),
    default: `./modules/${name === "." ? "index" : name.slice(2)}.js`,
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
      ...Object.entries(ENTRIES).map(([name, module]) => [name, entry(name, module)]),
      ...TYPES.map((name) => [`./${name}`, { types: types(`${name}/index`) }]),
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
  execFileSync("npm", ["pack", "--json", "--pack-destination", home], { cwd: folder, encoding: "utf8" });
  writeFileSync(mark, digest);
  say(`The package is ${tarball}`);
}
