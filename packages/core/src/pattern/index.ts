export { formatPattern, type Lookup } from "./format.ts";
export {
  type Change,
  knownPattern,
  namesIn,
  type ParsedPattern,
  type Pattern,
  type PatternError,
  type PatternNode,
  parsePattern,
} from "./parse.ts";
