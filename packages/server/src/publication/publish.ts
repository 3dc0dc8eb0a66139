import type { Knex } from "knex";
import { type Runner, Stopped } from "../jobs/jobs.ts";
import type { LiveIndex } from "./live-index.ts";
import { publish } from "./publication.repository.ts";
import type { SegmentStore } from "./segment-store.ts";

/** Parameters of a job that publishes. */
export interface PublicationRequest {
  /** The most trusted first. */
  versions: number[];
  why: string;
  madeBy: number | null;
}

/**
 * Builds the segment of some versions, and makes them live only when it is there. Lookups are answered by the one
 * before until the new one is open.
 */
export function publisher(database: Knex, store: SegmentStore, index: LiveIndex): Runner {
  return async ({ job, progress, stop }) => {
    const { versions, why, madeBy } = job.asked as PublicationRequest;
    const stored = await database("data_set_versions").whereIn("id", versions).pluck("id");
    const gone = versions.find((version) => !stored.includes(version));
    if (gone !== undefined) throw new Error("One of these versions was deleted in the meantime. Nothing was changed.");
    // the map is drawn from the same records: both at once
    const beside = index.prepare(versions);
    const built = await store
      .segmentFor(versions, (read, total) => {
        const share = total ? (read / total) * job.total : 0;
        progress(Math.min(share, job.total), `Building the index: ${read.toLocaleString("en")} records read`);
      })
      .catch(async (error: unknown) => {
        await index.letGo();
        throw error;
      });
    if (!stop.aborted) progress(job.total, "Drawing the map");
    await beside;
    if (stop.aborted) {
      await index.letGo();
      throw new Stopped(stop.reason);
    }
    progress(job.total, "Opening the index");
    // begun again after it was published: not a second time
    const done = await database.transaction(async (transaction) => {
      const before = await transaction("publications").where({ job_id: job.id }).first("id");
      return before?.id ?? (await publish(transaction, versions, { why, madeBy, job: job.id }));
    });
    await index.refresh();
    // one that was made ready for what was open already
    await index.letGo();
    const { counts, doubles = 0 } = built.meta;
    const merged = doubles ? `; ${doubles.toLocaleString("en")} that several data sets hold were merged` : "";
    return {
      words: `${counts.addresses.toLocaleString("en")} addresses are live${merged}`,
      result: { publication: done, addresses: counts.addresses },
    };
  };
}
