import { existsSync, mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { home, root } from "./places.mjs";
import { hear, must } from "./run.mjs";
import { say } from "./say.mjs";

/** An earlier commit, built in a folder of its own. @returns the folder */
export async function buildFormer(ref) {
  const { output } = await hear("git", ["rev-parse", "--short", ref], { cwd: root });
  const folder = join(home, `former-${output.trim()}`);
  if (existsSync(join(folder, "packages/server/dist/main.js"))) return folder;
  say(`Building ${ref} in a folder of its own`);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  await must("Taking out the commit", "sh", ["-c", `git archive "${ref}" | tar -x -C "${folder}"`], { cwd: root });
  await must("Installing its packages", "npm", ["ci", "--no-audit", "--no-fund"], { cwd: folder });
  await must("Building it", process.execPath, ["scripts/build.mjs"], { cwd: folder });
  return folder;
}
