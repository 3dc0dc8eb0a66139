import { Popover } from "radix-ui";
import { useMemo, useRef, useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { moment } from "../ui/moment.ts";
import { saveFile } from "../ui/save-file.ts";
import { harOf } from "./har.ts";
import { layOut, summary, type TraceMark } from "./lay-out.ts";
import { TraceRow } from "./TraceRow.tsx";
import { useShownTrace } from "./use-shown-trace.ts";
import { WrittenFields } from "./WrittenFields.tsx";

const ROWS = ["keys", "requests", "services", "list", "fields"] as const;

/** What happened between a keystroke and a filled field, as a time line with four rows. */
export function TraceView() {
  const { events, kept, shown, show, momentOf } = useShownTrace();
  const marks = useMemo(() => layOut(events), [events]);
  const words = useMemo(() => summary(events), [events]);
  const [opened, setOpened] = useState<TraceMark>();
  const anchor = useRef<HTMLElement>(null!);
  const client = useClient();
  const save = async () => {
    const countries = await client?.countries().catch(() => undefined);
    const har = harOf(events, SERVICE_URL, momentOf, countries && { "/v1/countries": countries });
    saveFile("what-happened.har", JSON.stringify(har, null, 2));
  };
  const open = (mark: TraceMark, at: HTMLElement) => {
    anchor.current = at;
    setOpened(mark);
  };
  return (
    <section
      aria-label="Timeline"
      className="grid flex-none grid-cols-[200px_minmax(0,1fr)] gap-3 pt-3 max-[900px]:grid-cols-1"
    >
      <div>
        <div className="flex items-baseline justify-between gap-3">
          <h2 className="font-serif text-[15px] font-semibold">Timeline</h2>
          {events.some(({ row }) => row === "requests") ? (
            <button type="button" className="text-[12.5px] underline" onClick={save}>
              Save as HAR
            </button>
          ) : null}
        </div>
        {(words.length ? words : ["Type into the search box, or click a house on the map."]).map((line) => (
          <p key={line} className="text-[12.5px] text-quiet">
            {line}
          </p>
        ))}
        {kept.length ? (
          <select
            aria-label="Run"
            className="mt-1 block h-[24px] w-full rounded border border-edge bg-field px-1 text-[12.5px]"
            value={shown ?? ""}
            onChange={(event) => show(event.target.value ? Number(event.target.value) : undefined)}
          >
            <option value="">now</option>
            {kept.map(({ id, about, keptAt }) => (
              <option key={id} value={id}>
                {about || "by hand"}, {moment(keptAt)}
              </option>
            ))}
          </select>
        ) : null}
      </div>
      <div className="grid">
        {ROWS.filter((row) => row !== "services" || marks.some((mark) => mark.row === row)).map((row) => (
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
              {opened.written ? <WrittenFields written={opened.written} /> : null}
              {opened.sent === undefined ? null : <Shown title="Sent" what={opened.sent} />}
              {opened.came === undefined ? null : <Shown title="Received" what={opened.came} />}
            </Popover.Content>
          ) : null}
        </Popover.Portal>
      </Popover.Root>
    </section>
  );
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
