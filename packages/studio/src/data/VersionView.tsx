import { useState } from "react";
import { Link, useParams } from "react-router";
import { NothingHere } from "../frame/NothingHere.tsx";
import { wordsOf } from "../state/api.ts";
import { useDataQuery, useOddRowsQuery } from "../state/data-api.ts";
import { useMayEdit } from "../state/may.ts";
import { callUrl } from "../state/own.ts";
import { Alert } from "../ui/Alert.tsx";
import { count } from "../ui/count.ts";
import { moment } from "../ui/moment.ts";
import { ScrollBox } from "../ui/ScrollBox.tsx";
import { Table } from "../ui/Table.tsx";
import { Coverage } from "./Coverage.tsx";
import { Difference } from "./Difference.tsx";
import { PublishDialog } from "./PublishDialog.tsx";
import { TakeOut } from "./TakeOut.tsx";
import { CHECK_WORDS, findVersion, withVersion } from "./words.ts";

const HELD = [
  ["addresses", "Addresses"],
  ["streets", "Streets"],
  ["places", "Places"],
  ["postcodes", "Postcodes"],
  ["areas", "Areas"],
] as const;

/** One version of a data set: what it holds, what was refused or is odd, and what it changes. */
export function VersionView() {
  const id = Number(useParams().id);
  const canEdit = useMayEdit();
  const { data, error } = useDataQuery();
  const found = findVersion(data, id);
  if (data && !found) return <NothingHere />;
  return (
    <main className="mx-auto w-full max-w-6xl px-5 py-7">
      <p className="text-[13px]">
        <Link to="/data" className="underline">
          Data
        </Link>
      </p>
      <Alert error={error} className="text-ochre" />
      {data && found ? (
        <>
          <div className="flex flex-wrap items-baseline gap-x-4">
            <h1 className="font-serif text-[26px] font-semibold">
              {found.set.name}, version {found.version.number}
            </h1>
            <span className="text-quiet">
              {found.version.isLive ? "live" : "not live"} · data of {found.version.day} · imported{" "}
              {moment(found.version.madeAt)}
              {found.version.fileName ? ` from ${found.version.fileName}` : ""}
            </span>
            {canEdit && !found.version.isLive ? (
              <span className="ml-auto">
                <PublishDialog
                  data={data}
                  versions={withVersion(data, id)}
                  why={`${found.set.name}, version ${found.version.number}`}
                  label="Publish"
                />
              </span>
            ) : null}
          </div>
          <dl className="mt-4 grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-5">
            {HELD.map(([part, name]) => (
              <div key={part}>
                <dt className="text-[12.5px] text-quiet">{name}</dt>
                <dd className="font-serif text-[19px]">{count(found.version.counts?.[part] ?? 0)}</dd>
              </div>
            ))}
          </dl>
          <TakeOut version={id} />
          <Checks version={id} checks={found.version.checks} rows={found.version.counts?.rows} />
          <Difference data={data} version={id} />
          <Coverage data={data} version={id} />
        </>
      ) : null}
    </main>
  );
}

/** Share of the rows from which the check itself is in doubt. */
const DOUBTFUL = 0.2;

interface ChecksProps {
  version: number;
  checks: Readonly<Record<string, number>>;
  rows: number | undefined;
}

function Checks({ version, checks, rows }: ChecksProps) {
  const kinds = Object.keys(CHECK_WORDS).filter((kind) => checks[kind]);
  const [shown, setShown] = useState<string>();
  if (rows === undefined) return null;
  return (
    <section aria-label="Checks" className="mt-6">
      <h2 className="font-serif text-[20px] font-semibold">Checks</h2>
      {kinds.length ? (
        <>
          <p className="text-quiet">
            Of {count(rows)} rows. Rejected rows are not in the data; rows with warnings are.{" "}
            {kinds.some((kind) => CHECK_WORDS[kind].isRefused) ? (
              <a className="underline" href={callUrl("refusedFile", { parts: { id: version } })} download>
                Rejected rows as CSV
              </a>
            ) : null}
          </p>
          <ul className="mt-2 rounded-md border border-rule bg-page">
            {kinds.map((kind) => {
              const { name, means, isRefused } = CHECK_WORDS[kind];
              const isOpen = shown === kind;
              return (
                <li key={kind} className="border-t border-rule first:border-t-0">
                  <button
                    type="button"
                    aria-expanded={isOpen}
                    onClick={() => setShown(isOpen ? undefined : kind)}
                    className="flex w-full flex-wrap items-baseline gap-x-4 px-4 py-2 text-left hover:bg-wash"
                  >
                    <span className={`w-20 text-right tabular-nums ${isRefused ? "text-madder" : "text-ochre"}`}>
                      {count(checks[kind])}
                    </span>
                    <span className="w-44 font-semibold">{name}</span>
                    <span className="text-[13px] text-quiet">
                      {means}
                      {checks[kind] > rows * DOUBTFUL
                        ? "; more than a fifth of all rows: the check may not apply to this data, or the file may be read incorrectly"
                        : ""}
                    </span>
                    <span className="ml-auto text-[12.5px] text-quiet">{isRefused ? "rejected" : "imported"}</span>
                  </button>
                  {isOpen ? <Rows version={version} kind={kind} total={checks[kind]} /> : null}
                </li>
              );
            })}
          </ul>
        </>
      ) : (
        <p className="text-quiet">All {count(rows)} rows were imported without warnings.</p>
      )}
    </section>
  );
}

function Rows({ version, kind, total }: { version: number; kind: string; total: number }) {
  const { data, error } = useOddRowsQuery({ version, kind });
  if (error)
    return (
      <p role="alert" className="px-4 pb-2 text-ochre">
        {wordsOf(error)}
      </p>
    );
  return (
    <ScrollBox label="Rows" className="max-h-[16rem] border-t border-rule px-4 py-2">
      <Table>
        {data?.rows.map(({ number, words, cells }) => (
          <tr key={number} className="align-baseline">
            <th scope="row" className="w-24 pr-3 text-right font-mono text-[12px] font-normal text-quiet">
              row {number}
            </th>
            <td className="pr-4 break-words">{words}</td>
            <td className="font-mono text-[12px] break-words text-quiet">{cells?.join(" · ").slice(0, 240)}</td>
          </tr>
        ))}
      </Table>
      {data && total > data.rows.length ? (
        <p className="mt-1 text-[12.5px] text-quiet">
          {count(data.rows.length)} of {count(total)}
        </p>
      ) : null}
    </ScrollBox>
  );
}
