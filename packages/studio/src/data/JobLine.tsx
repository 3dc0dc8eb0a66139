import type { JobSummary } from "@bibliotope/wire";
import { useSteerJobMutation } from "../state/data-api.ts";
import { moment } from "../ui/moment.ts";
import { Progress } from "../ui/Progress.tsx";
import { timeLeft } from "./words.ts";

const STATE_WORDS: Readonly<Record<JobSummary["state"], string>> = {
  waiting: "queued",
  running: "",
  paused: "paused",
  done: "done",
  failed: "failed",
  cancelled: "cancelled",
};

/** A piece of work: how far it is, what it does, and what can be done about it. */
export function JobLine({ job, canSteer, canPause }: { job: JobSummary; canSteer: boolean; canPause?: boolean }) {
  const [steer] = useSteerJobMutation();
  const { id, state, title, done, total, words, endedAt } = job;
  const share = state === "done" ? 1 : total > 0 ? Math.min(1, done / total) : 0;
  const isUnderWay = state === "running" || state === "waiting" || state === "paused";
  const to = (how: "paused" | "cancelled" | "resumed") => () => void steer({ id, to: how });
  return (
    <li className="border-t border-rule px-4 py-2.5 first:border-t-0">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <span className="min-w-0 break-words font-serif text-[16px]">{title}</span>
        <span className={`ml-auto text-[12.5px] ${state === "failed" ? "text-madder" : "text-quiet"}`}>
          {[STATE_WORDS[state], state === "running" ? timeLeft(job) : "", endedAt ? moment(endedAt) : ""]
            .filter(Boolean)
            .join(" · ")}
        </span>
        {canSteer && isUnderWay ? (
          <span className="flex gap-3">
            {canPause && state !== "paused" ? (
              <button type="button" className="underline" onClick={to("paused")}>
                Pause
              </button>
            ) : null}
            {state === "paused" ? (
              <button type="button" className="underline" onClick={to("resumed")}>
                Resume
              </button>
            ) : null}
            <button type="button" className="underline" onClick={to("cancelled")}>
              Cancel
            </button>
          </span>
        ) : null}
      </div>
      {isUnderWay ? <Progress label={title} share={share} className="mt-1.5" /> : null}
      {words ? (
        <p className={`mt-1 text-[13px] ${state === "failed" ? "text-madder" : "text-quiet"}`}>{words}</p>
      ) : null}
    </li>
  );
}
