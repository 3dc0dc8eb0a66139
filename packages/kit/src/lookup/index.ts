export {
  type Lookup,
  type LookupName,
  type LookupResults,
  type LookupState,
  type LookupValues,
  lookup,
  type ReverseParams,
} from "./lookup.ts";
