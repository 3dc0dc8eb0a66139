import {
  type AddressState,
  type Changed,
  type ChangedState,
  changedFields,
  changedStates,
  type FormDefinition,
  type Values,
} from "@bibliotope/core/form";
import type { KeptRehearsal } from "@bibliotope/wire";
import { useCallback, useState } from "react";

/** What came of a run of a rehearsal. */
export type RunResult =
  | { state: "waiting" }
  | { state: "running"; step: number }
  | { state: "passed" }
  | {
      state: "changed";
      changed: Changed[];
      changedStates: ChangedState[];
      /** What stood in the fields at the end. */
      found: Values;
      /** What each address was at the end. */
      states: Record<string, AddressState>;
      /** The step that could not be done, by place, and why. */
      failed?: { step: number; words: string };
    };

/** A rehearsal that is being run, or was run last. */
export interface Run {
  rehearsal: KeptRehearsal;
}

/** Runs rehearsals one after another, and keeps what came of each. */
export function useRuns() {
  const [run, setRun] = useState<Run>();
  const [queue, setQueue] = useState<readonly KeptRehearsal[]>([]);
  const [results, setResults] = useState<Readonly<Record<number, RunResult>>>({});
  const note = useCallback(
    (id: number, result: RunResult) => setResults((before) => ({ ...before, [id]: result })),
    [],
  );
  const start = useCallback((rehearsals: readonly KeptRehearsal[]) => {
    const [first, ...rest] = rehearsals;
    if (!first) return;
    setResults((before) => ({
      ...overResults(before),
      ...Object.fromEntries(rest.map(({ id }) => [id, { state: "waiting" }] as const)),
    }));
    setQueue(rest);
    setRun({ rehearsal: first });
  }, []);
  const next = useCallback(() => {
    const [first, ...rest] = queue;
    if (!first) return;
    setQueue(rest);
    setRun({ rehearsal: first });
  }, [queue]);
  /** Stops, and gives the form back to the person. */
  const stop = useCallback(() => {
    setRun(undefined);
    setQueue([]);
    setResults(overResults);
  }, []);
  // a step of what was stopped may have been noted just after
  return { run, results: run ? results : overResults(results), note, start, next, stop };
}

/** What came of runs that are over. */
export function overResults(results: Readonly<Record<number, RunResult>>): Record<number, RunResult> {
  return Object.fromEntries(
    Object.entries(results).filter(([, { state }]) => state === "passed" || state === "changed"),
  );
}

/** Fields whose values a rehearsal expects: those that a form stores. */
export function storedValues({ fields }: FormDefinition, values: Values): Record<string, string> {
  const stored = fields.filter(({ kind }) => !["button", "still", "map", "shown", "distance"].includes(kind));
  return Object.fromEntries(stored.flatMap(({ name }) => (values[name] === undefined ? [] : [[name, values[name]]])));
}

/** What came of a run that is over. */
export function resultOf(
  definition: FormDefinition,
  { expected, states: expectedStates = {} }: KeptRehearsal,
  found: Values,
  states: Record<string, AddressState>,
  failed?: { step: number; words: string },
): RunResult {
  const changed = changedFields(definition, expected, found);
  const otherStates = changedStates(expectedStates, states);
  return changed.length || otherStates.length || failed
    ? { state: "changed", changed, changedStates: otherStates, found, states, failed }
    : { state: "passed" };
}
