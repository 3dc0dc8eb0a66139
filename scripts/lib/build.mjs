import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { ELEMENTS } from "./kit-elements.mjs";
import { writeNotices } from "./notices.mjs";
import { bin, home, root } from "./places.mjs";
import { must } from "./run.mjs";
import { say } from "./say.mjs";

const OUTPUTS = [
  "packages/server/dist/main.js",
  "packages/cli/dist-run/bibliotope.js",
  "packages/kit/dist-web/bibliotope.js",
  "packages/kit/dist-web/integrity.json",
  "packages/kit/dist-web/page.html",
  "packages/kit/dist-web/pick.html",
  "packages/kit/dist-web/pick.js",
  "packages/studio/dist-web/index.html",
];

/**
 * Compiles the packages, the kit and the workbench, when anything changed since the last time.
 * @returns a digest of what it was built from
 */
export async function build() {
  const digest = digestOfSources();
  const mark = join(home, "build.digest");
  const isThere = OUTPUTS.every((file) => existsSync(join(root, file)));
  if (isThere && existsSync(mark) && readFileSync(mark, "utf8") === digest) return digest;
  rmSync(mark, { force: true });
  say("Building the packages, the kit and the workbench");
  // the bundles are made of the sources, so that nobody waits for another; one checker does no work twice
  const compiling = must("Compiling", bin("tsc"), ["-b", "--checkers", "1"], { cwd: root });
  await Promise.all([compiling, buildCommand(), buildKit(), buildStudio()]);
  for (const name of ["kit", "studio"]) writeNotices(join(root, "packages", name, "dist-web"), [name]);
  writeFileSync(mark, digest);
  return digest;
}

async function buildCommand() {
  await must("Building the command", bin("vite"), ["build", "--logLevel", "warn"], { cwd: join(root, "packages/cli") });
}

async function buildKit() {
  rmSync(join(root, "packages/kit/dist-web"), { recursive: true, force: true });
  for (const mode of ["production", "relief", "words", "page", "pick", ...ELEMENTS])
    await must("Building the kit", bin("vite"), ["build", "--mode", mode, "--logLevel", "warn"], {
      cwd: join(root, "packages/kit"),
    });
  noteIntegrity(["bibliotope", "relief", ...ELEMENTS].map((name) => `${name}.js`));
}

/** Notes the Subresource Integrity value of each script, for pages that load it from a service. */
function noteIntegrity(scripts) {
  const kit = join(root, "packages/kit");
  const { version } = JSON.parse(readFileSync(join(kit, "package.json"), "utf8"));
  const digest = (file) =>
    `sha384-${createHash("sha384")
      .update(readFileSync(join(kit, "dist-web", file)))
      .digest("base64")}`;
  const files = Object.fromEntries(scripts.map((file) => [file, digest(file)]));
  writeFileSync(join(kit, "dist-web/integrity.json"), `${JSON.stringify({ version, files }, null, 2)}\n`);
}

async function buildStudio() {
  await must("Building the workbench", bin("vite"), ["build", "--logLevel", "warn"], {
    cwd: join(root, "packages/studio"),
  });
}

/** A digest of all that goes into a build. */
function digestOfSources() {
  const hash = createHash("sha256");
  addFolder(hash, "packages");
  for (const file of [
    "scripts/lib/build.mjs",
    "scripts/lib/notices.mjs",
    "package-lock.json",
    "tsconfig.json",
    "tsconfig.base.json",
  ])
    addFile(hash, file);
  return hash.digest("hex");
}

/** Adds all sources within a folder of the clone to a digest; what is made of them and tests are left out. */
export function addFolder(hash, folder) {
  const entries = readdirSync(join(root, folder), { withFileTypes: true });
  for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
    const path = join(folder, entry.name);
    if (entry.isDirectory() && !MADE.includes(entry.name)) addFolder(hash, path);
    else if (entry.isFile() && !/\.tsbuildinfo$|\.test\.tsx?$/.test(entry.name)) addFile(hash, path);
  }
}

const MADE = ["node_modules", "dist", "dist-package", "dist-run", "dist-types", "dist-web"];

function addFile(hash, path) {
  hash
    .update(path)
    .update("\0")
    .update(readFileSync(join(root, path)));
}
