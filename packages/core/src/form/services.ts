import type { Position } from "../geo/index.ts";
import type { Lookup } from "../pattern/index.ts";
import { PARTS, type PartName, type Parts } from "../place/index.ts";
import { type Filling, lookupIn, namesOf, written } from "./binding.ts";
import { type FormAnswer, type FormDefinition, isOfServices, type ServiceRule } from "./definition.ts";
import type { Values } from "./starts.ts";

/** What services have answered so far: their values, by the names of the services. */
export type ServiceAnswers = Readonly<Record<string, Readonly<Record<string, string | readonly string[]>>>>;

/** What a rule asks with: parts of the address, values of other services, what is in fields. Empty ones are left out. */
export function serviceInputs(
  { with: inputs }: ServiceRule,
  values: Values,
  answer: FormAnswer | undefined,
  answers: ServiceAnswers = {},
): Record<string, string> {
  const ofAddress: Lookup = answer ? lookupIn(answer) : () => undefined;
  const lookup: Lookup = (name) => {
    if (name.startsWith("field.")) return values[name.slice("field.".length)];
    return ofServices(answers, name) ?? ofAddress(name);
  };
  return Object.fromEntries(
    Object.entries(inputs).flatMap(([input, pattern]) => {
      const value = written(pattern, lookup).replaceAll("\n", ", ");
      return value ? [[input, value]] : [];
    }),
  );
}

function ofServices(answers: ServiceAnswers, name: string): string | readonly string[] | undefined {
  const [service, value] = name.split(".");
  if (value === undefined || !Object.hasOwn(answers, service)) return undefined;
  return Object.hasOwn(answers[service], value) ? answers[service][value] : undefined;
}

/** What the fields that name a service get, all services' values in them; nothing where it has none. */
export function serviceFillings(
  { fields }: FormDefinition,
  service: string,
  answers: ServiceAnswers,
): (Filling & { options?: readonly string[] })[] {
  return fields.flatMap((field) => {
    if (!isOfServices(field) || !namesOf(field).includes(service)) return [];
    const value = written(field.binding!, (name) => ofServices(answers, name));
    const lines = value ? value.split("\n") : [];
    // of a list something is chosen; a line of text takes it with commas
    if (field.kind === "choice") return [{ field: field.name, value: "", options: lines }];
    return [{ field: field.name, value: field.kind === "shown" ? value : lines.join(", ") }];
  });
}

/** The line that a rule draws, and the words at it; undefined where the service has none. */
export function serviceLine(
  { ask, draws }: ServiceRule,
  answers: ServiceAnswers,
): { points: Position[]; words: string } | undefined {
  const text = draws && ofServices(answers, `${ask}.${draws.line}`);
  if (!draws || typeof text !== "string" || !text) return undefined;
  const points = text.split(" ").map((pair): Position => {
    const [lat, lon] = pair.split(",").map(Number);
    return { lat, lon };
  });
  return { points, words: written(draws.words ?? "", (name) => ofServices(answers, name)) };
}

/** The rules whose registers confirm an address, in their order: the first one that covers its territory answers for it. */
export const registersOf = ({ services = [] }: FormDefinition, address = ""): ServiceRule[] =>
  services.filter((rule) => rule.register && (rule.address ?? "") === address);

/** An address as a register has it: the parts that it names take the place of those that were found. */
export function officialAnswer(
  answer: FormAnswer,
  values: Readonly<Record<string, string | readonly string[]>>,
): { answer: FormAnswer; parts: PartName[] } {
  const differing = PARTS.filter((part) => {
    const value = values[part];
    return typeof value === "string" && value !== "" && value !== (answer.parts[part]?.name ?? "");
  });
  let { line, lines, autofill } = answer;
  const parts: Parts = { ...answer.parts };
  for (const part of differing) {
    const [before, now] = [answer.parts[part]?.name, String(values[part])];
    parts[part] = { ...parts[part], name: now };
    // names of other languages and short forms are those of the name before
    delete parts[part]!.abbr;
    if (!before) continue;
    const put = (text: string) => text.replace(before, () => now);
    line = put(line);
    lines = lines?.map(put);
    autofill = Object.fromEntries(Object.entries(autofill).map(([token, text]) => [token, put(text as string)]));
  }
  return { answer: { ...answer, parts, line, lines, autofill }, parts: differing };
}
