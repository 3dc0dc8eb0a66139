import { AREA_KINDS, type AreaKind } from "@bibliotope/core/place";
import type { CoverageAnswer, DataAnswer } from "@bibliotope/wire";
import { useState } from "react";
import { useCoverageQuery } from "../state/data-api.ts";
import { Alert } from "../ui/Alert.tsx";
import { count } from "../ui/count.ts";
import { ScrollBox } from "../ui/ScrollBox.tsx";
import { RowHead, Table } from "../ui/Table.tsx";
import { CellMap } from "./CellMap.tsx";
import { SELECT } from "./FileFormat.tsx";

/** How much a version holds where, on a grid and by area; beside another version, so that holes are seen. */
export function Coverage({ data, version }: { data: DataAnswer; version: number }) {
  const [beside, setBeside] = useState(0);
  const [kind, setKind] = useState<AreaKind>("town");
  const { data: answer, error, isFetching } = useCoverageQuery({ version, beside: beside || undefined });
  const kinds = AREA_KINDS.filter((one) => answer?.areas.some((area) => area.kind === one));
  const shown = kinds.includes(kind) ? kind : kinds.at(-1);
  const others = data.dataSets.flatMap(({ name, versions }) =>
    versions.filter(({ id }) => id !== version).map(({ id, number }) => ({ id, words: `${name} ${number}` })),
  );
  return (
    <section aria-label="Coverage" className="mt-6">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h2 className="font-serif text-[20px] font-semibold">Coverage</h2>
        {kinds.length ? (
          <label className="inline-flex items-center gap-1.5 text-[13px]">
            <span className="text-quiet">by</span>
            <select className={SELECT} value={shown} onChange={(event) => setKind(event.target.value as AreaKind)}>
              {kinds.map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
        ) : null}
        <label className="inline-flex items-center gap-1.5 text-[13px]">
          <span className="text-quiet">compare with</span>
          <select className={SELECT} value={beside} onChange={(event) => setBeside(Number(event.target.value))}>
            <option value={0}>nothing</option>
            {others.map(({ id, words }) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </label>
        {isFetching ? (
          <span role="status" className="text-[13px] text-quiet">
            Counting
          </span>
        ) : null}
      </div>
      <Alert error={error} className="mt-2 text-ochre" />
      {answer && shown ? (
        <div className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)]">
          <CellMap grid={answer.grid} label="Map of the coverage" />
          <Areas areas={answer.areas.filter((area) => area.kind === shown)} hasOther={beside > 0} />
        </div>
      ) : null}
    </section>
  );
}

function Areas({ areas, hasOther }: { areas: CoverageAnswer["areas"]; hasOther: boolean }) {
  const sorted = areas.toSorted((a, b) => b.addresses - a.addresses || (b.before ?? 0) - (a.before ?? 0));
  const heads = ["Addresses", ...(hasOther ? ["Compared"] : []), "Streets", "Without a number", "Places", "Exact"];
  return (
    <ScrollBox label="Areas" className="max-h-[24rem] rounded-md border border-rule bg-page px-3">
      <Table heads={["Area", ...heads]} columns="numbers" sticks>
        {sorted.map((area) => {
          const { ref, name, within, addresses, before, streets, bare, places } = area;
          const isHole = addresses === 0 || (before ?? 0) > addresses * 2;
          return (
            <tr key={ref} className="border-t border-rule align-baseline">
              <RowHead className="py-1">
                {name} <span className="text-[12px] text-quiet">{within}</span>
              </RowHead>
              <td
                className={`pl-4 text-right whitespace-nowrap tabular-nums ${isHole ? "font-semibold text-ochre" : ""}`}
              >
                {count(addresses)}
              </td>
              {hasOther ? (
                <td className="pl-4 text-right whitespace-nowrap tabular-nums text-quiet">{count(before ?? 0)}</td>
              ) : null}
              <td className="pl-4 text-right whitespace-nowrap tabular-nums">{count(streets)}</td>
              <td className={`pl-4 text-right whitespace-nowrap tabular-nums ${bare ? "text-ochre" : ""}`}>
                {count(bare)}
              </td>
              <td className="pl-4 text-right whitespace-nowrap tabular-nums">{count(places)}</td>
              <td className="pl-4 text-right whitespace-nowrap tabular-nums">{exact(addresses, bare)}</td>
            </tr>
          );
        })}
      </Table>
    </ScrollBox>
  );
}

/** The share of what is found that has a point of its own: addresses, against streets of which only the line is known. */
export function exact(addresses: number, bare: number): string {
  const all = addresses + bare;
  return all ? `${((addresses / all) * 100).toLocaleString("en", { maximumFractionDigits: 1 })} %` : "–";
}
