export { Client, type ClientOptions } from "./client/client.ts";
export { LookupError, type LookupTrouble } from "./client/errors.ts";
export { type Binding, type BindOptions, bind } from "./form/bind.ts";
export { controlOf, isByPerson } from "./form/controls.ts";
export { POINT, type RenderedForm, type RenderOptions, renderForm } from "./form/render.ts";
export { type Located, type LocateOptions, locate, type NotLocated, watchDevice } from "./locate/locate.ts";
export { SHEET_NAMES } from "./map/controls.ts";
export { geoUri, type HandedOn, type HandOnTemplates, handOn } from "./map/hand-on.ts";
export {
  type Card,
  findMarker,
  type Marker,
  type MarkerEvent,
  type MarkerSource,
  type OwnPicture,
} from "./map/marker.ts";
export { type Followed, type MapLine, type MapMarker, type MapOptions, SheetMap } from "./map/sheet-map.ts";
export { readUrlView, writeUrlView } from "./map/url-view.ts";
export { SearchBox, type SearchBoxOptions } from "./search/box.ts";
export { SearchMachine, type SearchOptions, type SearchState } from "./search/machine.ts";
export type { TraceEvent } from "./trace.ts";
