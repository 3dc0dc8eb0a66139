import { workerData } from "node:worker_threads";
import { connect } from "../database/connect.ts";
import { tell, work } from "../jobs/work.ts";
import { type LoadAsked, loadName } from "./import-request.ts";
import { load } from "./load.ts";

/** What the worker is started with. */
export interface LoadTask {
  databaseUrl: string;
  asked: LoadAsked;
}

const { databaseUrl, asked } = workerData as LoadTask;
const database = connect(databaseUrl, 2, loadName(asked.job));
await work(() => load(database, asked, (done, words) => tell({ done, words })));
await database.destroy();
