import { Popover } from "radix-ui";
import { useMemo } from "react";
import { useStudio } from "../state/store.ts";
import { layOut, summary, type TraceMark } from "./lay-out.ts";

const ROWS = ["keys", "requests", "list", "fields"] as const;

/** What happened between a keystroke and a filled field, as a time line with four rows. */
export function TraceView() {
  const events = useStudio(({ trace }) => trace.events);
  const marks = useMemo(() => layOut(events), [events]);
  const words = useMemo(() => summary(events), [events]);
  return (
    <section
      aria-label="What happened"
      className="grid flex-none grid-cols-[150px_minmax(0,1fr)] gap-3 pt-3 max-[900px]:grid-cols-1"
    >
      <div>
        <h2 className="font-serif text-[15px] font-semibold">What happened</h2>
        {events.length ? (
          words.map((line) => (
            <p key={line} className="text-[12.5px] text-quiet">
              {line}
            </p>
          ))
        ) : (
          <p className="text-[12.5px] text-quiet">Type into the search box, or press a house on the map.</p>
        )}
      </div>
      <div className="grid">
        {ROWS.map((row) => (
          <div key={row} className="grid h-[29px] grid-cols-[70px_minmax(0,1fr)] items-center border-b border-rule">
            <h3 className="font-mono text-[12px] text-quiet">{row}</h3>
            <ul className="relative mr-40 h-full" aria-label={row}>
              {marks
                .filter((mark) => mark.row === row)
                .map((mark, i) => (
                  // marks only ever come at the end
                  // biome-ignore lint/suspicious/noArrayIndexKey: their order is their identity
                  <Mark key={i} mark={mark} />
                ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  );
}

const LOOKS: Record<TraceMark["look"], string> = {
  key: "font-mono text-[12px] px-px",
  answered: "h-[14px] rounded-[3px] bg-slate text-transparent",
  dropped: "h-[14px] rounded-[3px] border border-dashed border-slate text-transparent",
  failed: "h-[14px] rounded-[3px] border border-madder bg-madder/25 text-transparent",
  waiting: "h-[14px] rounded-[3px] border border-slate text-transparent",
  list: "text-[12px] text-quiet before:mr-1 before:inline-block before:size-[8px] before:rounded-full before:bg-ochre before:content-['']",
  field: "rounded-[3px] border border-madder bg-madder/10 px-1.5 text-[12px]",
};

function Mark({ mark }: { mark: TraceMark }) {
  const place = (element: HTMLElement | null) => {
    element?.style.setProperty("left", `${mark.from * 100}%`);
    element?.style.setProperty("width", mark.row === "requests" ? `max(7px, ${(mark.to - mark.from) * 100}%)` : "auto");
  };
  return (
    <li ref={place} className="absolute inset-y-0 flex items-center">
      <Popover.Root>
        <Popover.Trigger
          aria-label={mark.row === "keys" ? `${mark.text}, ${mark.title}` : mark.title}
          title={mark.title}
          className={`min-w-[7px] overflow-hidden whitespace-nowrap ${mark.row === "requests" ? "w-full" : ""} ${LOOKS[mark.look]}`}
        >
          {mark.row === "requests" ? "" : mark.text}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            side="top"
            sideOffset={6}
            collisionPadding={12}
            className="z-40 max-h-[60vh] w-[30rem] max-w-[92vw] overflow-auto rounded-md border border-edge bg-page p-4 shadow-sm"
          >
            <h4 className="font-semibold">{mark.title}</h4>
            {mark.sent === undefined ? null : <Shown title="Sent" what={mark.sent} />}
            {mark.came === undefined ? null : <Shown title="Came back" what={mark.came} />}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </li>
  );
}

function Shown({ title, what }: { title: string; what: unknown }) {
  return (
    <>
      <h5 className="mt-2 text-[12.5px] text-quiet">{title}</h5>
      <pre className="mt-0.5 font-mono text-[12px] leading-[1.5] break-all whitespace-pre-wrap">
        {typeof what === "string" ? what : JSON.stringify(what, null, 2)}
      </pre>
    </>
  );
}
