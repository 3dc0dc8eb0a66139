import type { ServerResponse } from "node:http";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { MakeBatchRequest } from "@bibliotope/wire";
import { create as contentDisposition } from "content-disposition";
import type { Knex } from "knex";
import { OUT_FORMATS, type OutFormat } from "../gazetteer/out.ts";
import { HttpProblem } from "../http/problem.ts";
import type { Jobs } from "../jobs/jobs.ts";
import { makeBatch, type StoredBatch, setBatchJob } from "./batches.repository.ts";
import { writeBatch } from "./out.ts";
import type { BatchJobRequest } from "./run-batch.ts";

/** Makes a batch of a file, and the job that runs it. */
export async function startBatch(
  { database, jobs }: { database: Knex; jobs: Jobs },
  path: string,
  { name, ask, format, heads, reading, register }: Omit<MakeBatchRequest, "file">,
  by: { madeBy: number | null; key: number | null; countries?: string[] },
): Promise<{ batch: number; job: number }> {
  const { madeBy, key, countries } = by;
  const batch = await makeBatch(database, { name, ask, reading, heads, madeBy, key, register: register ?? null });
  const request: BatchJobRequest = {
    batch,
    path,
    format,
    heads: heads ?? undefined,
    reading,
    ask,
    countries,
    register,
  };
  const job = await jobs.make({ kind: "batch", asked: request, title: name, total: 0, madeBy }, (id) =>
    setBatchJob(database, batch, id),
  );
  return { batch, job };
}

/** Hands a batch out with what was found, as it is read. */
export async function sendBatch(
  database: Knex,
  batch: StoredBatch,
  format: string,
  isAcceptedOnly: boolean,
  response: ServerResponse,
): Promise<void> {
  if (!Object.hasOwn(OUT_FORMATS, format)) throw new HttpProblem("not-found", "The format is csv, geojson or gpx.");
  const name = batch.name.replace(/\.(csv|tsv|txt|geojson|json|gz)$/i, "");
  response.setHeader("Content-Type", `${OUT_FORMATS[format as OutFormat]}; charset=utf-8`);
  response.setHeader("Content-Disposition", contentDisposition(`${name}-found.${format}`));
  await pipeline(Readable.from(writeBatch(database, batch, format as OutFormat, isAcceptedOnly)), response);
}
