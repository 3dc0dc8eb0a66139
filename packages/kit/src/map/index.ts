export type { PictureTiles } from "@bibliotope/core/map";
export { STYLE_NAMES } from "./controls.ts";
export { geoUri, type HandedOn, type HandOnTemplates, handOn } from "./hand-on.ts";
export { InteractiveMap, type MapLine, type MapMarker } from "./interactive-map.ts";
export {
  type Card,
  type CardFact,
  findMarker,
  type Marker,
  type MarkerEvent,
  type MarkerSource,
  type OfGroup,
  type OwnPicture,
} from "./marker.ts";
export type { Followed, MapOptions } from "./options.ts";
export { StillControl, type StillPlace } from "./still-control.ts";
export { readUrlView, writeUrlView } from "./url-view.ts";
