import type { BindOptions } from "@bibliotope/kit/form";

/** A form as the workbench's Take away gives it: when the town is left, street, number and town are looked up. */
export const DEFINITION: NonNullable<BindOptions["definition"]> = {
  title: "Members",
  fields: [
    { name: "way", kind: "text", label: "Street and number", binding: "{house} {street}" },
    { name: "place", kind: "text", label: "Town of the member", binding: "{town}" },
    { name: "code", kind: "text", label: "Code", binding: "{postcode}" },
  ],
  addresses: [{ name: "", start: { on: "complete", fields: ["way", "place"] } }],
};
