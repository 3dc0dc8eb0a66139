import { MAP_STYLES } from "@bibliotope/core/map";
import { byValues, InteractiveMap, type Marker, type Values } from "@bibliotope/kit";
import { type BatchCandidates, ROW_STATUSES } from "@bibliotope/wire";
import { useEffect, useMemo, useRef, useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { markerColour } from "../lookups/CandidateMap.tsx";
import { useBatchPointsQuery, useBatchValuesQuery } from "../state/batches-api.ts";
import { useLatest } from "../ui/use-latest.ts";
import { takeOutOf } from "../values/take-out.ts";
import { ValuePanel, type ValueStyles } from "../values/ValuePanel.tsx";
import { STATUS_WORDS } from "./words.ts";

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
  const map = useRef<InteractiveMap>(undefined);
  /** The points that the view was fitted to. */
  const fitted = useRef<unknown>(undefined);
  const heard = useLatest(onMark);
  const { data: all } = useBatchPointsQuery(batch, { skip: !showsAll, refetchOnMountOrArgChange: true });
  /** The columns that style the rows; by their status without one. */
  const [looks, setLooks] = useState<ValueStyles>({ groups: "count" });
  const columns = [looks.colour, looks.size, looks.label];
  const [colours, sizes, labels] = [
    useColumn(batch, looks.colour, showsAll),
    useColumn(batch, looks.size, showsAll),
    useColumn(batch, looks.label, showsAll),
  ];
  const isValued = columns.some((column) => column !== undefined);
  const isLoading = showsAll && columns.some((column, i) => column !== undefined && ![colours, sizes, labels][i]);
  const shown = useMemo(
    () => rowsShown(all?.points ?? [], heads, looks, { colour: colours, size: sizes, label: labels }),
    [all, colours, sizes, labels, looks, heads],
  );
  // a group has no single style: as long as the rows are few, each is seen by itself
  const isGrouped = showsAll && !(isValued && shown.markers.length <= MOST_APART);

  useEffect(() => {
    if (!client || !holder.current) return;
    const made = new InteractiveMap(holder.current, {
      client,
      label: "Map of the rows",
      mapStyles: MAP_STYLES,
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
    map.current?.setMarkers(shown.markers, shown.ofGroup);
    // in other colours the rows lie where they lay
    if (shown.markers.length && fitted.current !== all) map.current?.fit(shown.markers.map(({ at }) => at!));
    fitted.current = all;
  }, [found, all, showsAll, marked, client, shown, isGrouped]);

  return (
    <div className="flex h-full flex-col gap-2">
      {showsAll && heads?.length ? (
        <ValuePanel
          heads={heads}
          looks={looks}
          setLooks={setLooks}
          legend={shown.legend}
          isLoading={isLoading}
          isGrouped={isGrouped}
          plain="status"
          takeOut={takeOutOf(
            () => map.current,
            `batch-${batch}`,
            () => shown,
          )}
        />
      ) : null}
      <div ref={holder} className="min-h-[16rem] flex-1 overflow-hidden rounded-md border border-rule" />
    </div>
  );
}

const LOOKS = ["colour", "size", "label"] as const;

type Columns = Readonly<Record<(typeof LOOKS)[number], readonly (string | null)[] | undefined>>;

/**
 * All rows of a batch as markers, by how they stand or by the values of columns.
 * @param points four numbers a row: latitude, longitude, the state, its number
 * @param columns values of each row, by what they say how it looks; undefined until they have come
 */
function rowsShown(points: readonly number[], heads: readonly string[] | null, looks: ValueStyles, columns: Columns) {
  const own = getComputedStyle(document.documentElement);
  const colours = ROW_STATUSES.map((one) => own.getPropertyValue(`--${STATUS_WORDS[one].colour}`).trim());
  const valuesOf = (i: number): Values => Object.fromEntries(LOOKS.map((look) => [look, columns[look]?.[i]]));
  const values = Array.from({ length: points.length / 4 }, (_, i) => valuesOf(i));
  const plain = values.map(({ colour, label, size }, i): Marker => {
    const [lat, lon, how, number] = points.slice(4 * i, 4 * i + 4);
    return {
      at: { lat, lon },
      colour: colours[how],
      name: [`Row ${number}`, colour ?? label ?? size].filter(Boolean).join(": "),
    };
  });
  const by = Object.fromEntries(LOOKS.flatMap((look) => (columns[look] ? [[look, look]] : [])));
  const { legend, ...rest } = byValues(plain, values, { ...by, groups: looks.groups }, "en");
  const chosen = LOOKS.filter((look) => looks[look] !== undefined);
  return {
    ...rest,
    legend: legend.map((part) => ({ ...part, column: nameOf(heads, looks[part.by]) })),
    // as they are called in the file
    values: values.map(
      (one): Values => Object.fromEntries(chosen.map((look) => [nameOf(heads, looks[look]), one[look]])),
    ),
  };
}

/** The values of a column of a batch; undefined where none is wanted, and until they have come. */
function useColumn(batch: number, column: number | undefined, showsAll: boolean) {
  const params = { id: batch, column: column ?? 0 };
  const { currentData } = useBatchValuesQuery(params, { skip: !showsAll || column === undefined });
  return column === undefined ? undefined : currentData?.values;
}

const nameOf = (heads: readonly string[] | null, column: number | undefined) =>
  heads?.[column ?? 0] || `Column ${(column ?? 0) + 1}`;
