import type { Position } from "@bibliotope/core/geo";
import type { RecordFeature, ReportRequest } from "@bibliotope/wire";
import type { MarkerEvent } from "../map/marker.ts";
import type { PickedPlace } from "../picker/hand-back.ts";
import type { ELEMENT_DOCS } from "./element-docs.ts";
import type { MapElement } from "./map-element.ts";
import type { PickerElement } from "./picker-element.ts";
import type { ReportElement } from "./report-element.ts";
import type { SearchElement } from "./search-element.ts";
import type { StillElement } from "./still-element.ts";

type Docs = typeof ELEMENT_DOCS;
/** Tags of the elements. */
export type ElementTag = keyof Docs;

/** Classes of the elements by tag. */
export interface ElementClasses {
  "bibliotope-search": SearchElement;
  "bibliotope-map": MapElement;
  "bibliotope-still": StillElement;
  "bibliotope-report": ReportElement;
  "bibliotope-picker": PickerElement;
}

interface TypesOf {
  text: string;
  number: number | string;
  /** Present or not; a text is how HTML writes it. */
  flag: boolean | string;
}

/** Attributes of an element, as templates of frameworks write them. */
export type AttributesOf<T extends ElementTag> = {
  [A in keyof Docs[T]["attributes"]]?: Docs[T]["attributes"][A] extends { type: infer K extends keyof TypesOf }
    ? TypesOf[K] | undefined
    : never;
};

/** Details of events by the names of their types. */
interface Details {
  RecordFeature: RecordFeature;
  undefined: undefined;
  Position: Position;
  MarkerEvent: MarkerEvent;
  Report: ReportRequest;
  PickedPlace: PickedPlace;
}

/** Events of an element by name. */
export type EventsOf<T extends ElementTag> = {
  [E in keyof Docs[T]["events"]]: Docs[T]["events"][E] extends { detail: infer D extends keyof Details }
    ? CustomEvent<Details[D]>
    : never;
};

/** Listeners as attributes: `onbibliotope-found`. */
export type ListenersOf<T extends ElementTag> = {
  [E in keyof EventsOf<T> & string as `on${E}`]?: (event: EventsOf<T>[E]) => void;
};

type AllEvents = { [T in ElementTag]: EventsOf<T> }[ElementTag];
type Union<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer I) => void ? I : never;

declare global {
  interface HTMLElementEventMap extends Union<AllEvents> {}
}
