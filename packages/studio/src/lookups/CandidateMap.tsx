import type { Position } from "@bibliotope/core/geo";
import { MAP_STYLES } from "@bibliotope/core/map";
import { InteractiveMap } from "@bibliotope/kit";
import { useEffect, useRef } from "react";
import { useClient } from "../forms/use-client.ts";
import { useLatest } from "../ui/use-latest.ts";

const COLOURS = ["madder", "verdigris", "indigo", "plum", "slate"] as const;

/** Colour of the candidate at some place, the same on the card and on the map. */
export function markerColour(place: number): (typeof COLOURS)[number] {
  return COLOURS[place % COLOURS.length];
}

/** A candidate on the map. */
export interface Spot {
  at: Position;
  label: string;
}

interface CandidateMapProps {
  spots: readonly Spot[];
  /** The position that was looked up. */
  aim: Position | undefined;
  /** The positions between which the distance was requested. */
  line: readonly Position[] | undefined;
  marked: number | undefined;
  onMark: (place: number | undefined) => void;
  onPress: (at: Position) => void;
  /** Hears which map it is, for what is narrowed to the view. */
  onReady: (map: InteractiveMap | undefined) => void;
}

/** All candidates on the map; the pointer ties marker and line. */
export function CandidateMap({ spots, aim, line, marked, onMark, onPress, onReady }: CandidateMapProps) {
  const client = useClient();
  const holder = useRef<HTMLDivElement>(null);
  const map = useRef<InteractiveMap>(undefined);
  const heard = useLatest({ onMark, onPress });

  useEffect(() => {
    if (!client || !holder.current) return;
    const made = new InteractiveMap(holder.current, {
      client,
      label: "Map of the candidates",
      mapStyles: MAP_STYLES,
      relief: true,
    });
    made.onPress((at) => heard.current.onPress(at));
    made.onHover((place) => heard.current.onMark(place));
    map.current = made;
    onReady(made);
    return () => {
      onReady(undefined);
      map.current = undefined;
      made.destroy();
    };
  }, [client, onReady]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the client comes with the map that the spots are put on
  useEffect(() => {
    // around a position its nearest record is of interest, not the middle of the country
    map.current?.fit(aim ? [aim, ...spots.slice(0, 1).map(({ at }) => at)] : spots.map(({ at }) => at));
    map.current?.setAim(aim);
    map.current?.setLines(line ? [{ points: line }] : []);
    if (line) map.current?.fit(line);
  }, [spots, aim, line, client]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  useEffect(() => {
    const style = getComputedStyle(document.documentElement);
    map.current?.setMarkers(
      spots.map(({ at, label }, place) => ({
        at,
        colour: style.getPropertyValue(`--${markerColour(place)}`).trim(),
        name: label,
        ...(spots.length > 1 ? { number: place + 1 } : {}),
        ...(marked === place || spots.length === 1 ? { label } : {}),
        marked: marked === place,
      })),
    );
  }, [spots, marked, client]);

  return <div ref={holder} className="h-[300px] overflow-hidden rounded-md border border-rule max-[900px]:h-[240px]" />;
}
