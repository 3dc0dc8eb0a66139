export { Client, type ClientOptions } from "./client/client.ts";
export { LookupError, type LookupTrouble } from "./client/errors.ts";
export {
  defineElements,
  FOUND,
  LOST,
  MARKER,
  MapElement,
  PICKED,
  PickerElement,
  PRESSED,
  SearchElement,
  StillElement,
} from "./elements/index.ts";
export { type BindTokensOptions, bindTokens, fillByTokens } from "./fill/index.ts";
export * from "./form/index.ts";
export { type Located, type LocateOptions, locate, type NotLocated, watchDevice } from "./locate/locate.ts";
export * from "./lookup/index.ts";
export * from "./map/index.ts";
export * from "./picker/index.ts";
export * from "./search/index.ts";
export type { TraceEvent } from "./trace.ts";
export * from "./values/index.ts";
export { type ByNumber, loadWords, setWords, WORD_LANGUAGES, type Words } from "./words/index.ts";
