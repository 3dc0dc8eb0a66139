import type { BatchCandidates, BatchRow, DecideRequest, Decision, RowStatus } from "@bibliotope/wire";
import { useEffect, useState } from "react";
import {
  useBatchRowQuery,
  useBatchRowsQuery,
  useDecideRowMutation,
  usePrefetchBatch,
  useTakeBackMutation,
} from "../state/batches-api.ts";

/** Rows that come at once. */
const PAGE = 200;

export type Show = RowStatus | "all";

/** The review of a batch: which rows are looked through, which one is at hand, and what was decided. */
export function useReview(batch: number, show: Show) {
  const [offset, setOffset] = useState(0);
  const [at, setAt] = useState(0);
  const [marked, setMarked] = useState(0);
  const [text, setText] = useState<string>();
  /** What was decided since the list was read; decided rows stay in it, so that nothing jumps. */
  const [decided, setDecided] = useState<ReadonlyMap<number, Decision>>(new Map());
  const list = useBatchRowsQuery({ batch, show, offset }, { refetchOnMountOrArgChange: true });
  const rows = list.data ?? [];
  const row: BatchRow | undefined = rows[at];
  const params = { batch, number: row?.number ?? 0, ...(text === undefined ? {} : { text }) };
  const detail = useBatchRowQuery(params, { skip: !row, refetchOnMountOrArgChange: 30 });
  const prefetch = usePrefetchBatch("batchRow");
  const [sendDecision, decision] = useDecideRowMutation();
  const [sendBack, back] = useTakeBackMutation();
  const next = rows[at + 1]?.number;

  useEffect(() => {
    // the next row is there when the person is
    if (next !== undefined) prefetch({ batch, number: next }, { ifOlderThan: 30 });
  }, [prefetch, batch, next]);

  const go = (place: number) => {
    if (place < 0 || place >= rows.length) return;
    setAt(place);
    setMarked(0);
    setText(undefined);
  };
  /** Reads the list anew: decided rows are no longer among the doubtful. */
  const again = (from = 0) => {
    setOffset(from);
    setAt(0);
    setMarked(0);
    setText(undefined);
    setDecided(new Map());
    void list.refetch();
  };
  const decide = async (how: Decision, place = marked) => {
    const found = detail.data;
    if (!row || !found || found.number !== row.number || decision.isLoading) return;
    const candidate = found.candidates[place];
    if (how !== "leave" && !candidate) return;
    const request: DecideRequest =
      how === "leave" ? { how } : { how: text === undefined ? how : "correct", place, ref: candidate.ref, text };
    const answer = await sendDecision({ batch, number: row.number, decision: request });
    if ("error" in answer) {
      void detail.refetch();
      return;
    }
    setDecided(new Map(decided).set(row.number, request.how));
    if (at + 1 < rows.length) go(at + 1);
    else again(show === "all" || show === "seen" ? offset + PAGE : 0);
  };
  const takeBack = async () => {
    const answer = await sendBack(batch);
    if (!answer.data) return;
    const { number } = answer.data;
    setDecided(new Map([...decided].filter(([one]) => one !== number)));
    const place = rows.findIndex((one) => one.number === number);
    if (place >= 0) go(place);
    else again();
  };
  const found: BatchCandidates | undefined = detail.currentData;
  return {
    ...{ rows, at, row, found, marked, text, decided, offset },
    isLoading: list.isFetching,
    isLooking: detail.isFetching,
    error: list.error ?? decision.error ?? back.error ?? detail.error,
    ...{ go, again, decide, takeBack, setMarked },
    correct: (words: string) => {
      setText(words);
      setMarked(0);
    },
    more: rows.length === PAGE ? () => again(offset + PAGE) : undefined,
  };
}

export type Review = ReturnType<typeof useReview>;
