import type { Knex } from "knex";
import { inWorker } from "../jobs/in-worker.ts";
import type { Runner } from "../jobs/jobs.ts";
import type { Files } from "./files.ts";
import { type ImportRequest, type Loaded, loadName } from "./import-request.ts";
import type { LoadTask } from "./load.worker.ts";

/** Loads a file in a thread of its own. Stopped, or ended with the process, it leaves nothing behind. */
export function loader(databaseUrl: string, database: Knex, files: Files): Runner {
  return async (running) => {
    const { id } = running.job;
    // of a process that was killed: PostgreSQL notices only when its statement is done
    await endLoad(database, id);
    const params = running.job.asked as Omit<ImportRequest, "job">;
    // another server may have taken it in
    const path = params.file ? await files.local(params.file) : params.path;
    const request = { ...params, path, job: running.job.id };
    const file = new URL("./load.worker.js", import.meta.url);
    const loaded = await inWorker<Loaded>(file, { databaseUrl, request } satisfies LoadTask, running).catch(
      async (error: unknown) => {
        await endLoad(database, id);
        throw error;
      },
    );
    const { addresses, places, areas } = loaded.counts;
    const words = [counted(addresses, "address", "addresses"), counted(places, "place", "places")].filter(Boolean);
    // a list of towns
    if (!words.length) words.push(counted(areas, "area", "areas"));
    return { words: `${words.join(" and ")} ${request.isTrial ? "would be imported" : "in a draft"}`, result: loaded };
  };
}

/** Ends what a load left running in PostgreSQL; its transaction is taken back. */
async function endLoad(database: Knex, job: number): Promise<void> {
  await database.raw(
    "select pg_terminate_backend(pid) from pg_stat_activity where application_name = ? and datname = current_database()",
    [loadName(job)],
  );
}

const counted = (count: number, one: string, many: string) =>
  count ? `${count.toLocaleString("en")} ${count === 1 ? one : many}` : "";
