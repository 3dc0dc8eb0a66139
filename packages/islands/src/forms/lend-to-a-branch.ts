import type { FormDefinition } from "@bibliotope/core/form";

/** Two linked searches over branches; the map shows both, the line and how far it is. */
export const LEND_TO_A_BRANCH: FormDefinition = {
  title: "Lend to another branch",
  intro: "Books travel with the courier from one branch to another.",
  submit: "Ask for collection",
  fields: [
    { name: "book", kind: "text", label: "What is lent", required: true },
    { name: "from-find", kind: "search", label: "From", placeholder: "A branch or reading room", address: "from" },
    { name: "from-here", kind: "button", label: "Where I stand", task: "locate", address: "from" },
    { name: "from-line", kind: "shown", label: "It is collected at", binding: "{lines}", address: "from" },
    { name: "swap", kind: "button", label: "Exchange both ends", task: "exchange" },
    { name: "to-find", kind: "search", label: "To", placeholder: "A branch or reading room", address: "to" },
    { name: "to-here", kind: "button", label: "Where I stand", task: "locate", address: "to" },
    { name: "to-line", kind: "shown", label: "It is brought to", binding: "{lines}", address: "to" },
    { name: "far", kind: "distance", label: "How far it is" },
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
};
