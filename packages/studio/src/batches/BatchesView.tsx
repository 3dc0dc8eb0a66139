import type { BatchSummary } from "@bibliotope/wire";
import { Link } from "react-router";
import { JobLine } from "../data/JobLine.tsx";
import { useBatchesQuery, useDropBatchMutation } from "../state/batches-api.ts";
import { useJobsQuery } from "../state/data-api.ts";
import { useMayEdit } from "../state/may.ts";
import { RouteButton } from "../ui/Button.tsx";
import { moment } from "../ui/moment.ts";
import { Page } from "../ui/Page.tsx";
import { StatusBar } from "./StatusBar.tsx";
import { summary } from "./words.ts";

/** Milliseconds after which the list is read again, while something runs. */
const AGAIN = 2000;

/** Many lookups at once: files and their states. */
export function BatchesView() {
  const canEdit = useMayEdit();
  const { data: jobs } = useJobsQuery();
  const running = jobs?.filter(({ kind, endedAt }) => kind === "batch" && !endedAt) ?? [];
  const { data, error, isLoading } = useBatchesQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: running.length ? AGAIN : 0,
  });
  return (
    <Page
      title="Batches"
      actions={
        <>
          <Link to="/values" className="underline">
            Values on a map
          </Link>
          {canEdit ? <RouteButton to="/batches/new">New batch</RouteButton> : null}
        </>
      }
      intro="Upload a file of addresses or positions and download it with what was found. Clear rows need no review; you go through the doubtful ones one by one."
      error={error}
      loading={isLoading && "Loading batches"}
    >
      {running.length ? (
        <ul aria-label="In progress" className="mt-5 rounded-md border border-rule bg-page">
          {running.map((job) => (
            <JobLine key={job.id} job={job} canSteer={canEdit} canPause />
          ))}
        </ul>
      ) : null}
      {data?.length ? (
        <ul className="mt-5 rounded-md border border-rule bg-page">
          {data.map((batch) => (
            <Line key={batch.id} batch={batch} canEdit={canEdit} />
          ))}
        </ul>
      ) : null}
      {data?.length === 0 ? (
        <p className="mt-5 text-quiet">
          No batches yet. Start one with “New batch”, which has sample addresses to try, send a file to{" "}
          <code className="font-mono">POST /v1/batches</code> with a server key, or run{" "}
          <code className="font-mono">npx bibliotope batch FILE</code>.
        </p>
      ) : null}
    </Page>
  );
}

function Line({ batch, canEdit }: { batch: BatchSummary; canEdit: boolean }) {
  const [drop, { isLoading }] = useDropBatchMutation();
  const { id, name, madeAt, job, counts } = batch;
  const isBroken = job.state === "failed";
  return (
    <li className="border-t border-rule px-4 py-3 first:border-t-0">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Link to={`/batches/${id}`} className="min-w-0 break-words font-serif text-[17px] underline">
          {name}
        </Link>
        <span className="text-[13px] text-quiet">{summary(batch)}</span>
        <span className="ml-auto text-[12.5px] text-quiet">
          {job.state === "done" ? "" : `${job.state} · `}
          {moment(madeAt)}
        </span>
        {canEdit && job.state !== "running" ? (
          <button type="button" className="text-[13px] underline" disabled={isLoading} onClick={() => void drop(id)}>
            Delete
          </button>
        ) : null}
      </div>
      {isBroken ? <p className="mt-1 text-[13px] text-madder">{job.words}</p> : null}
      <div className="mt-2">
        <StatusBar counts={counts} thin />
      </div>
    </li>
  );
}
