import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
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
  const { code, output } = await hear("npm", ["ci", "--no-audit", "--no-fund"], { cwd: root });
  if (code !== 0)
    throw new Trouble(
      `npm ci failed:\n${output.trim().split("\n").slice(-12).join("\n")}\nCheck that npm reaches its registry, then start again.`,
    );
  writeFileSync(mark, digest);
}

/** @throws Trouble when Node is too old */
export function checkNode() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Trouble(`Node ${process.versions.node} is too old: Bibliotope needs 20.19 or later.`);
}
