import type { CorrectionSummary, RecordAnswer } from "@bibliotope/wire";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useCorrectionsQuery, useDecideCorrectionMutation } from "../state/corrections-api.ts";
import { useLiveCoverageQuery } from "../state/data-api.ts";
import { useMayEdit } from "../state/may.ts";
import { Alert } from "../ui/Alert.tsx";
import { moment } from "../ui/moment.ts";
import { Page } from "../ui/Page.tsx";
import { CorrectRecord } from "./CorrectRecord.tsx";
import { FindRecord } from "./FindRecord.tsx";

/** Records that are changed by hand, and what end users report. */
export function CorrectionsView() {
  const canEdit = useMayEdit();
  const { data, error, isLoading } = useCorrectionsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [params, setAsked] = useSearchParams();
  const [record, setRecord] = useState<RecordAnswer>();
  const proposals = data?.filter(({ state }) => state === "proposed") ?? [];
  const others = data?.filter(({ state }) => state !== "proposed") ?? [];
  return (
    <Page
      title="Corrections"
      back={["/data", "Data"]}
      intro="Records changed, added or removed by hand. Corrections apply at once and are kept in later versions of the data."
      error={error}
      loading={isLoading && "Loading corrections"}
    >
      {canEdit ? (
        <section aria-label="Correct a record" className="mt-5 rounded-md border border-rule bg-page p-4">
          <FindRecord
            wanted={params.get("ref") ?? undefined}
            onFound={(found) => {
              setRecord(found);
              if (params.has("ref")) setAsked({}, { replace: true });
            }}
          />
          {record ? null : <Sample onChosen={(ref) => setAsked({ ref }, { replace: true })} />}
          {record ? <CorrectRecord key={record.id} record={record} done={() => setRecord(undefined)} /> : null}
        </section>
      ) : null}
      {proposals.length ? <Listed title="Reports from users of your forms" list={proposals} canEdit={canEdit} /> : null}
      {others.length ? <Listed title="Decided" list={others} canEdit={canEdit} /> : null}
      {data && !data.length ? (
        <p className="mt-5 text-quiet">
          No corrections yet. Users report mistakes through <code className="font-mono">client.report()</code> of the
          kit, or <code className="font-mono">POST /v1/reports</code>.
        </p>
      ) : null}
    </Page>
  );
}

/** Offers any address that is live, to see what can be corrected. */
function Sample({ onChosen }: { onChosen: (ref: string) => void }) {
  const { sample } = useLiveCoverageQuery().data ?? {};
  if (!sample) return null;
  return (
    <p className="mt-2 text-[13px]">
      <button type="button" className="underline" onClick={() => onChosen(sample)}>
        Try it with a sample address
      </button>{" "}
      <span className="text-quiet">Nothing changes until you apply it.</span>
    </p>
  );
}

function Listed({ title, list, canEdit }: { title: string; list: readonly CorrectionSummary[]; canEdit: boolean }) {
  return (
    <section aria-label={title} className="mt-6">
      <h2 className="font-serif text-[20px] font-semibold">{title}</h2>
      <ul className="mt-2 rounded-md border border-rule bg-page">
        {list.map((one) => (
          <Line key={one.id} one={one} canEdit={canEdit} />
        ))}
      </ul>
    </section>
  );
}

const STATE_WORDS: Readonly<Record<CorrectionSummary["state"], string>> = {
  proposed: "to decide",
  applied: "applied",
  refused: "refused",
  undone: "undone",
};

/** What a correction changes, in words. */
export function changeWords({ change }: Pick<CorrectionSummary, "change">): string {
  if (change.isRemoved) return "removed";
  const { at, house, name } = change;
  const where = at ? `${at.lat.toFixed(5)}, ${at.lon.toFixed(5)}` : "";
  if (change.adds) return `add number ${house} at ${where}`;
  const words = [house ? `number is ${house}` : "", name ? `name is ${name}` : "", where ? `position is ${where}` : ""];
  return words.filter(Boolean).join(", ");
}

function Line({ one, canEdit }: { one: CorrectionSummary; canEdit: boolean }) {
  const [decide, { error, isLoading }] = useDecideCorrectionMutation();
  const to = (state: "applied" | "refused" | "undone") => () => void decide({ id: one.id, state });
  const changes = changeWords(one);
  return (
    <li className="border-t border-rule px-4 py-2.5 first:border-t-0">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <span className="min-w-0 break-words font-serif text-[16px]">{one.line || "A missing address"}</span>
        <span>{changes}</span>
        <span className="ml-auto text-[12.5px] text-quiet">
          {STATE_WORDS[one.state]} · {one.isReport ? "reported" : (one.by ?? "somebody")} {moment(one.madeAt)}
          {one.isReport && one.decidedBy ? ` · ${one.decidedBy}` : ""}
        </span>
        {canEdit ? (
          <span className="flex gap-3 text-[13px]">
            {one.state === "proposed" && changes && one.ref ? (
              <Way words="Apply" does={to("applied")} off={isLoading} />
            ) : null}
            {one.state === "proposed" && one.ref ? (
              <Link className="underline" to={`/data/corrections?ref=${one.ref}`}>
                Correct by hand
              </Link>
            ) : null}
            {one.state === "proposed" ? <Way words="Refuse" does={to("refused")} off={isLoading} /> : null}
            {one.state === "applied" ? <Way words="Undo" does={to("undone")} off={isLoading} /> : null}
            {one.state === "undone" ? <Way words="Apply again" does={to("applied")} off={isLoading} /> : null}
          </span>
        ) : null}
      </div>
      {one.note ? <p className="mt-0.5 break-words text-quiet">“{one.note}”</p> : null}
      {one.isHeld ? null : <p className="text-[12.5px] text-ochre">The live data does not contain this record.</p>}
      <Alert error={error} className="text-madder" />
    </li>
  );
}

function Way({ words, does, off }: { words: string; does: () => void; off: boolean }) {
  return (
    <button type="button" className="underline" disabled={off} onClick={does}>
      {words}
    </button>
  );
}
