import { type AddressState, type FormDefinition, type RehearsalStep, stepWords } from "@bibliotope/core/form";
import type { KeptRehearsal, Rehearsed } from "@bibliotope/wire";
import { type FormEvent, useId, useState } from "react";
import { useDropRehearsalMutation, useKeepRehearsalMutation } from "../state/api.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { Alert } from "../ui/Alert.tsx";
import { Button } from "../ui/Button.tsx";
import { saveFile } from "../ui/save-file.ts";
import { KeptOne } from "./KeptOne.tsx";
import type { RunResult } from "./use-runs.ts";

interface RehearsalsProps {
  formRef: string;
  definition: FormDefinition;
  situation: Rehearsed;
  /** What the person has done so far. */
  steps: readonly RehearsalStep[];
  kept: readonly KeptRehearsal[];
  results: Readonly<Record<number, RunResult>>;
  /** What is in the fields now. */
  values: () => Record<string, string>;
  /** What each address is now. */
  states: () => Record<string, AddressState>;
  run: (rehearsals: readonly KeptRehearsal[]) => void;
  stop: () => void;
  close: () => void;
}

/** Steps that are kept with the form: to be kept, run again, and taken away as tests. */
export function Rehearsals(props: RehearsalsProps) {
  const { formRef, definition, kept, results, run, stop, close } = props;
  const [keep, keeping] = useKeepRehearsalMutation();
  const [drop] = useDropRehearsalMutation();
  const [dropped, setDropped] = useState<KeptRehearsal>();
  const isRunning = Object.values(results).some(({ state }) => state === "running");
  const states = kept.map(({ id }) => results[id]?.state);
  const changed = states.filter((state) => state === "changed").length;
  const done = changed + states.filter((state) => state === "passed").length;
  const saveAsTest = async () => {
    const { playwrightFile } = await import("./playwright-file.ts");
    saveFile(`${formRef}.spec.ts`, playwrightFile(definition, kept, `${SERVICE_URL}/f/${formRef}`), "text/typescript");
  };
  const store = ({ id: _, keptAt: __, ...rehearsal }: KeptRehearsal) => void keep({ ref: formRef, rehearsal });
  return (
    <aside
      id="rehearsals"
      aria-label="Rehearsals"
      className="flex min-h-0 flex-col overflow-y-auto border-l border-rule px-4 py-3.5"
      onKeyDown={(event) => event.key === "Escape" && close()}
    >
      <div className="flex items-center">
        <h2 className="font-serif text-lg font-semibold">Rehearsals</h2>
        <button type="button" className="ml-auto text-quiet underline" onClick={close}>
          Close
        </button>
      </div>
      <Keep {...props} keep={(rehearsal) => keep({ ref: formRef, rehearsal }).unwrap()} />
      <Alert error={keeping.error} className="mt-2 text-madder" />
      {kept.length ? (
        <>
          <div className="mt-5 flex items-center gap-2 border-t border-rule pt-3">
            <h3 className="font-semibold">Saved with this form</h3>
            <span role="status" className="ml-auto text-[12.5px] text-quiet">
              {done && !isRunning ? (changed ? `${changed} of ${done} changed` : `all ${done} passed`) : ""}
            </span>
          </div>
          <ul className="mt-1">
            {kept.map((one) => (
              <KeptOne
                key={one.id}
                rehearsal={one}
                definition={definition}
                result={results[one.id]}
                isBusy={isRunning}
                run={() => run([one])}
                expect={(expected, states) => store({ ...one, expected, states })}
                drop={() => {
                  setDropped(one);
                  void drop({ ref: formRef, id: one.id });
                }}
              />
            ))}
          </ul>
          <div className="mt-3 flex flex-wrap gap-2">
            {isRunning ? (
              <Button onClick={stop}>Stop</Button>
            ) : (
              <Button strong onClick={() => run(kept)}>
                Run all
              </Button>
            )}
            <Button onClick={() => void saveAsTest()}>Save as a Playwright test</Button>
          </div>
          <p className="mt-2 text-[12.5px] text-quiet">
            The test runs the same steps on the form’s own page, which shows the published version.
          </p>
        </>
      ) : null}
      {dropped ? (
        <p role="status" className="mt-3 text-[12.5px]">
          “{dropped.name}” was deleted.{" "}
          <button
            type="button"
            className="underline"
            onClick={() => {
              store(dropped);
              setDropped(undefined);
            }}
          >
            Undo
          </button>
        </p>
      ) : null}
    </aside>
  );
}

/** The steps so far, and what keeps them. */
function Keep({
  definition,
  situation,
  steps,
  kept,
  values,
  states,
  keep,
}: Pick<RehearsalsProps, "definition" | "situation" | "steps" | "kept" | "values" | "states"> & {
  keep: (rehearsal: Omit<KeptRehearsal, "id" | "keptAt">) => Promise<unknown>;
}) {
  const id = useId();
  const [name, setName] = useState("");
  const isTaken = kept.some((one) => one.name === name.trim());
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep({ name, situation, steps: [...steps], expected: values(), states: states() }).then(
      () => setName(""),
      () => undefined,
    );
  };
  if (!steps.length)
    return (
      <p className="mt-2 text-quiet">
        Use the form as a user would. Your steps appear here, so you can save and run them again.
      </p>
    );
  return (
    <form className="mt-2" onSubmit={submit}>
      <h3 className="font-semibold">Your steps so far</h3>
      <ol className="mt-1 max-h-[210px] list-decimal overflow-y-auto pl-5 text-[13px]">
        {steps.map((step, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps only ever come at the end
          <li key={place}>{stepWords(step, definition)}</li>
        ))}
      </ol>
      <label htmlFor={id} className="mt-3 mb-1 block text-[12.5px] text-quiet">
        Save the steps and current values as
      </label>
      <div className="flex gap-2">
        <input
          id={id}
          required
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
          className="h-[34px] min-w-0 flex-1 rounded border border-edge bg-field px-2.5"
        />
        <Button strong type="submit" disabled={!name.trim()}>
          Save
        </Button>
      </div>
      {isTaken ? <p className="mt-1 text-[12.5px] text-ochre">This replaces the rehearsal with that name.</p> : null}
    </form>
  );
}
