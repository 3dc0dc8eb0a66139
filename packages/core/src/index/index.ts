export { SegmentBuilder } from "./builder.ts";
export { FORMAT, SegmentError } from "./container.ts";
export { buildPointTree, nearestPoints, type PointTree } from "./kd-tree.ts";
export { AREAS, GROUPS, NO_NUMBER, NONE, POSTCODES, REST, type SegmentMeta, type Source } from "./layout.ts";
export { countBits, hintOf, lettersOf } from "./letters.ts";
export { type Overlaid, Overlay, OverlayError } from "./overlay.ts";
export type { AddressInput, AreaInput, PlaceInput, PostcodeInput, RecordSink, StreetInput } from "./records.ts";
export { Segment } from "./segment.ts";
export { buildTrie, childOf, descend, descendWithOneError, endsWord, type Trie } from "./trie.ts";
