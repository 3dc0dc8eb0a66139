import type { FormDefinition } from "@bibliotope/core/form";

/** Separate fields, looked up when house, street and town are complete; position and exactness are kept unseen. */
export const OFFER_A_HOUSE: FormDefinition = {
  title: "Offer a house for an evening",
  intro: "An author, a lamp and thirty chairs: lend your rooms for a reading.",
  submit: "Offer it",
  fields: [
    { name: "host", kind: "text", label: "Your name", autofill: "name", required: true },
    { name: "street", kind: "text", label: "Street", binding: "{street or block or place}", required: true },
    { name: "house", kind: "text", label: "House", binding: "{house or building}", required: true, half: true },
    { name: "unit", kind: "text", label: "Flat", autofill: "address-line2", binding: "{unit}", half: true },
    { name: "town", kind: "text", label: "Town", autofill: "address-level2", binding: "{town}", required: true },
    { name: "postcode", kind: "text", label: "Postcode", autofill: "postal-code", binding: "{postcode}", half: true },
    { name: "country", kind: "country", label: "Country", autofill: "country", binding: "{country.code}", half: true },
    { name: "seats", kind: "text", label: "Chairs", half: true },
    { name: "map", kind: "map", label: "On the map" },
    { name: "position", kind: "hidden", label: "Position", binding: "{position}" },
    { name: "exactness", kind: "hidden", label: "Exactness", binding: "{exactness}" },
    { name: "confirmed", kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
    { name: "plot", kind: "hidden", label: "Plot", binding: "{register.number}" },
    { name: "registered", kind: "hidden", label: "Register asked", binding: "{register.asked}" },
  ],
  addresses: [
    {
      name: "",
      start: { on: "complete", fields: ["street", "house", "town"] },
      exactness: "between",
      none: "We could not find that house. Check the spelling, or carry on: we will look it up by hand.",
    },
  ],
  services: [
    {
      ask: "register",
      called: "the land register",
      when: { on: "chosen" },
      with: { house: "{house}", street: "{street}", town: "{town}", country: "{country.code}" },
      register: "ask",
    },
  ],
};
