import type { ButtonTask, FieldKind } from "@bibliotope/core/form";

/** What the kinds of field are called where one is added. */
export const KIND_WORDS: Readonly<Record<FieldKind, string>> = {
  text: "text",
  search: "search",
  country: "country",
  choice: "choice",
  button: "button",
  hidden: "unseen",
  still: "picture of the place",
  map: "map",
  shown: "display only",
  distance: "distance between two addresses",
};

/** What a button does, in words. */
export const TASK_WORDS: Readonly<Record<ButtonTask, string>> = {
  look: "looks up the fields",
  locate: "finds the device and suggests its address",
  exchange: "swaps the two addresses",
  ask: "calls an outside service",
};
