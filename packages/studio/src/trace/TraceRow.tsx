import { type KeyboardEvent, type MouseEvent, useId, useRef, useState } from "react";
import type { TraceMark } from "./lay-out.ts";

interface TraceRowProps {
  row: TraceMark["row"];
  marks: readonly TraceMark[];
  opened: TraceMark | undefined;
  open: (mark: TraceMark, at: HTMLElement) => void;
}

/**
 * A row of the time line. Marks may be narrower than a finger, so all of the row is one target: a click takes the mark
 * nearest to it, and the arrow keys go from mark to mark.
 */
export function TraceRow({ row, marks, opened, open }: TraceRowProps) {
  const id = useId();
  const track = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState(0);
  const at = Math.min(active, marks.length - 1);
  const openAt = (index: number) => {
    const element = track.current?.children[index];
    if (!(element instanceof HTMLElement)) return;
    setActive(index);
    open(marks[index], element);
  };
  const pressed = (event: MouseEvent) => {
    const away = [...(track.current?.children ?? [])].map((element) => {
      const { left, right } = element.getBoundingClientRect();
      return Math.max(left - event.clientX, event.clientX - right, 0);
    });
    openAt(away.indexOf(Math.min(...away)));
  };
  const moved = (event: KeyboardEvent) => {
    const to = { ArrowLeft: at - 1, ArrowRight: at + 1, Home: 0, End: marks.length - 1 }[event.key];
    if (to !== undefined) setActive(Math.max(0, Math.min(marks.length - 1, to)));
    else if (event.key === "Enter" || event.key === " ") openAt(at);
    else return;
    event.preventDefault();
  };
  return (
    <div className="grid h-[29px] grid-cols-[70px_minmax(0,1fr)] items-center border-b border-rule">
      <span id={id} className="font-mono text-[12px] text-quiet">
        {row}
      </span>
      {marks.length ? (
        <div
          ref={track}
          role="listbox"
          tabIndex={0}
          aria-labelledby={id}
          aria-orientation="horizontal"
          aria-activedescendant={`${id}-${at}`}
          className="group relative mr-40 h-full cursor-pointer"
          onClick={pressed}
          onKeyDown={moved}
        >
          {marks.map((mark, i) => (
            <Mark
              // marks only ever come at the end
              // biome-ignore lint/suspicious/noArrayIndexKey: their order is their identity
              key={i}
              id={`${id}-${i}`}
              mark={mark}
              isActive={i === at}
              isOpened={mark === opened}
            />
          ))}
        </div>
      ) : null}
    </div>
  );
}

const SHAPES: Record<TraceMark["shape"], string> = {
  key: "font-mono text-[12px] px-px",
  answered: "h-[14px] w-full rounded-[3px] bg-slate forced-color-adjust-none",
  dropped: "h-[14px] w-full rounded-[3px] border border-dashed border-slate",
  failed: "h-[14px] w-full rounded-[3px] border border-madder bg-madder/25",
  waiting: "h-[14px] w-full rounded-[3px] border border-slate",
  list: "text-[12px] text-quiet before:mr-1 before:inline-block before:size-[8px] before:rounded-full before:bg-ochre before:content-['']",
  field: "rounded-[3px] border border-madder bg-madder/10 px-1.5 text-[12px]",
};

interface MarkProps {
  id: string;
  mark: TraceMark;
  isActive: boolean;
  isOpened: boolean;
}

function Mark({ id, mark, isActive, isOpened }: MarkProps) {
  const place = (element: HTMLElement | null) => {
    element?.style.setProperty("left", `${mark.from * 100}%`);
    const width = mark.row === "requests" ? `max(7px, ${(mark.to - mark.from) * 100}%)` : "auto";
    element?.style.setProperty("width", width);
  };
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the row has the focus and names its active mark
    <span
      ref={place}
      id={id}
      role="option"
      aria-selected={isOpened}
      aria-label={mark.row === "keys" ? `${mark.text}, ${mark.title}` : mark.title}
      title={mark.title}
      className="absolute inset-y-0 flex items-center"
    >
      <span
        className={`overflow-hidden rounded-[3px] whitespace-nowrap ${SHAPES[mark.shape]} ${isActive ? "group-focus-visible:outline-2 group-focus-visible:outline-ochre" : ""}`}
      >
        {mark.row === "requests" ? "" : mark.text}
      </span>
    </span>
  );
}
