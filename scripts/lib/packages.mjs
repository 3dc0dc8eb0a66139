import { createHash } from "node:crypto";
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { root } from "./places.mjs";
import { hear } from "./run.mjs";
import { say, Trouble } from "./say.mjs";

/** Installs npm's packages when the lock file is another than the one they were installed from. */
export async function installPackages() {
  const digest = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .digest("hex");
  const mark = join(root, "node_modules", ".bibliotope-lock");
  if (existsSync(mark) && readFileSync(mark, "utf8") === digest) return;
  say("Installing npm packages from the lock file");
  const first = await installFromTarballs();
  // a registry may keep its tarballs elsewhere: then npm asks it
  const { code, output } = first.code === 0 ? first : await hear("npm", INSTALL, { cwd: root });
  if (code !== 0)
    throw new Trouble(
      `npm ci failed:\n${output.trim().split("\n").slice(-12).join("\n")}\nCheck that npm reaches its registry, then start again.`,
    );
  writeFileSync(mark, digest);
}

/**
 * Installs from a copy of the lock file that says where each tarball is. The lock file names no registry, so npm would ask for
 * the whole description of each package first, which takes as long as all the rest.
 */
async function installFromTarballs() {
  const { output } = await hear("npm", ["config", "get", "registry"], { cwd: root });
  const registry = output.match(/^https?:\/\/\S+$/m)?.[0].replace(/\/?$/, "/");
  if (!registry) return { code: 1, output };
  const lock = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));
  const within = "node_modules/";
  for (const [path, entry] of Object.entries(lock.packages)) {
    const at = path.lastIndexOf(within);
    if (at < 0 || entry.resolved || entry.inBundle) continue;
    const name = entry.name ?? path.slice(at + within.length);
    entry.resolved = `${registry}${name}/-/${name.split("/").at(-1)}-${entry.version}.tgz`;
  }
  // npm reads this one in place of package-lock.json
  const copy = join(root, "npm-shrinkwrap.json");
  try {
    writeFileSync(copy, JSON.stringify(lock));
    return await hear("npm", INSTALL, { cwd: root });
  } finally {
    rmSync(copy, { force: true });
  }
}

const INSTALL = ["ci", "--no-audit", "--no-fund"];

/** @throws Trouble when Node is too old */
export function checkNode() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Trouble(`Node ${process.versions.node} is too old: Bibliotope needs 20.19 or later.`);
}
