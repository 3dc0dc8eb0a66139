import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { allProfiles, parseRef } from "@bibliotope/core/place";
import type { FileAnswer, LiveCoverageAnswer } from "@bibliotope/wire";
import type { Knex } from "knex";
import { readCoverage, readLiveCoverage } from "../gazetteer/coverage.repository.ts";
import * as repository from "../gazetteer/data-sets.repository.ts";
import { compareVersions } from "../gazetteer/difference.repository.ts";
import { OUT_FORMATS, Out, type OutFormat } from "../gazetteer/out.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { malformedTable } from "../import/bytes.ts";
import type { Files } from "../import/files.ts";
import type { ImportRequest } from "../import/import-request.ts";
import type { Inspections } from "../import/inspections.ts";
import type { Jobs } from "../jobs/jobs.ts";
import { livePublication } from "../publication/publication.repository.ts";
import type { PublicationRequest } from "../publication/publish.ts";

interface Needs {
  database: Knex;
  jobs: Jobs;
  files: Files;
  inspections: Inspections;
}

/** Rows of one kind that are shown. */
const ODD_ROWS = 200;

/** Files that are handed in, data sets, imports, what is live. */
export function dataHandlers({ database, jobs, files, inspections }: Needs) {
  let counted: { name: string; answer: Promise<LiveCoverageAnswer> } | undefined;
  return {
    data,
    handIn,
    inspectFile,
    makeLoad,
    publishData,
    dropVersion,
    oddRows,
    refusedFile,
    versionFile,
    liveCoverage,
    coverage,
    difference,
  } satisfies Partial<OwnHandlers>;

  async function data() {
    return repository.listData(database);
  }

  async function handIn({ params, request }: Own<"handIn">) {
    return files.keep(params.name || "file", request).catch(malformedTable);
  }

  async function inspectFile({ params, parts }: Own<"inspectFile">) {
    const { id } = await fileOf(parts.id);
    const readings = await repository.keptReadings(database, params.dataSet);
    const task = { path: await files.local(id).catch(malformedTable), params, country: await usualCountry(), readings };
    return inspections.inspect(task).catch(malformedTable);
  }

  async function makeLoad({ params: { file, heads, ...request }, user }: Own<"makeLoad">) {
    const handed = await fileOf(file);
    const load: Omit<ImportRequest, "job"> = {
      ...request,
      heads: heads ?? undefined,
      file: handed.id,
      path: files.pathOf(handed.id),
      fileName: handed.name,
      madeBy: user.id,
    };
    const job = await jobs.make({
      kind: "load",
      asked: load,
      title: `${request.isTrial ? "Try" : "Load"} ${handed.name} into ${request.dataSet.name}`,
      total: handed.bytes,
      madeBy: user.id,
    });
    return { job };
  }

  async function publishData({ params: { versions, why }, user }: Own<"publishData">) {
    const params: PublicationRequest = { versions, why, madeBy: user.id };
    const job = { kind: "publish" as const, asked: params, title: why || "Publish", total: 100, madeBy: user.id };
    return { job: await jobs.make(job) };
  }

  async function oddRows({ params, id }: Own<"oddRows">) {
    return repository.oddRows(database, id(), params.kind, ODD_ROWS);
  }

  async function refusedFile({ id, response }: Own<"refusedFile">) {
    response.type("text/csv").attachment("refused.csv");
    await pipeline(Readable.from(repository.refusedRows(database, id())), response);
  }

  async function versionFile({ params: { inside, corrected }, parts: { format }, id, response }: Own<"versionFile">) {
    if (!Object.hasOwn(OUT_FORMATS, format)) throw new HttpProblem("not-found", "The format is csv, geojson or gpx.");
    const about = await repository.findVersion(database, id("id"));
    if (!about) throw noVersion();
    const area = inside === undefined ? undefined : (parseRef(inside)?.identity ?? -1);
    const out = await Out.of(database, id("id"), { inside: area, isCorrected: corrected !== "no" });
    if (!out) throw new HttpProblem("not-found", "This version has no area with that ref.");
    response.type(OUT_FORMATS[format as OutFormat]).attachment(`${about.name}-${about.number}.${format}`);
    await pipeline(Readable.from(out.write(format as OutFormat)), response);
  }

  async function difference({ params, id }: Own<"difference">) {
    return compareVersions(database, params.from, id());
  }

  /** Counted anew for another publication alone: a version never changes, and some have millions of rows. */
  async function liveCoverage() {
    const versions = (await livePublication(database))?.versions ?? [];
    const name = versions.join();
    if (counted?.name !== name) counted = { name, answer: readLiveCoverage(database, versions) };
    const { answer } = counted;
    return answer.catch((error: unknown) => {
      if (counted?.answer === answer) counted = undefined;
      throw error;
    });
  }

  async function coverage({ params, id }: Own<"coverage">) {
    return readCoverage(database, id(), params.beside || undefined);
  }

  async function dropVersion({ id }: Own<"dropVersion">) {
    if (!(await repository.dropVersion(database, id())))
      throw new HttpProblem("conflict", "This version is or was live. It is kept so that it can be restored.");
  }

  async function fileOf(id: string): Promise<FileAnswer> {
    const file = await files.find(id);
    if (file) return file;
    throw new HttpProblem("not-found", "The file no longer exists. Upload it again.");
  }

  /** The country that a file without one is most likely of: where there is only one, or the first that is stored. */
  async function usualCountry(): Promise<string | undefined> {
    const row = await database("areas").where({ kind: "country" }).orderBy("identity").first("country");
    return row?.country ?? allProfiles()[0]?.code;
  }
}

const noVersion = () => new HttpProblem("not-found", "There is no such version.");
