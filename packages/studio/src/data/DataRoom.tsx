import type { DataAnswer, DataSetSummary, JobSummary, VersionSummary } from "@bibliotope/wire";
import { Link } from "react-router";
import { wordsOf } from "../state/api.ts";
import { useDataQuery, useDropVersionMutation, useJobsQuery } from "../state/data-api.ts";
import { useMayEdit } from "../state/may.ts";
import { RouteButton } from "../ui/Button.tsx";
import { count } from "../ui/count.ts";
import { moment } from "../ui/moment.ts";
import { Page } from "../ui/Page.tsx";
import { FramedTable, RowHead } from "../ui/Table.tsx";
import { JobLine } from "./JobLine.tsx";
import { KeptFor } from "./KeptFor.tsx";
import { LiveNow, NothingLive } from "./LiveNow.tsx";
import { PublishDialog } from "./PublishDialog.tsx";
import { Published } from "./Published.tsx";
import { holds, sumOfChecks, withVersion } from "./words.ts";

/** Work that ended stays in sight for so many milliseconds. */
const IN_SIGHT = 10 * 60_000;
const ENDED_SHOWN = 3;

/** What addresses are stored: data sets, their versions, what is live, and what is being imported. */
export function DataRoom() {
  const canEdit = useMayEdit();
  const { data, error, isLoading } = useDataQuery(undefined, { refetchOnMountOrArgChange: true });
  const { data: jobs } = useJobsQuery();
  return (
    <Page
      title="Data"
      actions={
        <>
          <Link to="/data/corrections" className="underline">
            Corrections
          </Link>
          {canEdit ? <RouteButton to="/data/import">Import a file</RouteButton> : null}
        </>
      }
      intro="Lookups use the live data. An imported file becomes a draft first: check it, see what it changes, then publish it. If two data sets contain the same address, the one higher in the order is used."
      error={error}
      loading={isLoading && "Loading data"}
    >
      {data ? (
        data.publications.length ? (
          <LiveNow versions={data.publications[0].versions.length} />
        ) : (
          <NothingLive canEdit={canEdit} />
        )
      ) : null}
      <UnderWay jobs={jobs ?? []} canEdit={canEdit} />
      {data && liveFirst(data).map((set) => <DataSet key={set.id} set={set} data={data} canEdit={canEdit} />)}
      {data ? <Published data={data} canEdit={canEdit} /> : null}
      <KeptFor />
    </Page>
  );
}

/** What is live is above what is not; a set without versions holds what was added by hand. */
function liveFirst({ dataSets }: DataAnswer): DataSetSummary[] {
  const isLive = ({ versions }: DataSetSummary) => versions.some((version) => version.isLive);
  return dataSets.filter(({ versions }) => versions.length).toSorted((a, b) => Number(isLive(b)) - Number(isLive(a)));
}

function UnderWay({ jobs, canEdit }: { jobs: readonly JobSummary[]; canEdit: boolean }) {
  const others = jobs.filter(({ kind }) => kind !== "batch");
  const isEnded = ({ endedAt }: JobSummary) => endedAt !== null;
  const ended = others.filter((job) => isEnded(job) && Date.now() - Date.parse(job.endedAt ?? "") < IN_SIGHT);
  const shown = [...others.filter((job) => !isEnded(job)), ...ended.slice(0, ENDED_SHOWN)];
  if (!shown.length) return null;
  return (
    <section aria-label="In progress" className="mt-5">
      <ul className="rounded-md border border-rule bg-page">
        {shown.map((job) => (
          <JobLine key={job.id} job={job} canSteer={canEdit} />
        ))}
      </ul>
    </section>
  );
}

function DataSet({ set, data, canEdit }: { set: DataSetSummary; data: DataAnswer; canEdit: boolean }) {
  const { name, licence, source, versions } = set;
  return (
    <section aria-label={name} className="mt-6">
      <h2 className="font-serif text-[20px] font-semibold">{name}</h2>
      <p className="text-[13px] text-quiet">{[source, licence].filter(Boolean).join(" · ")}</p>
      <FramedTable
        label={`Versions of ${name}`}
        narrowest="min-w-[50rem]"
        heads={["Version", "Data date", "Contains", "Rejected rows", "Rows with warnings", { hidden: "Actions" }]}
      >
        {versions.map((version) => (
          <Version key={version.id} {...{ version, data, canEdit, name }} />
        ))}
      </FramedTable>
    </section>
  );
}

interface VersionProps {
  version: VersionSummary;
  data: DataAnswer;
  name: string;
  canEdit: boolean;
}

function Version({ version, data, name, canEdit }: VersionProps) {
  const { id, number, day, madeAt, counts, checks, isLive } = version;
  const { refused, odd } = sumOfChecks(checks);
  const wasLive = data.publications.some(({ versions }) => versions.includes(id));
  return (
    <tr className="border-t border-rule align-baseline">
      <RowHead className="px-4 py-2.5 whitespace-nowrap">
        <Link to={`/data/versions/${id}`} className="font-serif text-[16px] underline">
          {number}
        </Link>{" "}
        {isLive ? (
          <span className="ml-2 rounded bg-verdigris px-1.5 py-0.5 text-[12px] font-semibold text-page">live</span>
        ) : (
          <span className="ml-2 text-[12.5px] text-quiet">{wasLive ? "was live" : "draft"}</span>
        )}
      </RowHead>
      <td className="px-4 whitespace-nowrap">
        {day} <span className="text-[12.5px] text-quiet">imported {moment(madeAt)}</span>
      </td>
      <td className="px-4 py-2.5">{holds(version)}</td>
      <td className={`px-4 tabular-nums ${refused ? "text-madder" : ""}`}>
        {counts?.rows === undefined ? "–" : count(refused)}
      </td>
      <td className={`px-4 tabular-nums ${odd ? "text-ochre" : ""}`}>
        {counts?.rows === undefined ? "–" : count(odd)}
      </td>
      <td className="px-4">
        {canEdit && !isLive ? (
          <span className="flex justify-end gap-3">
            {wasLive ? null : <Drop id={id} />}
            <PublishDialog
              data={data}
              versions={withVersion(data, id)}
              why={`${name}, version ${number}`}
              label="Publish"
            />
          </span>
        ) : null}
      </td>
    </tr>
  );
}

function Drop({ id }: { id: number }) {
  const [drop, { error, isLoading }] = useDropVersionMutation();
  return (
    <>
      {error ? (
        <span role="alert" className="text-madder">
          {wordsOf(error)}
        </span>
      ) : null}
      <button type="button" className="underline" disabled={isLoading} onClick={() => void drop(id)}>
        Delete
      </button>
    </>
  );
}
