import { SHEETS } from "@bibliotope/core/sheet";
import { SheetMap } from "@bibliotope/kit";
import { type BatchCandidates, STANDINGS } from "@bibliotope/wire";
import { useEffect, useRef } from "react";
import { useClient } from "../forms/use-client.ts";
import { markerColour } from "../lookups/CandidateMap.tsx";
import { useBatchPointsQuery } from "../state/batches-api.ts";
import { STANDING_WORDS } from "./words.ts";

const WHOLE = { at: { lat: -35.6, lon: -21.5 }, zoom: 6.35 };

interface ReviewMapProps {
  batch: number;
  /** The row at hand; undefined to show all rows. */
  found: BatchCandidates | undefined;
  showsAll: boolean;
  marked: number;
  onMark: (place: number) => void;
}

/** The candidates of a row on the map, or all rows of the batch by how they stand. */
export function ReviewMap({ batch, found, showsAll, marked, onMark }: ReviewMapProps) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  const map = useRef<SheetMap>(undefined);
  const heard = useRef(onMark);
  heard.current = onMark;
  const { data: all } = useBatchPointsQuery(batch, { skip: !showsAll, refetchOnMountOrArgChange: true });

  useEffect(() => {
    if (!client || !holder.current) return;
    const made = new SheetMap(holder.current, {
      client,
      label: "Map of the rows",
      view: WHOLE,
      sheets: SHEETS,
      grouped: showsAll,
    });
    made.onHover((place) => place !== undefined && heard.current(place));
    map.current = made;
    return () => {
      map.current = undefined;
      made.destroy();
    };
  }, [client, showsAll]);

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
      colour: colours[points[i * 4 + 2]],
      name: `Row ${points[i * 4 + 3]}`,
    }));
    map.current?.setMarkers(markers);
    if (markers.length) map.current?.fit(markers.map(({ at }) => at));
  }, [found, all, showsAll, marked, client]);

  return <div ref={holder} className="h-full min-h-[16rem] overflow-hidden rounded-md border border-rule" />;
}
