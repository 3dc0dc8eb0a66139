import { type BatchSummary, ROW_STATUSES } from "@bibliotope/wire";
import { count } from "../ui/count.ts";
import { STATUS_WORDS } from "./words.ts";

/** Percent of the bar from which there is room for words. */
const ROOM = 9;
const ROOM_FOR_NUMBER = 3;

/** How the rows of a batch stand, as one bar. */
export function StatusBar({ counts, thin }: { counts: BatchSummary["counts"]; thin?: boolean }) {
  const all = ROW_STATUSES.reduce((sum, status) => sum + counts[status], 0);
  const words = ROW_STATUSES.map((status) => `${count(counts[status])} ${STATUS_WORDS[status].name}`);
  return (
    <div
      role="img"
      aria-label={words.join(", ")}
      title={words.join(", ")}
      className={`flex overflow-hidden rounded bg-rule ${thin ? "h-2" : "h-[26px]"}`}
    >
      {ROW_STATUSES.map((status) => {
        if (!counts[status]) return null;
        const share = (counts[status] / all) * 100;
        const { name, ground } = STATUS_WORDS[status];
        return (
          <span
            key={status}
            className={`${ground} min-w-[3px] overflow-hidden px-2 text-[12.5px] leading-[26px] font-semibold whitespace-nowrap text-page`}
            style={{ width: `${share}%`, padding: thin || share < ROOM_FOR_NUMBER ? 0 : undefined }}
          >
            {thin || share < ROOM_FOR_NUMBER
              ? ""
              : share < ROOM
                ? count(counts[status])
                : `${count(counts[status])} ${name}`}
          </span>
        );
      })}
    </div>
  );
}
