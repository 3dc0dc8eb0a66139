import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import express, { type Router } from "express";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";

/** The docs as `npm run docs` builds them. */
export const DOCS_FOLDER = fileURLToPath(new URL("../../../../site/dist", import.meta.url));

/** `/docs`: the docs of this version, where they were built. */
export function docsRoutes(folder: string): Router {
  const router = exactRouter();
  if (existsSync(folder)) {
    const policy = [
      "default-src 'none'",
      `script-src 'self' ${inlineScripts(folder).join(" ")}`,
      // code is coloured by attributes
      "style-src 'self' 'unsafe-inline'",
      // pieces of the kit run in them: a map draws in workers
      "img-src 'self' data: blob:",
      "worker-src 'self' blob:",
      "font-src 'self' data:",
      "connect-src 'self'",
      "frame-ancestors 'none'",
      "base-uri 'none'",
      "form-action 'none'",
    ].join("; ");
    router.use("/docs", (_request, response, next) => {
      response.setHeader("Content-Security-Policy", policy);
      next();
    });
    router.use("/docs", express.static(folder, { extensions: ["html"] }));
  }
  router.use("/docs", () => {
    throw new HttpProblem(
      "not-found",
      existsSync(folder)
        ? "The docs have no such page. They start at /docs/."
        : "The docs are not built here: run npm run docs in the clone, then start the server again.",
    );
  });
  return router;
}

/** Digests of the scripts that are written into the pages, as a content security policy names them. */
function inlineScripts(folder: string): string[] {
  const pages = readdirSync(folder, { recursive: true, encoding: "utf8" }).filter((file) => file.endsWith(".html"));
  const scripts = pages.flatMap((page) =>
    [...readFileSync(join(folder, page), "utf8").matchAll(/<script(?![^>]*\ssrc=)[^>]*>(.*?)<\/script>/gs)].map(
      ([, script]) => script,
    ),
  );
  return [...new Set(scripts)].map((script) => `'sha256-${createHash("sha256").update(script).digest("base64")}'`);
}
