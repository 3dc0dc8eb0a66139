import type { ServiceOutcome, ValueKind } from "@bibliotope/core/service";
import type { ServiceSummary } from "@bibliotope/wire";
import { moment } from "../ui/moment.ts";

export const VALUE_WORDS: Readonly<Record<ValueKind, string>> = {
  text: "text",
  number: "number",
  date: "date",
  yesno: "yes or no",
  line: "line on a map",
};

/** How the call ended, and in which colour that is said. */
export const OUTCOME_WORDS: Readonly<Record<ServiceOutcome, [words: string, colour: string]>> = {
  answered: ["answered", "text-verdigris"],
  none: ["nothing found for these inputs", "text-quiet"],
  slow: ["too slow", "text-ochre"],
  down: ["does not answer", "text-madder"],
  refused: ["refused", "text-madder"],
  malformed: ["cannot be read", "text-madder"],
  outside: ["not called: outside its countries", "text-quiet"],
};

/** How a service does, in a sentence. */
export function stateWords({ how, at, words, answered, failed, median }: ServiceSummary["state"]): string {
  const times = `answered ${answered} ${answered === 1 ? "time" : "times"}`;
  if (how === "unasked") return "not called since the server started";
  if (how === "answering")
    return `${times}${failed ? `, failed ${failed}` : ""}${median === null ? "" : `, median ${median} ms`}`;
  if (how === "failing") return `failing since ${moment(at ?? "")}. ${words}`;
  const seconds = Math.max(1, Math.round((Date.parse(at ?? "") - Date.now()) / 1000));
  return `paused for ${seconds} more seconds. ${words}`;
}

export const STATE_COLOURS: Readonly<Record<ServiceSummary["state"]["how"], string>> = {
  unasked: "text-quiet",
  answering: "text-verdigris",
  failing: "text-ochre",
  alone: "text-madder",
};
