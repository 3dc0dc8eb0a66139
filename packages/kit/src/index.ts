export { Client, type ClientOptions } from "./client/client.ts";
export { LookupError, type LookupTrouble } from "./client/errors.ts";
export { bind, type BindOptions, type Binding } from "./form/bind.ts";
export { type RenderedForm, type RenderOptions, renderForm } from "./form/render.ts";
export { SheetMap, type MapMarker, type MapOptions } from "./map/sheet-map.ts";
export { SearchBox, type SearchBoxOptions } from "./search/box.ts";
export { SearchMachine, type SearchOptions, type SearchState } from "./search/machine.ts";
export type { TraceEvent } from "./trace.ts";
