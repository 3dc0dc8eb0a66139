export {
  type Lookup,
  type LookupName,
  type LookupResults,
  type LookupState,
  type LookupValues,
  lookup,
} from "./lookup.ts";
