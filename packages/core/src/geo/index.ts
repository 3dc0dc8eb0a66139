export { EARTH_RADIUS, sphereDistance } from "./distance.ts";
export { greatCircle } from "./great-circle.ts";
export { type HeightGrid, heightOn } from "./height-grid.ts";
export { MAX_LATITUDE, metresPerPixel, type Projected, project, TILE, unproject } from "./mercator.ts";
export { Outline } from "./outline.ts";
export { pointWithin, ringsContain, signedArea } from "./polygon.ts";
export {
  type Box,
  boxAround,
  boxAroundRings,
  boxContains,
  isPosition,
  type Position,
  type Ring,
  roundDegrees,
} from "./position.ts";
export { fromUtm, fromWebMercator, readUtmZone } from "./projected.ts";
export { readPosition } from "./read-position.ts";
