import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { allProfiles, parseRef } from "@bibliotope/core/place";
import {
  coverageAsking,
  differenceAsking,
  type FileAnswer,
  fileAsking,
  lookAtFileAsking,
  makeLoadAsking,
  oddRowsAsking,
  outAsking,
  publishAsking,
} from "@bibliotope/wire";
import type { Router } from "express";
import type { Knex } from "knex";
import type { LoadAsked } from "../bring/asked.ts";
import { malformedTable } from "../bring/bytes.ts";
import type { Files } from "../bring/files.ts";
import type { Looks } from "../bring/looks.ts";
import { readCoverage } from "../gazetteer/coverage.repository.ts";
import * as data from "../gazetteer/data-sets.repository.ts";
import { compareVersions } from "../gazetteer/difference.repository.ts";
import { OUT_FORMATS, Out, type OutFormat } from "../gazetteer/out.ts";
import { idOf, readAsking, readQuery } from "../http/asking.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { needs } from "../http/session.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { PublishAsked } from "../publication/publish.ts";

interface Needs {
  database: Knex;
  jobs: Jobs;
  files: Files;
  looks: Looks;
}

/** Rows of one kind that are shown. */
const ODD_ROWS = 200;

/** `/api/files`, where a file is handed in as it is: before the body is read as JSON. */
export function fileRoutes({ files }: Pick<Needs, "files">): Router {
  const router = exactRouter();
  router.use("/files", needs("edit"));
  router.post("/files", async (request, response, next) => {
    if (request.is("application/json")) return next();
    const { name } = readQuery(request, fileAsking);
    const kept = await files.keep(name || "file", request).catch(malformedTable);
    response.status(201).json(kept satisfies FileAnswer);
  });
  return router;
}

/** `/api/data…`: data sets, what is brought, what is live. */
export function dataRoutes({ database, jobs, files, looks }: Needs): Router {
  const router = exactRouter();
  router.use(["/data", "/files", "/loads", "/publications", "/versions"], needs("edit", { reading: true }));

  router.get("/data", async (_request, response) => void response.json(await data.listData(database)));
  router.post("/files/:id/look", async (request, response) => {
    const asked = readAsking(request, lookAtFileAsking);
    const { id } = await fileOf(request.params.id);
    const readings = await data.keptReadings(database, asked.dataSet);
    const task = { path: files.pathOf(id), asked, country: await usualCountry(), readings };
    response.json(await looks.look(task).catch(malformedTable));
  });
  router.post("/loads", async (request, response) => {
    const { file, heads, ...asked } = readAsking(request, makeLoadAsking);
    const held = await fileOf(file);
    const told: Omit<LoadAsked, "job"> = {
      ...asked,
      heads: heads ?? undefined,
      path: files.pathOf(held.id),
      fileName: held.name,
      madeBy: response.locals.user.id,
    };
    const id = await jobs.make({
      kind: "load",
      asked: told,
      title: `${asked.isTrial ? "Try" : "Load"} ${held.name} into ${asked.dataSet.name}`,
      total: held.bytes,
      madeBy: response.locals.user.id,
    });
    response.status(202).json({ job: id });
  });
  router.post("/publications", async (request, response) => {
    const { versions, why } = readAsking(request, publishAsking);
    const asked: PublishAsked = { versions, why, madeBy: response.locals.user.id };
    const job = { kind: "publish" as const, asked, title: why || "Publish", total: 100, madeBy: asked.madeBy };
    response.status(202).json({ job: await jobs.make(job) });
  });
  router.get("/versions/:id/rows", async (request, response) => {
    const { kind } = readQuery(request, oddRowsAsking);
    response.json(await data.oddRows(database, idOf(request.params.id), kind, ODD_ROWS));
  });
  router.get("/versions/:id/refused.csv", async (request, response) => {
    response.type("text/csv").attachment("refused.csv");
    await pipeline(Readable.from(data.refusedRows(database, idOf(request.params.id))), response);
  });
  router.get("/versions/:id/out.:format", async (request, response) => {
    const { id, format } = request.params;
    if (!Object.hasOwn(OUT_FORMATS, format)) throw new HttpProblem("not-found", "It goes out as csv, geojson or gpx.");
    const about = await data.findVersion(database, idOf(id));
    if (!about) throw noVersion();
    const { inside, corrected } = readQuery(request, outAsking);
    const area = inside === undefined ? undefined : (parseRef(inside)?.identity ?? -1);
    const out = await Out.of(database, idOf(id), { inside: area, isCorrected: corrected !== "no" });
    if (!out) throw new HttpProblem("not-found", "This version has no area with that ref.");
    response.type(OUT_FORMATS[format as OutFormat]).attachment(`${about.name}-${about.number}.${format}`);
    await pipeline(Readable.from(out.write(format as OutFormat)), response);
  });
  router.get("/versions/:id/difference", async (request, response) => {
    const { from } = readQuery(request, differenceAsking);
    response.json(await compareVersions(database, from, idOf(request.params.id)));
  });
  router.get("/versions/:id/coverage", async (request, response) => {
    const { beside } = readQuery(request, coverageAsking);
    response.json(await readCoverage(database, idOf(request.params.id), beside || undefined));
  });
  router.delete("/versions/:id", async (request, response) => {
    if (!(await data.dropVersion(database, idOf(request.params.id))))
      throw new HttpProblem("conflict", "This version is live, or was: it is kept, so that one can go back to it.");
    response.status(204).end();
  });
  return router;

  async function fileOf(id: string): Promise<FileAnswer> {
    const file = await files.find(id);
    if (file) return file;
    throw new HttpProblem("not-found", "There is no such file any more. Hand it in again.");
  }

  /** The country that a file without one is most likely of: where there is only one, or the first that is held. */
  async function usualCountry(): Promise<string | undefined> {
    const row = await database("areas").where({ kind: "country" }).orderBy("identity").first("country");
    return row?.country ?? allProfiles()[0]?.code;
  }
}

const noVersion = () => new HttpProblem("not-found", "There is no such version.");
