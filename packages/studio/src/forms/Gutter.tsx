import type { FormAnswer } from "@bibliotope/core/form";
import type { ReactNode } from "react";
import { partColour } from "../ui/part-colour.ts";
import { type GutterRow, gutterRows } from "./rows.ts";

interface GutterProps {
  title: string;
  /** Stands in place of the title. */
  head?: ReactNode;
  answer: FormAnswer | undefined;
  /** Names that some field is filled from. */
  bound: ReadonlySet<string>;
  /** Values of outside services, which stand below. */
  services?: readonly GutterRow[];
  /** Draws a row's name; a plain word when not given. */
  handle?: (row: GutterRow, classes: string) => ReactNode;
}

/** The gutter between the two pages. */
export function Gutter({ title, head, answer, bound, services = [], handle }: GutterProps) {
  const { parts, facts } = gutterRows(answer);
  return (
    <section
      aria-label={title}
      className="gutter flex min-h-0 flex-col overflow-y-auto border-x border-rule px-3.5 py-4"
    >
      {head ?? <h2 className="mb-2 truncate text-[12.5px] text-quiet">{title}</h2>}
      <dl>
        {parts.map((row) => (
          <Row key={row.name} row={row} isBound={bound.has(row.name)} handle={handle} />
        ))}
        <div className="my-2 border-t border-edge" />
        {facts.map((row) => (
          <Row key={row.name} row={row} isBound={bound.has(row.name)} handle={handle} />
        ))}
        {services.length ? <div className="my-2 border-t border-edge" /> : null}
        {services.map((row) => (
          <Row key={row.name} row={row} isBound={bound.has(row.name)} handle={handle} isWide />
        ))}
      </dl>
    </section>
  );
}

interface RowProps {
  row: GutterRow;
  isBound: boolean;
  handle?: GutterProps["handle"];
  /** The name takes most of the room. */
  isWide?: boolean;
}

function Row({ row, isBound, handle, isWide }: RowProps) {
  const classes = `font-bold text-[12.5px] ${isBound ? "" : "text-quiet"}`;
  return (
    <div
      data-part={row.name}
      className={`grid min-h-[32px] items-center ${isWide ? "grid-cols-[minmax(0,1fr)_auto] gap-1" : "grid-cols-[74px_minmax(0,1fr)]"}`}
      title={row.label}
    >
      <dt ref={(element) => element?.style.setProperty("color", isBound ? partColour(row.name) : "")}>
        {handle ? handle(row, classes) : <span className={classes}>{row.name}</span>}
      </dt>
      <dd className={`truncate font-serif text-[15px] ${row.value && isBound ? "" : "text-quiet"}`}>
        {row.value || "–"}
      </dd>
    </div>
  );
}
