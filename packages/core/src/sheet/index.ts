export { SheetCutter } from "./cut.ts";
export type { SheetFeature, SheetGeometry, SheetLayer, SheetTile } from "./features.ts";
export { type Label, type LabelBox, labelsOf, placeLabels } from "./labels.ts";
export { drawLabels, fontOf, spacedText } from "./letter.ts";
export { paintTile, type TileName } from "./paint.ts";
export type { Painter } from "./painter.ts";
export { drawAim, drawGroup, drawMarker, type MarkerSign } from "./signs.ts";
export { DAY, NIGHT, type SheetStyle } from "./styles.ts";
