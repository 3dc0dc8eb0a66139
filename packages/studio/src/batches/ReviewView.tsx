import { type BatchDetail, ROW_STATUSES } from "@bibliotope/wire";
import { DropdownMenu } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { JobLine } from "../data/JobLine.tsx";
import { NothingHere } from "../frame/NothingHere.tsx";
import { useBatchQuery } from "../state/batches-api.ts";
import { useJobsQuery } from "../state/data-api.ts";
import { useMayEdit } from "../state/may.ts";
import { callUrl } from "../state/own.ts";
import { Alert } from "../ui/Alert.tsx";
import { count } from "../ui/count.ts";
import { Waiting } from "../ui/Page.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { useLatest } from "../ui/use-latest.ts";
import { Distribution } from "./Distribution.tsx";
import { ReviewMap } from "./ReviewMap.tsx";
import { RowList } from "./RowList.tsx";
import { Key, RowPanel } from "./RowPanel.tsx";
import { StatusBar } from "./StatusBar.tsx";
import { type Review, type Show, useReview } from "./use-review.ts";
import { summary } from "./words.ts";

/** Milliseconds after which the batch is read again, while it runs. */
const AGAIN = 1000;

/** One batch: how far it is while it runs; then its doubtful rows, one after another. */
export function ReviewView() {
  const id = Number(useParams().id);
  const canEdit = useMayEdit();
  const [isRunning, setRunning] = useState(true);
  const { data: batch, error } = useBatchQuery(id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: isRunning ? AGAIN : 0,
  });
  const job = useJobsQuery().data?.find((one) => one.id === batch?.job.id);
  const runs = batch ? ["waiting", "running"].includes(batch.job.state) : true;
  useEffect(() => setRunning(runs), [runs]);
  if ((error as { status?: number } | undefined)?.status === 404) return <NothingHere />;
  if (!batch) return <Waiting error={error} words="Opening the batch" />;
  return (
    <main className="flex min-h-0 w-full flex-1 flex-col px-5 py-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="min-w-0 font-serif text-[22px] font-semibold break-words">{batch.name}</h1>
        <span className="text-quiet">{summary(batch, batch.lastHour)}</span>
        <span className="ml-auto flex items-center gap-4">
          <Link to="/batches" className="text-[13px] underline">
            All batches
          </Link>
          <TakeOut id={id} />
        </span>
      </div>
      <div className="mt-2">
        <StatusBar counts={batch.counts} />
      </div>
      {job && batch.job.state !== "done" ? (
        <ul className="mt-3 rounded-md border border-rule bg-page">
          <JobLine job={job} canSteer={canEdit} canPause />
        </ul>
      ) : null}
      {batch.job.state === "failed" ? <p className="mt-3 text-madder">{batch.job.words}</p> : null}
      {batch.rows !== null && !runs ? <Look key={id} batch={batch} canEdit={canEdit} /> : null}
    </main>
  );
}

/** The kind of rows to begin with: those that need somebody. */
const firstShow = ({ counts }: BatchDetail): Show =>
  counts.doubtful ? "doubtful" : (ROW_STATUSES.find((status) => status === "none" && counts.none) ?? "all");

function Look({ batch, canEdit }: { batch: BatchDetail; canEdit: boolean }) {
  const [show, setShow] = useState<Show>(() => firstShow(batch));
  return <Rows key={show} batch={batch} canEdit={canEdit} show={show} onShow={setShow} />;
}

interface RowsProps {
  batch: BatchDetail;
  canEdit: boolean;
  show: Show;
  onShow: (show: Show) => void;
}

function Rows({ batch, canEdit, show, onShow }: RowsProps) {
  const review = useReview(batch.id, show);
  const [isCorrecting, setCorrecting] = useState(false);
  const [shows, setShows] = useState<"row" | "all">("row");
  const { number } = review.row ?? {};
  // biome-ignore lint/correctness/useExhaustiveDependencies: another row is at hand, and with it another text
  useEffect(() => setCorrecting(false), [number]);
  useReviewKeys(review, canEdit, () => setCorrecting(true));
  return (
    <div className="mt-3 grid h-[calc(100dvh-9.75rem)] min-h-[32rem] grid-cols-[250px_minmax(0,1.6fr)_minmax(0,1fr)] gap-3.5 max-[900px]:h-auto max-[900px]:grid-cols-1">
      <RowList {...{ batch, review, show, onShow }} />
      <div className="relative min-h-0 min-w-0 overflow-y-auto">
        <Alert error={review.error} className="mb-2 text-madder" />
        <RowPanel heads={batch.heads} {...{ review, isCorrecting, setCorrecting, canEdit }} />
        {canEdit && review.row ? (
          <Ways review={review} correct={() => setCorrecting(true)} lastHour={batch.lastHour} />
        ) : null}
        <Distribution batch={batch} />
      </div>
      <div className="flex min-h-0 flex-col gap-2">
        <Segmented
          label="What the map shows"
          value={shows}
          onChange={setShows}
          options={[
            ["row", "This row"],
            ["all", "All rows"],
          ]}
        />
        <div className="min-h-0 flex-1 max-[900px]:h-[20rem] max-[900px]:flex-none">
          <ReviewMap
            batch={batch.id}
            heads={batch.heads}
            found={review.found}
            showsAll={shows === "all"}
            marked={review.marked}
            onMark={review.setMarked}
          />
        </div>
      </div>
    </div>
  );
}

/** What can be decided, each with the key. */
function Ways({ review, correct, lastHour }: { review: Review; correct: () => void; lastHour: number }) {
  const ways = [
    ["↵", "accept the marked one", () => void review.decide(review.marked === 0 ? "accept" : "choose")],
    ["E", "correct", correct],
    ["L", "skip", () => void review.decide("leave")],
    ["B", "undo", () => void review.takeBack()],
  ] as const;
  return (
    <div className="my-3 flex flex-wrap items-center gap-x-5 gap-y-1.5">
      {ways.map(([key, words, does]) => (
        <button
          key={key}
          type="button"
          className="inline-flex items-center gap-1.5 text-quiet hover:text-ink"
          onClick={does}
        >
          <Key>{key}</Key> {words}
        </button>
      ))}
      {lastHour ? (
        <span className="ml-auto text-quiet">
          <b className="text-ink">{count(lastHour)}</b> in the last hour
        </span>
      ) : null}
    </div>
  );
}

/** Single keys, wherever nothing else takes them: text fields, buttons and the map keep their own. */
function useReviewKeys(review: Review, canEdit: boolean, correct: () => void): void {
  const latest = useLatest({ review, correct });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const on = event.target as Element | null;
      if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("[role=dialog],[role=menu]")) return;
      if (on?.closest("input, textarea, select, [role=application], .bt-map")) return;
      if (event.key === "Enter" && on?.closest("button, a")) return;
      const { review: at, correct: edit } = latest.current;
      const does = actionOf(event.key, at, canEdit, edit);
      if (!does) return;
      event.preventDefault();
      does();
    };
    document.addEventListener("keydown", press);
    return () => document.removeEventListener("keydown", press);
  }, [canEdit]);
}

function actionOf(key: string, review: Review, canEdit: boolean, correct: () => void): (() => void) | undefined {
  const { marked, found, at } = review;
  const most = (found?.candidates.length ?? 0) - 1;
  if (key === "ArrowDown") return () => review.setMarked(Math.min(most, marked + 1));
  if (key === "ArrowUp") return () => review.setMarked(Math.max(0, marked - 1));
  if (key === "j" || key === "PageDown") return () => review.go(at + 1);
  if (key === "k" || key === "PageUp") return () => review.go(at - 1);
  if (!canEdit) return undefined;
  if (key === "Enter") return () => void review.decide(marked === 0 ? "accept" : "choose");
  if (/^[1-9]$/.test(key) && Number(key) - 1 <= most)
    return () => void review.decide(key === "1" ? "accept" : "choose", Number(key) - 1);
  if (key === "e" || key === "E") return correct;
  if (key === "l" || key === "L") return () => void review.decide("leave");
  if (key === "b" || key === "B") return () => void review.takeBack();
  return undefined;
}

const FORMATS = [
  ["csv", "CSV"],
  ["geojson", "GeoJSON"],
  ["gpx", "GPX"],
] as const;

/** The batch as a file. */
function TakeOut({ id }: { id: number }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="inline-flex h-[34px] items-center gap-1.5 rounded border border-ink bg-ink px-3 font-semibold text-page">
        Export ▾
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align="end"
        sideOffset={4}
        className="z-50 min-w-[15rem] rounded-md border border-edge bg-page p-1.5"
      >
        {FORMATS.flatMap(([format, name]) =>
          (["", "accepted"] as const).map((only) => (
            <DropdownMenu.Item key={`${format}${only}`} asChild>
              <a
                className="block rounded px-2.5 py-1.5 data-highlighted:bg-wash"
                href={callUrl("batchFile", { parts: { id, format }, asks: { only: only || undefined } })}
                download
              >
                {name}, {only ? "accepted rows only" : "all rows"}
              </a>
            </DropdownMenu.Item>
          )),
        )}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  );
}
