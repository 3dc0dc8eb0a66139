import { type AddressState, type FormDefinition, startingField, stepWords } from "@bibliotope/core/form";
import type { KeptRehearsal } from "@bibliotope/wire";
import { useState } from "react";
import { RowHead, Table } from "../ui/Table.tsx";
import { SITUATION_WORDS } from "./situations.ts";
import { type RunResult, storedValues } from "./use-runs.ts";

interface KeptOneProps {
  rehearsal: KeptRehearsal;
  definition: FormDefinition;
  result: RunResult | undefined;
  /** True while any is run. */
  isBusy: boolean;
  run: () => void;
  /** Takes other values as those to expect. */
  expect: (values: Record<string, string>, states: Record<string, AddressState>) => void;
  drop: () => void;
}

/** A kept rehearsal: its steps, what came of the last run, and in what that differs. */
export function KeptOne({ rehearsal, definition, result, isBusy, run, expect, drop }: KeptOneProps) {
  const [isOpen, setIsOpen] = useState(false);
  const { name, situation, steps } = rehearsal;
  const failedAt = result?.state === "changed" ? result.failed?.step : undefined;
  return (
    <li className="border-b border-rule py-2">
      <div className="flex items-baseline gap-2">
        <button
          type="button"
          aria-expanded={isOpen}
          className="min-w-0 flex-1 truncate text-left font-semibold"
          onClick={() => setIsOpen(!isOpen)}
        >
          {name}
        </button>
        <StateWords result={result} count={steps.length} />
        <button type="button" className="underline disabled:opacity-50" disabled={isBusy} onClick={run}>
          Run<span className="sr-only"> {name}</span>
        </button>
      </div>
      <p className="text-[12.5px] text-quiet">
        {steps.length === 1 ? "one step" : `${steps.length} steps`}
        {situation === "normal" ? "" : ` · ${SITUATION_WORDS[situation]}`}
      </p>
      {result?.state === "changed" ? (
        <div className="mt-1 text-[13px]">
          {result.failed ? (
            <p className="text-madder">
              Step {result.failed.step + 1} could not be done: {result.failed.words}.
            </p>
          ) : null}
          {result.changed.length || result.changedStates.length ? (
            <Differences {...result} definition={definition} />
          ) : null}
          {result.failed ? null : (
            <button
              type="button"
              className="mt-1 underline"
              onClick={() => expect(storedValues(definition, result.found), result.states)}
            >
              Accept the new values
            </button>
          )}
        </div>
      ) : null}
      {isOpen ? (
        <>
          <ol className="mt-1 list-decimal pl-5 text-[13px]">
            {steps.map((step, place) => (
              <li
                // biome-ignore lint/suspicious/noArrayIndexKey: kept steps do not change
                key={place}
                className={place === failedAt ? "text-madder" : ""}
              >
                {stepWords(step, definition)}
              </li>
            ))}
          </ol>
          <button type="button" className="mt-1 text-[12.5px] text-quiet underline" onClick={drop}>
            Delete<span className="sr-only"> {name}</span>
          </button>
        </>
      ) : null}
    </li>
  );
}

function StateWords({ result, count }: { result: RunResult | undefined; count: number }) {
  if (!result) return null;
  const looks = {
    waiting: ["text-quiet", "waiting"],
    running: ["text-quiet", result.state === "running" ? `step ${result.step + 1} of ${count}` : ""],
    passed: ["text-verdigris", "passed"],
    changed: ["text-madder", "changed"],
  } as const;
  const [colour, words] = looks[result.state];
  return <span className={`font-semibold text-[12.5px] ${colour}`}>{words}</span>;
}

function Differences({
  changed,
  changedStates,
  definition,
}: Pick<RunResult & { state: "changed" }, "changed" | "changedStates"> & { definition: FormDefinition }) {
  const label = (name: string) => definition.fields.find((field) => field.name === name)?.label ?? name;
  return (
    <Table heads={["Field", "Expected", "Found"]} className="w-full">
      {changed.map(({ field, expected, found }) => (
        <tr key={field} className="align-baseline">
          <RowHead>{label(field)}</RowHead>
          <td className="pr-3 break-words">{expected || "–"}</td>
          <td className="break-words text-madder">{found === undefined ? "no such field" : found || "–"}</td>
        </tr>
      ))}
      {changedStates.map(({ address, expected, found }) => (
        <tr key={`state ${address}`} className="align-baseline">
          <RowHead>{label(startingField(definition, address) ?? address) || "The address"} is</RowHead>
          <td className="pr-3">{expected}</td>
          <td className="text-madder">{found}</td>
        </tr>
      ))}
    </Table>
  );
}
