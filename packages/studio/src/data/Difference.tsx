import { InteractiveMap } from "@bibliotope/kit";
import { CHANGES, type DataAnswer, type VersionDifference } from "@bibliotope/wire";
import { useEffect, useRef, useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { wordsOf } from "../state/api.ts";
import { useDifferenceQuery } from "../state/data-api.ts";
import { count } from "../ui/count.ts";
import { RowHead, Table } from "../ui/Table.tsx";
import { SELECT } from "./FileFormat.tsx";
import { findVersion, liveVersions } from "./words.ts";

const COLOURS = { new: "verdigris", gone: "madder", moved: "indigo", renamed: "ochre" } as const;
const DOTS = { new: "bg-verdigris", gone: "bg-madder", moved: "bg-indigo", renamed: "bg-ochre" } as const;
const NAMES = { addresses: "Addresses", streets: "Streets", places: "Places" } as const;

/** What a version changes against another one of the data set: in counts, and on the map. */
export function Difference({ data, version }: { data: DataAnswer; version: number }) {
  const { set } = findVersion(data, version)!;
  const others = set.versions.filter(({ id }) => id !== version);
  const live = liveVersions(data).find((id) => others.some((other) => other.id === id));
  const earlier = others.find(({ id }) => id < version) ?? others[0];
  const [chosen, setChosen] = useState<number>();
  const from = chosen ?? live ?? earlier?.id;
  if (from === undefined) return null;
  return (
    <section aria-label="What it changes" className="mt-6">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="font-serif text-[20px] font-semibold">What it changes</h2>
        <label className="inline-flex items-center gap-1.5 text-[13px]">
          <span className="text-quiet">against</span>
          <select className={SELECT} value={from} onChange={(event) => setChosen(Number(event.target.value))}>
            {others.map(({ id, number, isLive }) => (
              <option key={id} value={id}>
                version {number}
                {isLive ? ", live" : ""}
              </option>
            ))}
          </select>
        </label>
      </div>
      <Changes key={from} from={from} to={version} />
    </section>
  );
}

function Changes({ from, to }: { from: number; to: number }) {
  const { data, error, isLoading } = useDifferenceQuery({ from, to });
  if (error)
    return (
      <p role="alert" className="mt-2 text-ochre">
        {wordsOf(error)}
      </p>
    );
  if (isLoading || !data)
    return (
      <p role="status" className="mt-2 text-quiet">
        Comparing versions
      </p>
    );
  return (
    <div className="mt-2 grid gap-4 lg:grid-cols-[auto_minmax(0,1fr)]">
      <Table
        heads={[
          { hidden: "Kind" },
          ...CHANGES.map((change) => ({
            words: change,
            mark: (
              <span
                aria-hidden
                className={`mr-1.5 inline-block size-[9px] rounded-[2px] forced-color-adjust-none ${DOTS[change]}`}
              />
            ),
          })),
          "same",
        ]}
        columns="numbers"
        className="h-fit text-[13px]"
      >
        {(Object.keys(NAMES) as (keyof typeof NAMES)[]).map((what) => (
          <tr key={what} className="border-t border-rule">
            <RowHead className="py-1">{NAMES[what]}</RowHead>
            {CHANGES.map((change) => (
              <td key={change} className="py-1 pl-4 text-right tabular-nums">
                {count(data.counts[what][change])}
              </td>
            ))}
            <td className="py-1 pl-4 text-right tabular-nums text-quiet">{count(data.counts[what].same)}</td>
          </tr>
        ))}
      </Table>
      {data.spots.length ? <ChangesMap spots={data.spots} /> : <p className="text-quiet">No addresses changed.</p>}
    </div>
  );
}

function ChangesMap({ spots }: { spots: VersionDifference["spots"] }) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!client || !holder.current) return;
    const map = new InteractiveMap(holder.current, { client, label: "Map of changes" });
    const style = getComputedStyle(document.documentElement);
    map.setMarkers(
      spots.map(({ change, at, label }) => ({
        at,
        colour: style.getPropertyValue(`--${COLOURS[change]}`).trim(),
        name: `${label}, ${change}`,
      })),
    );
    map.setLines(spots.flatMap(({ from, at }) => (from ? [{ points: [from, at], isBare: true }] : [])));
    map.fit(spots.map(({ at }) => at));
    return () => map.destroy();
  }, [client, spots]);
  return <div ref={holder} className="h-[340px] overflow-hidden rounded-md border border-rule" />;
}
