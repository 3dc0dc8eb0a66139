import type { ElementClasses } from "./element-types.ts";
import { MapElement } from "./map-element.ts";
import { PickerElement } from "./picker-element.ts";
import { ReportElement } from "./report-element.ts";
import { SearchElement } from "./search-element.ts";
import { StillElement } from "./still-element.ts";

export type { AttributesOf, ElementTag, EventsOf } from "./element-types.ts";
export { MARKER, PRESSED } from "./map-element.ts";
export { PICKED } from "./picker-element.ts";
export { REPORTED } from "./report-element.ts";
export { FOUND, LOST } from "./search-element.ts";
export { MapElement, PickerElement, ReportElement, SearchElement, StillElement };

const ELEMENTS = {
  "bibliotope-search": SearchElement,
  "bibliotope-map": MapElement,
  "bibliotope-still": StillElement,
  "bibliotope-report": ReportElement,
  "bibliotope-picker": PickerElement,
};

/** Makes the elements known to the page; those that it knows already stay as they are. Does nothing on a server. */
export function defineElements(registry = globalThis.customElements): void {
  if (!registry) return;
  for (const [name, element] of Object.entries(ELEMENTS)) if (!registry.get(name)) registry.define(name, element);
}

declare global {
  interface HTMLElementTagNameMap extends ElementClasses {}
}
