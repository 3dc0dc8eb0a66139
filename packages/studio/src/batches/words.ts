import type { BatchSummary, Decision, RowStatus } from "@bibliotope/wire";
import type { ChartColour } from "../ui/Chart.tsx";
import { count } from "../ui/count.ts";

/** What a standing is called, with the colours: of the theme, as a ground, and as a mark. */
export const STATUS_WORDS: Readonly<Record<RowStatus, { name: string; colour: ChartColour; ground: string }>> = {
  clear: { name: "clear", colour: "verdigris", ground: "bg-verdigris" },
  seen: { name: "reviewed", colour: "slate", ground: "bg-slate" },
  doubtful: { name: "doubtful", colour: "ochre", ground: "bg-ochre" },
  none: { name: "not found", colour: "madder", ground: "bg-madder" },
};

export const DECISION_WORDS: Readonly<Record<Decision, string>> = {
  accept: "accepted",
  choose: "chosen",
  correct: "corrected",
  leave: "skipped",
};

/** Rows that a person looks through in an hour, before it is known how quick this one is. */
const USUAL_PACE = 1000;

/** What a batch comes to, in words. @param lastHour rows decided in the last hour */
export function summary({ rows, job, counts }: BatchSummary, lastHour = 0): string {
  if (rows === null) return "";
  const waiting = counts.doubtful + counts.none;
  const words = [`${count(rows)} ${rows === 1 ? "row" : "rows"}`];
  if (job.state === "done" && job.seconds !== null) words.push(`looked up in ${duration(job.seconds)}`);
  if (job.state === "done" && waiting)
    words.push(`${count(waiting)} to review, about ${duration((waiting / Math.max(USUAL_PACE, lastHour)) * 3600)}`);
  return words.join(" · ");
}

/** A time in words. */
function duration(seconds: number): string {
  if (seconds < 10) return `${seconds.toLocaleString("en", { maximumFractionDigits: 1 })} s`;
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} minutes`;
  return `${Math.round(seconds / 3600)} hours`;
}
