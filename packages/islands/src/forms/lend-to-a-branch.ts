import type { FormDefinition } from "@bibliotope/core/form";

/** Two linked searches over branches; the map shows both, the line and how far it is. */
export const LEND_TO_A_BRANCH: FormDefinition = {
  title: "Lend to another branch",
  intro: "Books travel with the courier from one branch to another.",
  submit: "Ask for collection",
  fields: [
    { name: "book", kind: "text", label: "What is lent", required: true },
    { name: "from-find", kind: "search", label: "From", placeholder: "A branch or reading room", address: "from" },
    { name: "from-here", kind: "button", label: "Use my location", task: "locate", address: "from" },
    { name: "from-line", kind: "shown", label: "Collection address", binding: "{lines}", address: "from" },
    { name: "swap", kind: "button", label: "Swap", task: "exchange" },
    { name: "to-find", kind: "search", label: "To", placeholder: "A branch or reading room", address: "to" },
    { name: "to-here", kind: "button", label: "Use my location", task: "locate", address: "to" },
    { name: "to-line", kind: "shown", label: "Delivery address", binding: "{lines}", address: "to" },
    { name: "far", kind: "distance", label: "Straight-line distance" },
    {
      name: "drive",
      kind: "shown",
      label: "The courier's way",
      binding: "[{route.metres} m, {route.minutes} min]",
    },
    { name: "day", kind: "choice", label: "Collected on", binding: "{courier.days}", half: true },
    { name: "before", kind: "shown", label: "Ready before", binding: "{courier.before}", half: true },
    { name: "patience", kind: "text", label: "Timeout for the tides, seconds", placeholder: "4", half: true },
    { name: "ask-tides", kind: "button", label: "Get the tides", task: "ask", half: true },
    { name: "tides", kind: "shown", label: "High water at the destination", binding: "{tides.high}" },
    { name: "ways", kind: "map", label: "On the map", address: "from" },
    { name: "from-ref", kind: "hidden", label: "From, ref", binding: "{ref}", address: "from" },
    { name: "from-position", kind: "hidden", label: "From, position", binding: "{position}", address: "from" },
    { name: "to-ref", kind: "hidden", label: "To, ref", binding: "{ref}", address: "to" },
    { name: "to-position", kind: "hidden", label: "To, position", binding: "{position}", address: "to" },
  ],
  addresses: [
    { name: "from", kinds: ["place"] },
    { name: "to", kinds: ["place"] },
  ],
  services: [
    { ask: "courier", called: "the courier", when: { on: "chosen" }, address: "from", with: { town: "{town}" } },
    {
      ask: "route",
      called: "the courier",
      when: { on: "complete", fields: ["from-position", "to-position"] },
      address: "to",
      with: { from: "{field.from-position}", to: "{field.to-position}" },
      draws: { line: "path", words: "by road {route.metres} m, {route.minutes} min" },
    },
    {
      ask: "tides",
      called: "the tide table",
      when: { on: "button", field: "ask-tides" },
      address: "to",
      with: { harbour: "{town}", patience: "{field.patience}" },
    },
  ],
};
