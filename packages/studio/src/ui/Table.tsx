import type { ReactNode } from "react";
import { ScrollBox } from "./ScrollBox.tsx";

/** The head of a column; one for screen readers alone has `hidden`. */
type Head = string | { hidden: string } | { words: string; mark: ReactNode };

/** Columns of words, or a first column of words and columns of numbers. */
const CELLS = {
  words: { first: "py-1 pr-3 font-normal", other: "py-1 pr-3 font-normal" },
  numbers: { first: "py-1.5 font-normal", other: "py-1.5 pl-4 text-right font-normal" },
  framed: { first: "px-4 pt-3 pb-1.5 font-normal", other: "px-4 pt-3 pb-1.5 font-normal" },
} as const;

interface TableProps {
  /** Nothing where the columns explain themselves. */
  heads?: readonly Head[];
  /** The heads are there for screen readers only. */
  hidesHeads?: boolean;
  /** The heads stay in sight while the rows are scrolled. */
  sticks?: boolean;
  label?: string;
  /** Words above it. */
  caption?: string;
  columns?: keyof typeof CELLS;
  className?: string;
  /** The rows, each with a {@link RowHead}. */
  children: ReactNode;
}

/** A table: heads of its columns, and rows. */
export function Table({
  heads,
  hidesHeads = false,
  sticks = false,
  label,
  caption,
  columns = "words",
  className = "w-full text-[13px]",
  children,
}: TableProps) {
  const { first, other } = CELLS[columns];
  const classes = `text-left text-[12.5px] text-quiet ${sticks ? "sticky top-0 bg-page" : ""}`;
  return (
    <table aria-label={label} className={className}>
      {caption ? <caption className="mb-1 text-left text-quiet">{caption}</caption> : null}
      {heads ? (
        <thead className={hidesHeads ? "sr-only" : classes}>
          <tr>
            {heads.map((head, place) => (
              <th key={wordsOf(head)} scope="col" className={place ? other : first}>
                {typeof head === "object" && "hidden" in head ? (
                  <span className="sr-only">{head.hidden}</span>
                ) : (
                  <>
                    {typeof head === "object" ? head.mark : null}
                    {wordsOf(head)}
                  </>
                )}
              </th>
            ))}
          </tr>
        </thead>
      ) : null}
      <tbody>{children}</tbody>
    </table>
  );
}

const wordsOf = (head: Head) => (typeof head === "string" ? head : "hidden" in head ? head.hidden : head.words);

/** A table in a frame, which is scrolled sideways where the page is narrower than it, by keys too. */
export function FramedTable({
  label,
  narrowest,
  className = "mt-2",
  heads,
  children,
}: Pick<TableProps, "heads" | "children"> & {
  label: string;
  /** Its least width. */
  narrowest: "min-w-[46rem]" | "min-w-[50rem]" | "min-w-[54rem]";
  className?: string;
}) {
  return (
    <ScrollBox label={label} className={`${className} rounded-md border border-rule bg-page`}>
      <Table heads={heads} columns="framed" className={`w-full ${narrowest}`}>
        {children}
      </Table>
    </ScrollBox>
  );
}

/** The cell that a row is about. */
export function RowHead({ className = "py-1 pr-3 text-quiet", children }: { className?: string; children: ReactNode }) {
  return (
    <th scope="row" className={`text-left font-normal ${className}`}>
      {children}
    </th>
  );
}
