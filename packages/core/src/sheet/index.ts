export { SheetCutter } from "./cut.ts";
export type { SheetFeature, SheetGeometry, SheetLayer, SheetTile } from "./features.ts";
export { type MarkerGroup, MarkerGroups } from "./groups.ts";
export { type Label, type LabelBox, labelsOf, placeLabels } from "./labels.ts";
export { drawLabels, fontOf, spacedText } from "./letter.ts";
export { drawOver, forgetWidths, lengthText, type MapLine, type MapMarker, type Over } from "./over.ts";
export { paintPart, paintTile, type SheetPart, type TileName } from "./paint.ts";
export type { Painter } from "./painter.ts";
export { drawAim, drawGroup, drawLine, drawMarker, type MarkerSign } from "./signs.ts";
export { DAY, NIGHT, type SheetStyle } from "./styles.ts";
export {
  LEAST_ZOOM,
  MOST_ZOOM,
  originOf,
  type PlacedPart,
  type PlacedTile,
  panned,
  partsOf,
  type Size,
  scaleLength,
  squareToScreen,
  tilesOf,
  toPosition,
  toScreen,
  type View,
  viewOf,
  worldSize,
  zoomed,
} from "./view.ts";
