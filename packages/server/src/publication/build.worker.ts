import { open, rename, unlink } from "node:fs/promises";
import { workerData } from "node:worker_threads";
import { SegmentBuilder } from "@bibliotope/core/index";
import { connect } from "../database/connect.ts";
import { noteReplaced } from "../gazetteer/identities.repository.ts";
import { countRecords, readRecords, readSources } from "../gazetteer/records.repository.ts";
import { ownPort } from "../jobs/port.ts";
import { standBack } from "../jobs/work.ts";

/** What the worker is started with. */
export interface BuildTask {
  databaseUrl: string;
  versions: number[];
  /** The segment's name and the file it is written to. */
  name: string;
  file: string;
}

export type BuildMessage = { read: number; total: number } | { done: true; records: number; bytes: number };

const task = workerData as BuildTask;
standBack();
const database = connect(task.databaseUrl, 2);
const aside = `${task.file}.${process.pid}.part`;
try {
  const total = await countRecords(database, task.versions);
  const builder = new SegmentBuilder();
  const { read, replaced, doubles } = await readRecords(database, task.versions, builder, (count) =>
    post({ read: count, total }),
  );
  const buffer = builder.finish({ name: task.name, sources: await readSources(database, task.versions), doubles });
  await writeWhole(aside, new Uint8Array(buffer));
  await rename(aside, task.file);
  await noteReplaced(database, replaced);
  post({ done: true, records: read, bytes: buffer.byteLength });
} catch (error) {
  await unlink(aside).catch(() => undefined);
  throw error;
} finally {
  await database.destroy();
}

/** Writes and waits until the disk has it, so that a rename never shows a half-written file. */
async function writeWhole(file: string, bytes: Uint8Array): Promise<void> {
  const handle = await open(file, "w");
  try {
    await handle.writeFile(bytes);
    await handle.sync();
  } finally {
    await handle.close();
  }
}

function post(message: BuildMessage): void {
  ownPort().postMessage(message);
}
