import type { FormDefinition } from "@bibliotope/core/form";

/** No address out there: a marker, the aim or the device's position; what lies beside it is shown. */
export const SUGGEST_A_STOP: FormDefinition = {
  title: "Suggest a stop for the van",
  intro: "Press the map where the van should stop, drag the marker, or show where you stand.",
  submit: "Suggest it",
  fields: [
    { name: "place", kind: "map", label: "Where the van should stop" },
    { name: "here", kind: "button", label: "Where I stand", task: "locate" },
    { name: "beside", kind: "shown", label: "Beside", binding: "{line}" },
    { name: "position", kind: "text", label: "Position", binding: "{position}", required: true, half: true },
    { name: "height", kind: "shown", label: "Height", binding: "{height} m above the sea", half: true },
    { name: "room", kind: "shown", label: "Nearest reading room", binding: "{nearby}[, {away} away]" },
    { name: "why", kind: "text", label: "What speaks for it", help: "Shade, room to turn, a school near by." },
    { name: "sign", kind: "text", label: "Your name", autofill: "name" },
    { name: "exactness", kind: "hidden", label: "Exactness", binding: "{exactness}" },
  ],
  addresses: [{ name: "", start: { on: "never" }, anywhere: true, nearby: "reading room" }],
};
