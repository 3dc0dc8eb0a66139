export {
  type Lookup,
  type LookupName,
  type LookupResults,
  type LookupState,
  type LookupValues,
  lookup,
  type ReverseAsked,
} from "./lookup.ts";
