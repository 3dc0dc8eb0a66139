import type { Position } from "@bibliotope/core/geo";
import type { MapMarker } from "@bibliotope/core/map";
import type { RecordFeature } from "@bibliotope/wire";
import type { Client } from "../client/client.ts";
import { say } from "../words/say.ts";

/** A picture of the developer's own in place of our sign. */
export interface OwnPicture {
  src: string;
  /** CSS pixels. */
  width: number;
  height: number;
  /** CSS pixels from the north-west corner to what is on the spot; the middle of the foot when not given. */
  foot?: { x: number; y: number };
}

/** What and which, with an address where it is a link. */
export type CardFact = readonly [name: string, value: string, href?: string];

/** What a marker's card contains; all of it is shown as text. */
export interface Card {
  title: string;
  facts?: readonly CardFact[];
  /** What is shown on request: facts, and a picture that is requested only then, another one for dark pages if there is one. */
  more?: { facts?: readonly CardFact[]; picture?: { src: string; night?: string; alt: string } };
  /** Offers to hand the place on to the device's own map application. */
  handsOn?: boolean;
}

/** A marker on a map. */
export interface Marker extends Omit<MapMarker, "at" | "from" | "picture"> {
  /** Where it is; one that has no position yet is not shown, and the map's message counts it. */
  at: Position | undefined;
  /** Its name for screen readers and the list of markers; the label or the number when not given. */
  name?: string;
  picture?: OwnPicture;
  card?: Card;
  /** A number of which the group that it is in has the mean. */
  value?: number | undefined;
  /** May be moved by pointer and keyboard. */
  draggable?: boolean;
  /** Hears what happens to this marker. */
  heard?: (event: MarkerEvent) => void;
}

/** How a group of markers looks: the colour of the ribbons, and what is on the tab in place of the count. */
export type OfGroup = (group: { count: number; mean?: number }) => {
  colour?: string | undefined;
  words?: string | undefined;
};

/** What happened to a marker: pressed, pointed at, its card shown or closed, moved. */
export interface MarkerEvent {
  type: "press" | "enter" | "leave" | "open" | "close" | "lift" | "move" | "drop" | "putback";
  marker: Marker;
  /** Its place in the list. */
  place: number;
  /** Where it is now. */
  at: Position;
}

/** What a marker is called. */
export function nameOf({ name, label, number, card }: Marker, place: number): string {
  return name ?? label ?? card?.title ?? say("Marker {n}", { n: number ?? place + 1 });
}

/** Where a marker is to stand: a record's ref, or an address as text. */
export type MarkerSource = { ref: string } | { address: string };

/**
 * Finds where a marker is to stand.
 * @returns the record, or undefined when nothing was found; an address is only found when it is the one meant
 */
export async function findMarker(
  client: Client,
  source: MarkerSource,
  signal?: AbortSignal,
): Promise<RecordFeature | undefined> {
  if ("ref" in source) return client.record(source.ref, {}, signal);
  const { outcome, features } = await client.forward({ q: source.address, limit: 1 }, signal);
  return outcome === "matched" ? features[0] : undefined;
}
