import { workerData } from "node:worker_threads";
import { Segment } from "@bibliotope/core/index";
import { correctedEngine } from "../corrections/corrected.ts";
import { appliedCorrections } from "../corrections/corrections.repository.ts";
import { connect } from "../database/connect.ts";
import { ownPort } from "../jobs/port.ts";
import { tell, work } from "../jobs/work.ts";
import { type BatchJobRequest, runBatch } from "./run-batch.ts";

/** What the worker is started with. */
export interface BatchTask {
  databaseUrl: string;
  request: BatchJobRequest;
  /** The open segment, shared by all threads. */
  segment: SharedArrayBuffer;
}

const { databaseUrl, request, segment } = workerData as BatchTask;
let isStopping = false;
ownPort().on("message", () => {
  isStopping = true;
});
const database = connect(databaseUrl, 2);
const engine = correctedEngine(new Segment(segment), await appliedCorrections(database));
await work(() =>
  runBatch(
    database,
    engine,
    request,
    (done, words) => tell({ done, words }),
    () => isStopping,
  ),
);
await database.destroy();
ownPort().close();
