import { type FileStart, TABLE_ENCODINGS, type TableFormat } from "@bibliotope/wire";

const DELIMITERS: readonly (readonly [string, string])[] = [
  [",", "comma"],
  [";", "semicolon"],
  ["\t", "tab"],
  ["|", "bar"],
];
const KINDS: Readonly<Record<TableFormat["kind"], string>> = {
  csv: "CSV",
  geojson: "JSON",
  geojsonseq: "JSON, one object per line",
};
/** Rows above the header that can be left out. */
const MOST_ABOVE = 1000;
export const SELECT = "h-[28px] rounded border border-edge bg-field px-1.5 text-[13px]";

/** How the file is written; what was found out can be set by hand. */
export function FileFormat({
  start: { format },
  change,
}: {
  start: FileStart;
  change: (format: Partial<TableFormat>) => void;
}) {
  return (
    <section aria-label="File format" className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2 text-[13px]">
      <span>{KINDS[format.kind]}</span>
      <label className="inline-flex items-center gap-1.5">
        <span className="text-quiet">Encoding</span>
        <select
          className={SELECT}
          value={format.encoding}
          onChange={(event) => change({ encoding: event.target.value as TableFormat["encoding"] })}
        >
          {TABLE_ENCODINGS.map((encoding) => (
            <option key={encoding}>{encoding}</option>
          ))}
        </select>
      </label>
      {format.kind === "csv" ? (
        <>
          <label className="inline-flex items-center gap-1.5">
            <span className="text-quiet">Delimiter</span>
            <select
              className={SELECT}
              value={format.delimiter}
              onChange={(event) => change({ delimiter: event.target.value })}
            >
              {DELIMITERS.map(([sign, name]) => (
                <option key={sign} value={sign}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <label className="inline-flex items-center gap-1.5">
            <span className="text-quiet">Quotes</span>
            <select className={SELECT} value={format.quote} onChange={(event) => change({ quote: event.target.value })}>
              <option value={'"'}>double</option>
              <option value="'">single</option>
            </select>
          </label>
          <label className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={format.hasHead}
              onChange={(event) => change({ hasHead: event.target.checked })}
            />
            Header row
          </label>
          <label className="inline-flex items-center gap-1.5">
            <span className="text-quiet">Rows to skip</span>
            <input
              className={`${SELECT} w-14`}
              type="number"
              min={0}
              max={MOST_ABOVE}
              value={format.skipped ?? 0}
              onChange={({ target: { value } }) =>
                change({ skipped: Math.max(0, Math.min(MOST_ABOVE, Math.floor(Number(value)) || 0)) })
              }
            />
          </label>
        </>
      ) : null}
    </section>
  );
}
