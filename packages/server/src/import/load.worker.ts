import { workerData } from "node:worker_threads";
import { connect } from "../database/connect.ts";
import { tell, work } from "../jobs/work.ts";
import { type ImportRequest, loadName } from "./import-request.ts";
import { load } from "./load.ts";

/** What the worker is started with. */
export interface LoadTask {
  databaseUrl: string;
  request: ImportRequest;
}

const { databaseUrl, request } = workerData as LoadTask;
const database = connect(databaseUrl, 2, loadName(request.job));
await work(() => load(database, request, (done, words) => tell({ done, words })));
await database.destroy();
