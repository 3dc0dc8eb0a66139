import type { LegendPart } from "@bibliotope/kit";
import { Button } from "../ui/Button.tsx";
import { count } from "../ui/count.ts";

/** The columns that style markers, by their indexes; and what is on groups. */
export interface ValueStyles {
  colour?: number | undefined;
  size?: number | undefined;
  label?: number | undefined;
  groups: "count" | "mean";
}

interface ValuePanelProps {
  heads: readonly string[];
  looks: ValueStyles;
  setLooks: (looks: ValueStyles) => void;
  legend: readonly LegendPart[];
  isLoading?: boolean;
  /** Whether markers stand in groups where they are dense. */
  isGrouped: boolean;
  /** What markers are coloured by without a column. */
  plain: string;
  takeOut: { png: () => void; geoJson: () => void } | undefined;
}

const PLAIN = { colour: "", size: "all alike", label: "none" };
const ASKED = { colour: "Colour by", size: "Size by", label: "Label by" };

/** Which columns style the markers on a map, and what each style means. */
export function ValuePanel({ heads, looks, setLooks, legend, isLoading, isGrouped, plain, takeOut }: ValuePanelProps) {
  const hasMean = legend.some(({ mean, by, trouble }) => mean !== undefined || (by === "size" && !trouble));
  return (
    <div className="rounded-md border border-rule bg-page px-3 py-2 text-[13px]">
      <div className="grid grid-cols-[repeat(auto-fit,minmax(11rem,1fr))] gap-x-4 gap-y-1.5">
        {(["colour", "size", "label"] as const).map((look) => (
          <label key={look} className="flex items-center gap-2">
            <span className="flex-none text-quiet">{ASKED[look]}</span>
            <select
              className="h-[28px] min-w-0 flex-1 rounded border border-edge bg-field px-1.5"
              value={looks[look] ?? ""}
              onChange={({ target: { value } }) =>
                setLooks({ ...looks, [look]: value === "" ? undefined : Number(value) })
              }
            >
              <option value="">{PLAIN[look] || plain}</option>
              {heads.map((head, place) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
                <option key={place} value={place}>
                  {head.slice(0, 60) || `Column ${place + 1}`}
                </option>
              ))}
            </select>
          </label>
        ))}
        {hasMean && isGrouped ? (
          <label className="flex items-center gap-2">
            <span className="flex-none text-quiet">Groups show</span>
            <select
              className="h-[28px] min-w-0 flex-1 rounded border border-edge bg-field px-1.5"
              value={looks.groups}
              onChange={({ target: { value } }) => setLooks({ ...looks, groups: value === "mean" ? "mean" : "count" })}
            >
              <option value="count">their number</option>
              <option value="mean">their mean</option>
            </select>
          </label>
        ) : null}
      </div>
      {isLoading ? (
        <p role="status" className="mt-1 text-quiet">
          Reading the column
        </p>
      ) : null}
      <div className="flex flex-wrap items-end justify-between gap-x-6">
        <div className="min-w-0">
          {legend.map((part) => (
            <LegendLines key={part.by} part={part} />
          ))}
        </div>
        {takeOut && legend.length ? (
          <p className="mt-2 flex gap-2">
            <Button onClick={takeOut.png}>Save as PNG</Button>
            <Button onClick={takeOut.geoJson}>Save as GeoJSON</Button>
          </p>
        ) : null}
      </div>
    </div>
  );
}

const MEANT = { colour: "Colour legend", size: "Size legend", label: "" };

function LegendLines({ part: { by, steps, mean, trouble } }: { part: LegendPart }) {
  return (
    <>
      {steps.length ? (
        <ul aria-label={MEANT[by]} className="mt-1.5 flex flex-wrap gap-x-4 gap-y-0.5">
          {steps.map(({ words, colour, size, count: rows }) => (
            <li key={words} className="flex items-center gap-1.5">
              <Swatch colour={colour} size={size} />
              <span className="break-words">{`${words} `}</span>
              {rows === undefined ? null : <span className="text-quiet">{count(rows)}</span>}
            </li>
          ))}
        </ul>
      ) : null}
      {mean === undefined ? null : <p className="mt-1 text-quiet">Mean {mean}</p>}
      {trouble ? (
        <p role="status" className="mt-1 text-ochre">
          {trouble}
        </p>
      ) : null}
    </>
  );
}

/** A patch of a colour, or a ribbon's size. */
function Swatch({ colour, size = 1 }: { colour: string | undefined; size: number | undefined }) {
  const side = 11 * size;
  return (
    <svg aria-hidden="true" viewBox="0 0 10 10" width={side} height={side} className="flex-none text-quiet">
      {colour ? (
        <rect width="10" height="10" rx="2" fill={colour} />
      ) : (
        <circle cx="5" cy="5" r="4.2" fill="none" stroke="currentColor" strokeWidth="1.6" />
      )}
    </svg>
  );
}
