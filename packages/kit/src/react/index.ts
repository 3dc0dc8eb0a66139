"use client";

export {
  AddressForm,
  type AddressFormProps,
  DefinedForm,
  type DefinedFormProps,
  type FormDefinition,
  MapView,
  type MapViewProps,
  SearchField,
  type SearchFieldProps,
  Still,
  type StillProps,
} from "./components.tsx";
export type { ElementProps } from "./elements.ts";
export { BibliotopeProvider, type ServiceProps, useClient } from "./service.tsx";
export {
  type UsedLookup,
  type UseLookupOptions,
  useDistance,
  useForward,
  useHeight,
  useRecord,
  useReverse,
} from "./use-lookup.ts";
export { type Search, type UseSearchOptions, useSearch } from "./use-search.ts";
