import type { TraceEvent } from "@bibliotope/kit";
import { Popover } from "radix-ui";
import { useMemo, useRef, useState } from "react";
import { useStudio } from "../state/store.ts";
import { saveFile } from "../ui/save-file.ts";
import { harOf } from "./har.ts";
import { layOut, summary, type TraceMark } from "./lay-out.ts";
import { TraceRow } from "./TraceRow.tsx";

const ROWS = ["keys", "requests", "list", "fields"] as const;

/** What happened between a keystroke and a filled field, as a time line with four rows. */
export function TraceView() {
  const events = useStudio(({ trace }) => trace.events);
  const marks = useMemo(() => layOut(events), [events]);
  const words = useMemo(() => summary(events), [events]);
  const [opened, setOpened] = useState<TraceMark>();
  const anchor = useRef<HTMLElement>(null!);
  const open = (mark: TraceMark, at: HTMLElement) => {
    anchor.current = at;
    setOpened(mark);
  };
  return (
    <section
      aria-label="What happened"
      className="grid flex-none grid-cols-[150px_minmax(0,1fr)] gap-3 pt-3 max-[900px]:grid-cols-1"
    >
      <div>
        <h2 className="font-serif text-[15px] font-semibold">What happened</h2>
        {(words.length ? words : ["Type into the search box, or press a house on the map."]).map((line) => (
          <p key={line} className="text-[12.5px] text-quiet">
            {line}
          </p>
        ))}
        {events.some(({ row }) => row === "requests") ? (
          <button type="button" className="text-[12.5px] underline" onClick={() => saveHar(events)}>
            Save as HAR
          </button>
        ) : null}
      </div>
      <div className="grid">
        {ROWS.map((row) => (
          <TraceRow key={row} row={row} marks={marks.filter((mark) => mark.row === row)} opened={opened} open={open} />
        ))}
      </div>
      <Popover.Root open={opened !== undefined} onOpenChange={(isOpen) => !isOpen && setOpened(undefined)}>
        <Popover.Anchor virtualRef={anchor} />
        <Popover.Portal>
          {opened ? (
            <Popover.Content
              aria-label={opened.title}
              side="top"
              sideOffset={6}
              collisionPadding={12}
              className="z-40 max-h-[60vh] w-[30rem] max-w-[92vw] overflow-auto rounded-md border border-edge bg-page p-4"
            >
              <h3 className="font-semibold">{opened.title}</h3>
              {opened.sent === undefined ? null : <Shown title="Sent" what={opened.sent} />}
              {opened.came === undefined ? null : <Shown title="Came back" what={opened.came} />}
            </Popover.Content>
          ) : null}
        </Popover.Portal>
      </Popover.Root>
    </section>
  );
}

function saveHar(events: readonly TraceEvent[]): void {
  const har = harOf(events, location.origin, (at) => new Date(performance.timeOrigin + at));
  saveFile("what-happened.har", JSON.stringify(har, null, 2));
}

function Shown({ title, what }: { title: string; what: unknown }) {
  return (
    <>
      <h4 className="mt-2 text-[12.5px] text-quiet">{title}</h4>
      <pre className="mt-0.5 font-mono text-[12px] leading-[1.5] break-all whitespace-pre-wrap">
        {typeof what === "string" ? what : JSON.stringify(what, null, 2)}
      </pre>
    </>
  );
}
