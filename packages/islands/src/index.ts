export { SAMPLE_FORMS } from "./forms/index.ts";
export { generateIslands, WORLD_VERSION } from "./generate.ts";
export { STREAMED_BOXES, streamIslands } from "./large/stream.ts";
export { Random } from "./random.ts";
export { pourWorld, segmentOfWorld } from "./to-segment.ts";
export type {
  Geometry,
  Layer,
  World,
  WorldAddress,
  WorldArea,
  WorldFeature,
  WorldPlace,
  WorldPostcode,
  WorldStreet,
} from "./world.ts";
