import { type ChildProcess, execFile, spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { extname, join } from "node:path";
import { promisify } from "node:util";
import { testHome } from "./house.ts";

const run = promisify(execFile);
/** Files that run side by side do not share what they install. */
const worker = process.env.TEST_WORKER_INDEX ?? "0";
const ROOT = join(import.meta.dirname, "../..");

/** Packs the kit and installs it in an empty folder, off-line. @returns where the installed package is */
export async function installKit(): Promise<string> {
  await run(process.execPath, ["scripts/pack-kit.mjs"], { cwd: ROOT });
  const home = join(ROOT, ".bibliotope");
  const tarball = readdirSync(home).find((file) => /^bibliotope-kit-.*\.tgz$/.test(file))!;
  const folder = join(testHome(), `installed-${worker}`);
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, "package.json"), '{ "private": true }');
  await run("npm", ["install", "--offline", "--no-audit", "--no-fund", join(home, tarball)], { cwd: folder });
  return join(folder, "node_modules/@bibliotope/kit");
}

/**
 * A copy of an example outside the workspace, with the installed kit; what else it needs lies in node_modules above.
 * @returns its folder
 */
export function copyExample(name: string, kit: string): string {
  const folder = join(testHome(), `examples-${worker}`, name);
  rmSync(folder, { recursive: true, force: true });
  cpSync(join(ROOT, "examples", name), folder, { recursive: true });
  cpSync(kit, join(folder, "node_modules/@bibliotope/kit"), { recursive: true });
  return folder;
}

/**
 * A copy of an example whose framework has a lock file of its own, with what that names and the installed kit. What was
 * installed is kept until the lock file changes.
 * @returns its folder
 */
export async function copyWithFramework(name: string, kit: string): Promise<string> {
  const example = join(ROOT, "examples", name);
  const lock = readFileSync(join(example, "package-lock.json"));
  const folder = join(ROOT, ".bibliotope/frameworks", name);
  const stamp = join(folder, `${createHash("sha256").update(lock).digest("hex").slice(0, 16)}.installed`);
  if (!existsSync(stamp)) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
    // the lock file is of everything but the kit, which was packed a moment ago
    const { dependencies, ...own } = JSON.parse(readFileSync(join(example, "package.json"), "utf8"));
    const { "@bibliotope/kit": _, ...others } = dependencies;
    writeFileSync(join(folder, "package.json"), JSON.stringify({ ...own, dependencies: others }));
    writeFileSync(join(folder, "package-lock.json"), lock);
    await run("npm", ["ci", "--ignore-scripts", "--no-audit", "--no-fund"], { cwd: folder });
    writeFileSync(stamp, "");
  }
  for (const entry of readdirSync(folder))
    if (!/^(node_modules|package-lock\.json)$|\.installed$/.test(entry))
      rmSync(join(folder, entry), { recursive: true, force: true });
  cpSync(example, folder, { recursive: true });
  const installed = join(folder, "node_modules/@bibliotope/kit");
  rmSync(installed, { recursive: true, force: true });
  cpSync(kit, installed, { recursive: true });
  return folder;
}

/** Runs a program of an example's folder. @throws with what it said when it fails */
export async function runIn(
  folder: string,
  program: string,
  args: string[],
  env: NodeJS.ProcessEnv = {},
): Promise<void> {
  // most who use the kit compile with TypeScript 5
  const file = program === "tsc" ? "typescript/bin/tsc" : `.bin/${program}`;
  const own = join(folder, "node_modules", file);
  await run(existsSync(own) ? own : join(ROOT, "node_modules", file), args, {
    cwd: folder,
    env: { ...process.env, ...env },
  }).catch((error: Error & { stdout?: string; stderr?: string }) => {
    throw new Error(`${program} failed: ${error.stdout}\n${error.stderr}`);
  });
}

/** Starts an example's own server. @returns its address, and what ends it */
export async function startExample(
  folder: string,
  script: string,
  env: NodeJS.ProcessEnv,
  args: readonly string[] = [],
): Promise<{ url: string; stop: () => void }> {
  const child: ChildProcess = spawn(process.execPath, [script, ...args], {
    cwd: folder,
    env: { ...process.env, PORT: "0", ...env },
    stdio: ["ignore", "pipe", "inherit"],
  });
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout!.on("data", (said: Buffer) => {
      const found = /http:\/\/\S+/.exec(said.toString());
      if (found) resolve(found[0]);
    });
    child.once("exit", (code) => reject(new Error(`the example ended with code ${code}`)));
  });
  return { url, stop: () => child.kill() };
}

const TYPES: Record<string, string> = { ".html": "text/html", ".js": "text/javascript", ".css": "text/css" };

/** Serves a folder of built files, as any server of static pages does. */
export async function serveFolder(folder: string): Promise<{ url: string; server: Server }> {
  const { readFile } = await import("node:fs/promises");
  const server = createServer(async (request, response) => {
    const { pathname } = new URL(request.url ?? "/", "http://localhost");
    // browsers ask for an icon by themselves
    if (pathname === "/favicon.ico") return void response.writeHead(204).end();
    const file = join(folder, pathname === "/" ? "index.html" : pathname);
    const body = await readFile(file).catch(() => undefined);
    if (!body) return void response.writeHead(404).end();
    response.setHeader("Content-Type", TYPES[extname(file)] ?? "application/octet-stream").end(body);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { url: `http://localhost:${(server.address() as AddressInfo).port}`, server };
}
