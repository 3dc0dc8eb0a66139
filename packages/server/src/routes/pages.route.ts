import { readFileSync } from "node:fs";
import type { ServerResponse } from "node:http";
import { join } from "node:path";
import express, { type RequestHandler, type Router } from "express";
import files, { type ExpressStaticGzipOptions } from "express-static-gzip";
import type { PublishedForms } from "../forms/published-forms.ts";
import { compressedFiles } from "../http/carry.ts";
import { openToPages } from "../http/cors.ts";
import { escapeHtml } from "../http/pages.ts";
import { HttpProblem } from "../http/problem.ts";
import type { PublicPlace } from "../http/public-place.ts";
import { exactRouter } from "../http/router.ts";

const YEAR = "365d";

/**
 * The kit without a build step, for pages of any origin: `/kit/v1/…` the newest, `/kit/VERSION/…` one that never changes.
 * @param kept the folder of all versions
 */
export function kitRoutes(folder: string, kept: string): Router {
  const router = exactRouter();
  router.use("/kit", compressedFiles());
  router.use("/kit/v1", openFiles, express.static(folder, { index: false, fallthrough: true }));
  router.use("/kit", openFiles, express.static(kept, { index: false, redirect: false, immutable: true, maxAge: YEAR }));
  router.use("/kit", () => {
    throw new HttpProblem("not-found", "The kit has no such file or version. It starts at /kit/v1/bibliotope.js.");
  });
  return router;
}

/** `/f/REF`: a form alone, as its users get it, from the published version with a web key. */
export function formPageRoute(forms: PublishedForms, webKey: string, kitFolder: string): Router {
  const page = readFileSync(join(kitFolder, "page.html"), "utf8");
  return exactRouter().get("/f/:ref", (request, response) => {
    const form = forms.find(request.params.ref);
    if (!form) throw new HttpProblem("not-found", "No form with this ref is published.");
    const filled = page.replace(/\{(title|ref|key)\}/g, (_, name: "title" | "ref" | "key") =>
      escapeHtml({ title: form.definition.title, ref: form.ref, key: webKey }[name]),
    );
    response.set("Cache-Control", "no-cache").type("html").send(filled);
  });
}

/** Scripts, styles and fonts of the workbench. All headers of a page would be a tenth of what the first one loads. */
export function studioFiles(folder: string): Router {
  const router = exactRouter();
  router.use("/assets", compressedFiles());
  // most of them are there as the build compressed them, which takes less than any server has time for
  const serveStatic: ExpressStaticGzipOptions["serveStatic"] = {
    immutable: true,
    maxAge: YEAR,
    lastModified: false,
    setHeaders: ofThisPage,
  };
  router.use("/assets", files(join(folder, "assets"), { index: false, enableBrotli: true, serveStatic }));
  router.use("/assets", () => {
    throw new HttpProblem("not-found", "There is no such file.");
  });
  return router;
}

const ofThisPage = (response: ServerResponse) => {
  // the page's own policy holds for all but workers
  response.setHeader("Content-Security-Policy", "default-src 'self'");
  response.setHeader("X-Content-Type-Options", "nosniff");
  response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
};

/** Everything else is the workbench: its icon, and its page for every path that it routes itself. */
export function studioRoutes(folder: string, { path }: Pick<PublicPlace, "path">): Router {
  const router = exactRouter();
  const page = readFileSync(join(folder, "index.html"), "utf8")
    .replace("{base}", path)
    .replace(/(href|src)="\.\//g, `$1="${path}/`);
  router.get("/icon.svg", (_request, response) => response.sendFile(join(folder, "icon.svg")));
  router.get(
    [
      "/",
      "/forms{/*rest}",
      "/lookups{/*rest}",
      "/data{/*rest}",
      "/batches{/*rest}",
      "/services{/*rest}",
      "/values",
      "/keys",
      "/pieces{/*rest}",
    ],
    (_request, response) => {
      response.set("Cache-Control", "no-store").type("html").send(page.replace("{nonce}", response.locals.nonce));
    },
  );
  return router;
}

const openFiles: RequestHandler = (request, response, next) => {
  if (!openToPages(request, response)) next();
};
