import { inWorker } from "../jobs/in-worker.ts";
import type { Runner } from "../jobs/jobs.ts";
import type { LoadAsked, Loaded } from "./asked.ts";
import type { LoadTask } from "./load.worker.ts";

/** Loads a file in a thread of its own. Stopped, or ended with its process, it leaves nothing behind. */
export function loader(databaseUrl: string): Runner {
  return async (running) => {
    const asked = { ...(running.job.asked as Omit<LoadAsked, "job">), job: running.job.id };
    const file = new URL("./load.worker.js", import.meta.url);
    const loaded = await inWorker<Loaded>(file, { databaseUrl, asked } satisfies LoadTask, running);
    const { addresses, places } = loaded.counts;
    const words = [counted(addresses, "address", "addresses"), counted(places, "place", "places")];
    return { words: `${words.filter(Boolean).join(" and ")} in a draft`, result: loaded };
  };
}

const counted = (count: number, one: string, many: string) =>
  count ? `${count.toLocaleString("en")} ${count === 1 ? one : many}` : "";
