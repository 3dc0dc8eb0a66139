import { type BatchDetail, ROW_STATUSES } from "@bibliotope/wire";
import { useEffect, useRef } from "react";
import { SELECT } from "../data/FileFormat.tsx";
import { count } from "../ui/count.ts";
import { scoreText } from "../ui/score-text.ts";
import type { Review, Show } from "./use-review.ts";
import { DECISION_WORDS, STATUS_WORDS } from "./words.ts";

interface RowListProps {
  batch: BatchDetail;
  review: Review;
  show: Show;
  onShow: (show: Show) => void;
}

/** The rows that are looked through, the surest of the doubtful first. */
export function RowList({ batch, review, show, onShow }: RowListProps) {
  const current = useRef<HTMLLIElement>(null);
  const { rows, at, decided, go, offset } = review;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another row is at hand
  useEffect(() => {
    current.current?.scrollIntoView?.({ block: "nearest" });
  }, [at]);
  return (
    <section
      aria-label="Rows"
      className="flex min-h-0 flex-col overflow-hidden rounded-md border border-rule bg-page max-[900px]:max-h-[15rem]"
    >
      <div className="border-b border-rule px-3 py-1.5">
        <select
          aria-label="Which rows"
          className={`${SELECT} w-full`}
          value={show}
          onChange={(event) => onShow(event.target.value as Show)}
        >
          {ROW_STATUSES.map((status) => (
            <option key={status} value={status}>
              {STATUS_WORDS[status].name}, {count(batch.counts[status])}
            </option>
          ))}
          <option value="all">all rows</option>
        </select>
      </div>
      <ol className="relative min-h-0 flex-1 overflow-y-auto" start={offset + 1}>
        {rows.map((row, place) => {
          const how = decided.get(row.number) ?? row.decision;
          const isHere = place === at;
          return (
            <li key={row.number} ref={isHere ? current : undefined} className="border-b border-rule last:border-b-0">
              <button
                type="button"
                aria-current={isHere ? "true" : undefined}
                onClick={() => go(place)}
                className={`flex w-full items-baseline gap-3 border-l-4 px-2.5 py-2 text-left ${
                  isHere ? "border-ochre bg-field" : "border-transparent hover:bg-wash"
                } ${how ? "text-quiet" : ""}`}
              >
                <span className="min-w-0 flex-1 truncate">{row.query || "(nothing)"}</span>
                <span className="text-[12px] whitespace-nowrap text-quiet tabular-nums">
                  {how
                    ? DECISION_WORDS[how]
                    : row.score !== null
                      ? scoreText(row.score)
                      : row.distance === null
                        ? ""
                        : `${Math.round(row.distance)} m`}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
      {review.more ? (
        <button type="button" className="border-t border-rule py-1.5 text-[13px] underline" onClick={review.more}>
          Next 200
        </button>
      ) : null}
      {!rows.length && !review.isLoading ? <p className="px-3 py-4 text-quiet">No rows with this status.</p> : null}
    </section>
  );
}
