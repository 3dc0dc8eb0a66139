import { Segment } from "@bibliotope/core/index";
import { Engine } from "@bibliotope/core/search";
import { generateIslands, segmentOfWorld } from "../src/index.ts";

/** The islands and an engine that knows them, made once for all tests of a worker. */
export const islands = generateIslands();
export const islandsEngine = new Engine(new Segment(segmentOfWorld(islands)));
