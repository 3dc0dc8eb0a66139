import { setImmediate as turn } from "node:timers/promises";
import { workerData } from "node:worker_threads";
import type { MapFeature, TileName } from "@bibliotope/core/map";
import { connect } from "../database/connect.ts";
import { ownPort } from "../jobs/port.ts";
import { amend, type TileAmends } from "./amends.ts";
import { readMapFeatures } from "./map-features.repository.ts";
import { paintStill, type Still, StillSource } from "./still.ts";

/** What the worker is started with. */
export interface TilesTask {
  databaseUrl: string;
  versions: number[];
}

/** A tile to be cut, or a still to be painted. */
export type TileJobRequest = { id: number; tile: TileName } | { id: number; still: Still };
/** A still that nobody waits for any more. */
export type TilesUnwanted = { unwanted: number };
/** What is to be shown otherwise from now on. */
export type TilesAmended = { amends: TileAmends };
export type TilesMessage = { ready: true } | { id: number; made: string | Uint8Array } | { id: number; failed: string };

const { databaseUrl, versions } = workerData as TilesTask;
const database = connect(databaseUrl, 1);
const features: MapFeature[] = await readMapFeatures(database, versions);
await database.destroy();
const source = new StillSource(features);
const answer = (message: TilesMessage) => ownPort().postMessage(message);
const unwanted = new Set<number>();

ownPort().on("message", (request: TileJobRequest | TilesUnwanted | TilesAmended) => {
  if ("amends" in request) source.amend((cutter) => amend(cutter, request.amends));
  else if ("unwanted" in request) unwanted.add(request.unwanted);
  else void make(request);
});
answer({ ready: true });

async function make(request: TileJobRequest): Promise<void> {
  const { id } = request;
  try {
    const made = "tile" in request ? JSON.stringify(source.cutter.cut(request.tile)) : await paint(id, request.still);
    answer({ id, made });
  } catch (error) {
    answer({ id, failed: String(error) });
  } finally {
    unwanted.delete(id);
  }
}

/** Between two steps pieces of the map are cut that were requested meanwhile. */
function paint(id: number, still: Still): Promise<Uint8Array> {
  return paintStill(source, still, async () => {
    await turn();
    if (unwanted.has(id)) throw new Error("nobody waits for this picture any more");
  });
}
