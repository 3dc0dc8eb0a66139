import type { FormDefinition } from "@bibliotope/core/form";

/** The country first, which decides labels, order and the postcode's shape; a button looks it up. */
export const BOOKS_ABROAD: FormDefinition = {
  title: "Books abroad",
  intro: "Books go by boat to any of the three countries.",
  submit: "Send them",
  fields: [
    {
      name: "country",
      kind: "country",
      label: "Country",
      autofill: "country",
      binding: "{country.code}",
      required: true,
    },
    { name: "person", kind: "text", label: "For whom", autofill: "name" },
    { name: "region", kind: "text", label: "Region", binding: "{region}" },
    { name: "town", kind: "text", label: "Town", binding: "{town}", half: true },
    { name: "postcode", kind: "text", label: "Postcode", autofill: "postal-code", binding: "{postcode}", half: true },
    { name: "street", kind: "text", label: "Street", binding: "{street}" },
    { name: "block", kind: "text", label: "Block", binding: "{block}", half: true },
    { name: "house", kind: "text", label: "House", binding: "{house}", half: true },
    { name: "building", kind: "text", label: "Building", binding: "{building}", half: true },
    { name: "look", kind: "button", label: "Look up" },
    { name: "envelope", kind: "shown", label: "On the envelope", binding: "{lines}" },
    { name: "map", kind: "map", label: "On the map" },
    { name: "confirmed", kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
  ],
  addresses: [{ name: "", start: { on: "button", field: "look" }, countryFirst: true }],
};
