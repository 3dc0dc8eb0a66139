import { MOST_LIMIT, type Service, type ServiceInput, USUAL_LIMIT } from "./service.ts";
import { textOf } from "./values.ts";

/** What is wrong with an input. */
export interface InputIssue {
  name: string;
  message: string;
}

/** Finds what of the inputs is missing, unknown, or not of the kind. */
export function checkInputs(
  { inputs }: Pick<Service, "inputs">,
  given: Readonly<Record<string, string>>,
): InputIssue[] {
  const unknown = Object.keys(given).filter((name) => !inputs.some((input) => input.name === name));
  return [
    ...unknown.map((name) => ({ name: name.slice(0, 60), message: "is no input of this service" })),
    ...inputs.flatMap((input) => issueOf(input, given[input.name] ?? "") ?? []),
  ];
}

function issueOf({ name, kind, required }: ServiceInput, value: string): InputIssue | undefined {
  if (value.trim() === "") return required ? { name, message: "is missing" } : undefined;
  if (kind === "number" && !Number.isFinite(Number(value))) return { name, message: "is no number" };
  if (kind === "line" && textOf(value, "line") === undefined) return { name, message: "is no line: LAT,LON LAT,LON" };
  if (kind === "date" && (!/^\d{4}-\d\d-\d\d$/.test(value) || Number.isNaN(Date.parse(value))))
    return { name, message: "is no date as 2026-06-01" };
  if (kind === "yesno" && value !== "yes" && value !== "no") return { name, message: "is neither yes nor no" };
  return undefined;
}

/** Milliseconds after which a service is given up. @param usual seconds, where it has no limit of its own */
export function timeLimitOf(
  { timeLimit, timeLimitFrom }: Pick<Service, "timeLimit" | "timeLimitFrom">,
  given: Readonly<Record<string, string>>,
  usual = USUAL_LIMIT,
): number {
  const written = timeLimitFrom === undefined ? Number.NaN : Number.parseFloat(given[timeLimitFrom] ?? "");
  const seconds = written > 0 ? written : (timeLimit ?? usual);
  return Math.min(MOST_LIMIT, Math.max(0.1, seconds)) * 1000;
}
