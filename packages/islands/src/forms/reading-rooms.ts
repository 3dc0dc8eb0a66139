import type { FormDefinition } from "@bibliotope/core/form";

/** Search for places: a card with picture, hours, step-free access and languages. */
export const READING_ROOMS: FormDefinition = {
  title: "Reading rooms near you",
  intro: "Find a reading room, and when it is open.",
  fields: [
    { name: "find", kind: "search", label: "Find a reading room", placeholder: "Its name, or the town" },
    { name: "room", kind: "shown", label: "Reading room", binding: "{line}" },
    { name: "picture", kind: "still", label: "Address" },
    { name: "hours", kind: "shown", label: "Open", binding: "{hours}" },
    { name: "stepfree", kind: "shown", label: "Step-free access", binding: "{stepfree}", half: true },
    { name: "languages", kind: "shown", label: "Languages", binding: "{languages:upper}", half: true },
    { name: "phone", kind: "shown", label: "Phone", binding: "{phone}" },
    { name: "map", kind: "map", label: "On the map" },
    { name: "position", kind: "hidden", label: "Position", binding: "{position}" },
    { name: "ref", kind: "hidden", label: "Reference", binding: "{ref}" },
  ],
  addresses: [{ name: "", kinds: ["place"], none: "There is no reading room with that name. Try the town." }],
};
