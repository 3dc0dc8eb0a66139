import { createHash } from "node:crypto";
import { once } from "node:events";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import express from "express";
import { afterEach, describe, expect, it } from "vitest";
import { problems } from "../http/problem.ts";
import { docsRoutes } from "./docs.route.ts";

const SCRIPT = "document.documentElement.classList.add('dark')";
const ends: (() => void)[] = [];
afterEach(() => {
  for (const end of ends.splice(0)) end();
});

/** Serves the docs of a folder. @returns asks for a path */
async function serve(folder: string) {
  const server = express().use(docsRoutes(folder)).use(problems).listen(0, "127.0.0.1");
  await once(server, "listening");
  ends.push(() => void server.close());
  const { port } = server.address() as AddressInfo;
  return (path: string) =>
    fetch(`http://127.0.0.1:${port}${path}`, { headers: { accept: "text/html" }, redirect: "manual" });
}

function built(): string {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-docs-"));
  ends.push(() => rmSync(folder, { recursive: true, force: true }));
  mkdirSync(join(folder, "assets"));
  writeFileSync(
    join(folder, "index.html"),
    `<!doctype html><script type="module" src="/docs/assets/app.js"></script><script id="x">${SCRIPT}</script>`,
  );
  writeFileSync(join(folder, "kit.html"), "<!doctype html><title>The kit</title>");
  return folder;
}

describe("the docs", () => {
  it("run the scripts that were built into their pages, and no others", async () => {
    const ask = await serve(built());
    const response = await ask("/docs/");
    expect(response.status).toBe(200);
    const policy = response.headers.get("content-security-policy")!;
    const digest = createHash("sha256").update(SCRIPT).digest("base64");
    expect(policy).toContain(`script-src 'self' 'sha256-${digest}';`);
    expect(policy).toContain("default-src 'none'");
    // a map of the kit runs in them, and draws in workers
    expect(policy).toContain("worker-src 'self' blob:");
  });

  it("have each page with its ending and without, and say where they start for any other", async () => {
    const ask = await serve(built());
    for (const path of ["/docs/kit", "/docs/kit.html"]) expect(await (await ask(path)).text()).toContain("The kit");
    for (const path of ["/docs/nothing", "/docs/..%2f..%2fpackage.json", "/docs/.npmrc"]) {
      const response = await ask(path);
      expect(response.status, path).toBe(404);
      expect(await response.text()).toContain("They start at /docs/.");
    }
  });

  it("say how they are built where they are not", async () => {
    const ask = await serve("/nowhere");
    expect(await (await ask("/docs/")).text()).toContain("npm run docs");
  });
});
