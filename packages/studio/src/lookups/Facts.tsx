import { factText, type Facts as KnownFacts, type OpeningHours } from "@bibliotope/core/place";
import { useState } from "react";

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** What is known of a place: its facts where it has them, the hours by day. */
export function Facts({ facts }: { facts: Record<string, unknown> }) {
  const { phone, url, languages, stepFree, openingHours, hoursText, own = {} } = facts as KnownFacts;
  const [open, setOpen] = useState(false);
  const rows: [string, React.ReactNode][] = [];
  if (phone) rows.push(["Phone", phone]);
  if (url) rows.push(["Web page", url]);
  if (stepFree !== undefined) rows.push(["Step-free", stepFree ? "yes" : "no"]);
  if (languages) rows.push(["Languages", languages.join(", ")]);
  if (hoursText) rows.push(["Hours", hoursText]);
  for (const fact of Object.values(own)) rows.push([fact.label, factText(fact)]);
  return (
    <div className="mt-3 border-t border-rule pt-2.5">
      <dl className="grid grid-cols-[6.5rem_1fr] gap-y-0.5">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-quiet">{name}</dt>
            <dd className="break-words">{value}</dd>
          </div>
        ))}
        {openingHours && open
          ? DAYS.map((day) => (
              <div key={day} className="contents">
                <dt className="text-quiet">{day}</dt>
                <dd className="tabular-nums">{hoursOf(openingHours, day)}</dd>
              </div>
            ))
          : null}
      </dl>
      {openingHours ? (
        <button
          type="button"
          aria-expanded={open}
          className="mt-1 text-[13px] underline"
          onClick={() => setOpen(!open)}
        >
          {open ? "Show less" : "Hours by day"}
        </button>
      ) : null}
    </div>
  );
}

function hoursOf(hours: readonly OpeningHours[], day: string): string {
  const own = hours.filter(({ dayOfWeek }) => dayOfWeek.some((name) => name.endsWith(day)));
  return own.length ? own.map(({ opens, closes }) => `${opens} to ${closes}`).join(", ") : "closed";
}
