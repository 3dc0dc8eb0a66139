import { parentPort, workerData } from "node:worker_threads";
import { SheetCutter, type SheetFeature } from "@bibliotope/core/sheet";
import { connect } from "../database/connect.ts";
import { readMapFeatures } from "./map-features.repository.ts";

/** What the worker is started with. */
export interface SheetsTask {
  databaseUrl: string;
  versions: number[];
}

export interface TileAsked {
  id: number;
  z: number;
  x: number;
  y: number;
}

export type SheetsMessage = { ready: true } | { id: number; json: string };

const { databaseUrl, versions } = workerData as SheetsTask;
const database = connect(databaseUrl, 1);
const features: SheetFeature[] = await readMapFeatures(database, versions);
await database.destroy();
const cutter = new SheetCutter(features);
const answer = (message: SheetsMessage) => parentPort!.postMessage(message);
parentPort!.on("message", ({ id, z, x, y }: TileAsked) =>
  answer({ id, json: JSON.stringify(cutter.cut({ z, x, y })) }),
);
answer({ ready: true });
