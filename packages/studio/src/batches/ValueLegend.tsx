import { MISSING_COLOUR, type ValueScale } from "@bibliotope/core/sheet";
import { count } from "../ui/count.ts";

interface ValueLegendProps {
  heads: readonly string[];
  column: number | undefined;
  setColumn: (column: number | undefined) => void;
  scale: ValueScale | undefined;
  isLoading: boolean;
}

/** What the rows on the map are coloured by, and what each colour means. */
export function ValueLegend({ heads, column, setColumn, scale, isLoading }: ValueLegendProps) {
  const steps = scale
    ? [
        ...scale.steps,
        ...(scale.missing ? [{ words: "nothing there", colour: MISSING_COLOUR, count: scale.missing }] : []),
      ]
    : [];
  return (
    <div className="rounded-md border border-rule bg-page px-3 py-2 text-[13px]">
      <label className="flex items-center gap-2">
        <span className="flex-none text-quiet">Colour by</span>
        <select
          className="h-[28px] min-w-0 flex-1 rounded border border-edge bg-field px-1.5"
          value={column ?? ""}
          onChange={({ target: { value } }) => setColumn(value === "" ? undefined : Number(value))}
        >
          <option value="">how they stand</option>
          {heads.map((head, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
            <option key={place} value={place}>
              {head.slice(0, 60) || `Column ${place + 1}`}
            </option>
          ))}
        </select>
      </label>
      {isLoading ? (
        <p role="status" className="mt-1 text-quiet">
          Reading the column
        </p>
      ) : null}
      {steps.length ? (
        <ul aria-label="What the colours mean" className="mt-1.5 flex flex-wrap gap-x-4 gap-y-0.5">
          {steps.map(({ words, colour, count: rows }) => (
            <li key={words} className="flex items-center gap-1.5">
              <svg aria-hidden="true" viewBox="0 0 10 10" className="size-[11px] flex-none">
                <rect width="10" height="10" rx="2" fill={colour} />
              </svg>
              <span className="break-words">{`${words} `}</span>
              <span className="text-quiet">{count(rows)}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {scale?.mean === undefined ? null : (
        <p className="mt-1 text-quiet">Mean {scale.mean.toLocaleString("en", { maximumSignificantDigits: 5 })}</p>
      )}
    </div>
  );
}
