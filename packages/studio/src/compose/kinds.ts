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
  shown: "shown only",
  distance: "distance between two",
};

/** What a button does, in words. */
export const TASK_WORDS: Readonly<Record<ButtonTask, string>> = {
  look: "looks up what the fields say",
  locate: "finds this device, and offers the address there",
  exchange: "exchanges the two addresses",
  ask: "asks an outside service",
};
