import type { FormDefinition } from "@bibliotope/core/form";

/** No address out there: a marker, the aim or the device's position; what lies beside it is shown. */
export const SUGGEST_A_STOP: FormDefinition = {
  title: "Suggest a stop for the van",
  intro: "Click the map where the van should stop, drag the marker, or use your location.",
  submit: "Suggest it",
  fields: [
    { name: "place", kind: "map", label: "Where the van should stop" },
    { name: "here", kind: "button", label: "Use my location", task: "locate" },
    { name: "beside", kind: "shown", label: "Address", binding: "{line}" },
    { name: "position", kind: "text", label: "Position", binding: "{position}", required: true, half: true },
    { name: "height", kind: "shown", label: "Height", binding: "{height} m above the sea", half: true },
    { name: "room", kind: "shown", label: "Nearest reading room", binding: "{nearby}[, {away} away]" },
    { name: "why", kind: "text", label: "Reasons", help: "Shade, room to turn, a school nearby." },
    { name: "sign", kind: "text", label: "Your name", autofill: "name" },
    { name: "exactness", kind: "hidden", label: "Exactness", binding: "{exactness}" },
  ],
  addresses: [{ name: "", start: { on: "never" }, anywhere: true, nearby: "reading room" }],
};
