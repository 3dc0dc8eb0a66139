export {
  type AddressInput,
  type AreaInput,
  type PlaceInput,
  type PostcodeInput,
  SegmentBuilder,
  type StreetInput,
} from "./builder.ts";
export { FORMAT, SegmentError } from "./container.ts";
export { buildPointTree, nearestPoints, type PointTree } from "./kd-tree.ts";
export { AREAS, GROUPS, NO_NUMBER, NONE, POSTCODES, REST, type SegmentMeta, type Source } from "./layout.ts";
export { countBits, lettersOf } from "./letters.ts";
export { Segment } from "./segment.ts";
export { buildTrie, childOf, descend, descendWithOneError, endsWord, type Trie } from "./trie.ts";
