export { TileCutter } from "./cut.ts";
export {
  COVERS,
  type Cover,
  type FeatureTile,
  type MapFeature,
  type MapGeometry,
  type MapLayer,
} from "./features.ts";
export { type MarkerGroup, MarkerGroups } from "./groups.ts";
export { hasLabel, type Label, type LabelBox, labelsOf, placeLabels, type Reading } from "./labels.ts";
export { lengthText } from "./length-text.ts";
export { drawLabels, fontOf, spacedText } from "./letter.ts";
export {
  type DevicePosition,
  drawOver,
  forgetWidths,
  type MapLine,
  type MapMarker,
  type Over,
  type SignedGroup,
  tabOf,
} from "./over.ts";
export {
  isPainted,
  MAP_STYLES,
  type MapStyle,
  type PaintOptions,
  paintInSlices,
  paintPart,
  paintTile,
  partOf,
  type TileName,
} from "./paint.ts";
export type { Painter } from "./painter.ts";
export { DAY, NIGHT, type Palette } from "./palettes.ts";
export type { MapPart } from "./pen.ts";
export {
  type PicturePart,
  type PictureTiles,
  pictureOrigin,
  picturePartOf,
  pictureTileUrl,
  pictureUrlTrouble,
} from "./picture-tiles.ts";
export { drawChosen, drawDevice, drawFrame } from "./place-signs.ts";
export { isRightToLeft } from "./right-to-left.ts";
export {
  digitWidth,
  drawAim,
  drawGroup,
  drawLine,
  drawMarker,
  drawSheaf,
  letterCount,
  type MarkerPicture,
  type MarkerSign,
} from "./signs.ts";
export { startingPositions } from "./starting.ts";
export {
  colourOfMean,
  MISSING_COLOUR,
  numberIn,
  type ScaleStep,
  type ValueScale,
  type ValueSizes,
  valueScale,
  valueSizes,
} from "./values.ts";
export {
  frameOf,
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
  zoomedInto,
} from "./view.ts";
