import type { FormDefinition } from "@bibliotope/core/form";

/** One search box and plain fields, in any of the three countries; a second address where letters go. */
export const BECOME_A_READER: FormDefinition = {
  title: "Become a reader",
  intro: "A reader's card is free and good in every branch of the islands.",
  submit: "Send",
  fields: [
    { name: "reader", kind: "text", label: "Your name", autofill: "name", required: true },
    { name: "find", kind: "search", label: "Find your address", placeholder: "Street and number, or a place" },
    { name: "street", kind: "text", label: "Street and number", autofill: "address-line1", required: true },
    { name: "flat", kind: "text", label: "Flat, floor", autofill: "address-line2", binding: "{unit}", half: true },
    { name: "town", kind: "text", label: "Town", autofill: "address-level2", binding: "{town}", half: true },
    { name: "postcode", kind: "text", label: "Postcode", autofill: "postal-code", binding: "{postcode}", half: true },
    { name: "country", kind: "country", label: "Country", autofill: "country", binding: "{country.code}", half: true },
    { name: "place", kind: "map", label: "On the map", help: "Click the house if the search does not know it." },
    { name: "position", kind: "hidden", label: "Position", binding: "{position}" },
    { name: "exactness", kind: "hidden", label: "Exactness", binding: "{exactness}" },
    { name: "confirmed", kind: "hidden", label: "Confirmed", binding: "{confirmed}" },
    {
      name: "letters",
      kind: "choice",
      label: "Letters go",
      options: [
        { value: "here", label: "to this address" },
        { value: "elsewhere", label: "elsewhere" },
      ],
    },
    {
      name: "find-letters",
      kind: "search",
      label: "Find where letters go",
      address: "letters",
      placeholder: "Street and number, or a place",
      show: { field: "letters", is: "elsewhere" },
    },
    {
      name: "letters-lines",
      kind: "text",
      label: "Street, number and town of letters",
      autofill: "section-letters street-address",
      address: "letters",
      binding: "{line}",
      show: { field: "letters", is: "elsewhere" },
    },
    {
      name: "letters-confirmed",
      kind: "hidden",
      label: "Letters confirmed",
      address: "letters",
      binding: "{confirmed}",
    },
  ],
};
