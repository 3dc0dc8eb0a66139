import type { Position } from "../geo/index.ts";
import type { Field, FormDefinition } from "./definition.ts";
import type { Values } from "./starts.ts";
import type { AddressState } from "./state.ts";

/** What a person does to a form. */
export type RehearsalStep =
  /** Types into a field until this is in it. */
  | { do: "type"; field: string; text: string }
  /** Leaves a field that was typed into. */
  | { do: "leave"; field: string }
  /** Takes a suggestion of a search field, by its line. */
  | { do: "take"; field: string; line: string }
  | { do: "select"; field: string; value: string }
  /** Presses a button of the form. */
  | { do: "press"; field: string }
  /** Chooses one of several addresses that fit, by its line. */
  | { do: "choose"; address: string; line: string }
  /** Wants what was typed. */
  | { do: "keep"; address: string }
  /** Presses the map, or puts the marker of an address there. */
  | { do: "point"; at: Position; address?: string };

/** Steps of a person, kept to be gone through again, and what is in the fields afterwards. */
export interface Rehearsal {
  name: string;
  /** What is played meanwhile, such as `slow`; `normal` for nothing. */
  situation: string;
  steps: RehearsalStep[];
  expected: Record<string, string>;
  /** What each address is then, by name (empty for the first); nothing is expected of one that is not here. */
  states?: Record<string, AddressState>;
}

/** A step further in what a person does: typing into one field goes on in one step. */
export function withStep(steps: readonly RehearsalStep[], step: RehearsalStep): RehearsalStep[] {
  const last = steps.at(-1);
  const replaces =
    last?.do === step.do &&
    ((step.do === "type" && last.do === "type" && last.field === step.field && last.text !== "") ||
      (step.do === "select" && last.do === "select" && last.field === step.field));
  return replaces ? [...steps.slice(0, -1), step] : [...steps, step];
}

/** A field that does not have what was expected. */
export interface Changed {
  field: string;
  expected: string;
  /** Undefined when the form has no such field any more. */
  found: string | undefined;
}

/** An address that is not what was expected. */
export interface ChangedState {
  address: string;
  expected: AddressState;
  found: AddressState;
}

/** Addresses that are not what was expected; one that the form has no more counts as empty. */
export function changedStates(
  expected: Readonly<Record<string, AddressState>>,
  found: Readonly<Record<string, AddressState>>,
): ChangedState[] {
  return Object.entries(expected)
    .map(([address, state]) => ({ address, expected: state, found: found[address] ?? "empty" }))
    .filter((one) => one.expected !== one.found);
}

/** True for a field that holds when a register was requested: it is another one each time. */
export function isOfTheMoment({ binding = "" }: Pick<Field, "binding">): boolean {
  return /\.asked\b/.test(binding);
}

/** Fields that differ from what was expected, in the order of the form; those that are gone come last. Moments are not compared. */
export function changedFields(
  { fields }: FormDefinition,
  expected: Readonly<Record<string, string>>,
  found: Values,
): Changed[] {
  const rank = (name: string) => (fields.findIndex((field) => field.name === name) + 1 || fields.length + 1) - 1;
  const ofTheMoment = new Set(fields.filter(isOfTheMoment).map(({ name }) => name));
  return Object.entries(expected)
    .filter(([field, value]) => found[field] !== value && !ofTheMoment.has(field))
    .sort(([a], [b]) => rank(a) - rank(b))
    .map(([field, value]) => ({ field, expected: value, found: found[field] }));
}

/** A step in words. */
export function stepWords(step: RehearsalStep, { fields }: FormDefinition): string {
  const label = (name: string) => fields.find((field) => field.name === name)?.label ?? name;
  switch (step.do) {
    case "type":
      return step.text === "" ? `Empty ${label(step.field)}` : `Type “${step.text}” into ${label(step.field)}`;
    case "leave":
      return `Leave ${label(step.field)}`;
    case "take":
      return `Choose “${step.line}” from the suggestions of ${label(step.field)}`;
    case "select":
      return `Choose ${optionLabel(step.value)} in ${label(step.field)}`;
    case "press":
      return `Click ${label(step.field)}`;
    case "choose":
      return `Choose “${step.line}” from the matches`;
    case "keep":
      return "Use what was typed";
    case "point":
      return `Click ${step.at.lat.toFixed(5)}, ${step.at.lon.toFixed(5)} on the map`;
  }

  function optionLabel(value: string): string {
    const options = fields.flatMap((field) => field.options ?? []);
    return `“${options.find((option) => option.value === value)?.label ?? value}”`;
  }
}
