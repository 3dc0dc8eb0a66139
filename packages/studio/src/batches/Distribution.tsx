import { type BatchDetail, ROW_STATUSES, SCORE_BINS } from "@bibliotope/wire";
import { lazy, Suspense, useMemo } from "react";
import { count } from "../ui/count.ts";
import { STATUS_WORDS } from "./words.ts";

const Chart = lazy(() => import("../ui/Chart.tsx"));

const EXACTNESS = [
  ["surveyed", "surveyed"],
  ["between", "interpolated"],
  ["along", "on the street"],
  ["centre", "centre of an area"],
] as const;

const LABELS = Array.from({ length: SCORE_BINS }, (_, bin) => (bin / SCORE_BINS).toFixed(2));

/** How sure the answers are, and how exact. */
export function Distribution({ batch }: { batch: BatchDetail }) {
  const series = useMemo(
    () =>
      ROW_STATUSES.flatMap((status) => {
        const values = LABELS.map((_, bin) =>
          batch.scores.reduce((sum, one) => sum + (one.bin === bin && one.standing === status ? one.count : 0), 0),
        );
        const { name, colour } = STATUS_WORDS[status];
        return values.some(Boolean) ? [{ name, colour, values }] : [];
      }),
    [batch.scores],
  );
  const all = batch.exactness.reduce((sum, one) => sum + one.count, 0);
  return (
    <section aria-label="Distribution" className="mt-2.5 rounded-md border border-rule bg-page px-4 py-3">
      {series.length ? (
        <>
          <p className="mb-1 text-[12.5px] text-quiet">Scores of all rows</p>
          <Suspense fallback={<div className="h-[190px]" />}>
            <Chart kind="bar" label="Number of rows by score and status" moments={LABELS} series={series} />
          </Suspense>
        </>
      ) : null}
      <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-[12.5px]">
        {EXACTNESS.map(([exactness, name]) => {
          const own = batch.exactness.find((one) => one.exactness === exactness)?.count ?? 0;
          return (
            <div key={exactness} className="flex gap-1.5">
              <dt className="text-quiet">{name}</dt>
              <dd className="tabular-nums">
                {count(own)}
                {all ? ` (${((own / all) * 100).toLocaleString("en", { maximumFractionDigits: 1 })} %)` : ""}
              </dd>
            </div>
          );
        })}
      </dl>
    </section>
  );
}
