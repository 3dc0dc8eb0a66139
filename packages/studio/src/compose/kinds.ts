import type { Field, FieldKind } from "@bibliotope/core/form";

/** What the kinds of field are called where one is added. */
export const KIND_WORDS: Readonly<Record<FieldKind, string>> = {
  text: "text",
  search: "search",
  country: "country",
  choice: "choice",
  button: "button that looks up",
  hidden: "unseen",
  still: "picture of the place",
  map: "map",
  shown: "shown only",
};

/** True for kinds of field that parts and facts may fill. */
export function isFilled({ kind }: Field): boolean {
  return kind === "text" || kind === "country" || kind === "choice" || kind === "hidden" || kind === "shown";
}
