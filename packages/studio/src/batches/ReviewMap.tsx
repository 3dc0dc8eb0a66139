import { MISSING_COLOUR, SHEETS, valueScale } from "@bibliotope/core/sheet";
import { SheetMap } from "@bibliotope/kit";
import { type BatchCandidates, STANDINGS } from "@bibliotope/wire";
import { useEffect, useMemo, useRef, useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { markerColour } from "../lookups/CandidateMap.tsx";
import { useBatchPointsQuery, useBatchValuesQuery } from "../state/batches-api.ts";
import { ValueLegend } from "./ValueLegend.tsx";
import { STANDING_WORDS } from "./words.ts";

const WHOLE = { at: { lat: -35.6, lon: -21.5 }, zoom: 6.35 };

/** Rows that are coloured by their values without being grouped. */
const MOST_APART = 2000;

interface ReviewMapProps {
  batch: number;
  /** Names of the columns; null where the file has none. */
  heads: readonly string[] | null;
  /** The row at hand; undefined to show all rows. */
  found: BatchCandidates | undefined;
  showsAll: boolean;
  marked: number;
  onMark: (place: number) => void;
}

/** The candidates of a row on the map, or all rows of the batch by how they stand. */
export function ReviewMap({ batch, heads, found, showsAll, marked, onMark }: ReviewMapProps) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  const map = useRef<SheetMap>(undefined);
  /** The points that the view was fitted to. */
  const fitted = useRef<unknown>(undefined);
  const heard = useRef(onMark);
  heard.current = onMark;
  const { data: all } = useBatchPointsQuery(batch, { skip: !showsAll, refetchOnMountOrArgChange: true });
  /** The column by whose values the rows are coloured; by how they stand without one. */
  const [column, setColumn] = useState<number>();
  const asked = { id: batch, column: column ?? 0 };
  const { currentData: held } = useBatchValuesQuery(asked, { skip: !showsAll || column === undefined });
  const values = column === undefined ? undefined : held?.values;
  const scale = useMemo(() => values && valueScale(values), [values]);
  // a group has no one value: as long as the rows are few, each is seen by itself
  const isGrouped = showsAll && !(scale && scale.of.length <= MOST_APART);

  useEffect(() => {
    if (!client || !holder.current) return;
    const made = new SheetMap(holder.current, {
      client,
      label: "Map of the rows",
      view: WHOLE,
      sheets: SHEETS,
      grouped: isGrouped,
    });
    made.onHover((place) => place !== undefined && heard.current(place));
    map.current = made;
    fitted.current = undefined;
    return () => {
      map.current = undefined;
      made.destroy();
    };
  }, [client, isGrouped]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the client comes with the map
  useEffect(() => {
    if (showsAll) return;
    const spots = found?.candidates.map(({ at }) => at) ?? [];
    if (spots.length) map.current?.fit(spots);
  }, [found, showsAll, client]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  useEffect(() => {
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(`--${name}`).trim();
    if (!showsAll) {
      map.current?.setMarkers(
        (found?.candidates ?? []).map(({ at, line }, place) => ({
          at,
          colour: colour(markerColour(place)),
          name: line,
          number: place + 1,
          marked: place === marked,
        })),
      );
      return;
    }
    const points = all?.points ?? [];
    const colours = STANDINGS.map((standing) => colour(STANDING_WORDS[standing].colour));
    const markers = Array.from({ length: points.length / 4 }, (_, i) => ({
      at: { lat: points[i * 4], lon: points[i * 4 + 1] },
      colour: scale ? (scale.steps[scale.of[i]]?.colour ?? MISSING_COLOUR) : colours[points[i * 4 + 2]],
      name: [`Row ${points[i * 4 + 3]}`, values?.[i]].filter(Boolean).join(": "),
    }));
    map.current?.setMarkers(markers);
    // in other colours the rows lie where they lay
    if (markers.length && fitted.current !== all) map.current?.fit(markers.map(({ at }) => at));
    fitted.current = all;
  }, [found, all, showsAll, marked, client, scale, values, isGrouped]);

  return (
    <div className="flex h-full flex-col gap-2">
      {showsAll && heads?.length ? (
        <ValueLegend {...{ heads, column, setColumn, scale }} isLoading={column !== undefined && !values} />
      ) : null}
      <div ref={holder} className="min-h-[16rem] flex-1 overflow-hidden rounded-md border border-rule" />
    </div>
  );
}
