import {
  type AddressState,
  type FormDefinition,
  goingOut,
  type RehearsalStep,
  type Values,
} from "@bibliotope/core/form";
import { type RenderedForm, renderForm, type TraceEvent } from "@bibliotope/kit";
import { CannotDrive, FormDriver } from "@bibliotope/kit/testing";
import type { Rehearsed } from "@bibliotope/wire";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Gutter } from "../forms/Gutter.tsx";
import { useClient, useCountries } from "../forms/use-client.ts";
import { Wires } from "../forms/Wires.tsx";
import { wiresOf } from "../forms/wires-of.ts";
import { answers } from "../state/answer.slice.ts";
import { useRehearsalsQuery } from "../state/api.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { trace } from "../state/trace.slice.ts";
import { TraceView } from "../trace/TraceView.tsx";
import { Button } from "../ui/Button.tsx";
import { partColour } from "../ui/part-colour.ts";
import { Segmented } from "../ui/Segmented.tsx";
import { useLatest } from "../ui/use-latest.ts";
import { playSteps } from "./play-steps.ts";
import { Rehearsals } from "./Rehearsals.tsx";
import { StepRecorder } from "./record-steps.ts";
import { SendPanel } from "./SendPanel.tsx";
import {
  ofServicesAlone,
  playedCalls,
  playedDevice,
  SITUATION_WORDS,
  WIDTHS,
  type Width,
  wireSituation,
} from "./situations.ts";
import { resultOf, storedValues, useRuns } from "./use-runs.ts";

/** The form as its users meet it, run by the kit that ships; the parts, the map and what happened beside it. */
export function RehearseView() {
  const formRef = useStudio(({ draft }) => draft.ref);
  const definition = useStudio(({ draft }) => draft.definition);
  const answer = useStudio(({ answer }) => answer.answer);
  const dispatch = useStudioDispatch();
  const listeners = useRef(new Set<(event: TraceEvent) => void>());
  const heard = useCallback(
    (event: TraceEvent) => {
      dispatch(trace.happened(event));
      for (const listener of listeners.current) listener(event);
    },
    [dispatch],
  );
  const quiet = useClient();
  const [chosen, setChosen] = useState<Rehearsed>("normal");
  const [width, setWidth] = useState<Width>("desk");
  const [opened, setOpened] = useState<"rehearsals" | "send">();
  const [going, setGoing] = useState<ReturnType<typeof goingOut>>();
  const [steps, setSteps] = useState<readonly RehearsalStep[]>([]);
  const [anew, setAnew] = useState(0);
  /** Values of a stored record that the form is opened on. */
  const [record, setRecord] = useState<Values>();
  const { data: kept = [] } = useRehearsalsQuery(formRef);
  const { run, results, note, start, next, stop } = useRuns();
  const rehearsed = run ? run.rehearsal.situation : chosen;
  const client = useClient(heard, wireSituation(rehearsed), playedCalls(rehearsed));
  const countries = useCountries(quiet);
  const spread = useRef<HTMLDivElement>(null);
  const page = useRef<HTMLDivElement>(null);
  const mapPlace = useRef<HTMLDivElement>(null);
  const rendered = useRef<RenderedForm>(undefined);
  const wires = useMemo(() => wiresOf(definition, answer), [definition, answer]);
  const following = useLatest(next);
  const isSending = useLatest(opened === "send");
  const show = useCallback(() => {
    if (rendered.current && isSending.current) setGoing(sentBy(rendered.current, definition));
  }, [definition]);
  useEffect(() => {
    if (opened === "send") show();
  }, [opened, show]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: `anew` asks for a form with nothing in it
  useEffect(() => {
    if (!client || !countries || !page.current || !mapPlace.current) return;
    const ended = new AbortController();
    const driver = run && new FormDriver({ signal: ended.signal });
    // what is done to a stored record cannot be gone through again from an empty form
    const recorder = run || record ? undefined : new StepRecorder(setSteps);
    setSteps([]);
    const listen = (event: TraceEvent) => {
      driver?.trace(event);
      recorder?.heard(event);
      if (event.row === "fields") queueMicrotask(show);
    };
    listeners.current.add(listen);
    const made = renderForm(page.current, definition, {
      client,
      countries,
      record: run ? undefined : record,
      trace: heard,
      isByPerson: driver?.isByPerson,
      mapIn: mapPlace.current,
      geolocation: playedDevice(rehearsed),
      filled: (found) => dispatch(answers.filled(found)),
      cleared: () => dispatch(answers.cleared()),
    });
    rendered.current = made;
    // after the kit has heard it
    for (const heard of ["input", "change", "click"])
      made.form.addEventListener(heard, () => queueMicrotask(show), { signal: ended.signal });
    made.form.addEventListener("submit", () => setOpened("send"), { signal: ended.signal });
    show();
    recorder?.listen(made.form, ended.signal);
    if (!run && !record) made.form.querySelector<HTMLInputElement>("[role=combobox]")?.focus();
    const perform = async ({ rehearsal }: NonNullable<typeof run>, driver: FormDriver) => {
      let at = 0;
      const failed = await playSteps(driver, made, rehearsal.steps, (step) => {
        at = step;
        note(rehearsal.id, { state: "running", step });
      }).then(
        () => undefined,
        (error: unknown) => {
          if (error instanceof CannotDrive) return { step: at, words: error.message };
          throw error;
        },
      );
      dispatch(trace.ended());
      note(
        rehearsal.id,
        resultOf(definition, rehearsal, made.binding.values(), statesOf(sentBy(made, definition)), failed),
      );
      following.current();
    };
    if (run && driver) {
      dispatch(trace.began(run.rehearsal.name));
      perform(run, driver).catch((error: unknown) => {
        if (!ended.signal.aborted) throw error;
        dispatch(trace.wiped());
      });
    }
    return () => {
      ended.abort();
      listeners.current.delete(listen);
      made.destroy();
      dispatch(answers.cleared());
    };
  }, [client, countries, definition, heard, rehearsed, run, record, anew, note, show, dispatch]);

  // each field carries the colour of the part that fills it
  useEffect(() => {
    for (const { field, part } of wires.toReversed()) {
      page.current
        ?.querySelector<HTMLElement>(`[data-field="${CSS.escape(field)}"]`)
        ?.style.setProperty("--bt-part", partColour(part));
    }
  }, [wires]);

  useEffect(() => {
    spread.current?.style.setProperty("--form-width", `${WIDTHS[width]}px`);
  }, [width]);

  const openStored = () => {
    const values = storedValues(definition, rendered.current?.binding.values() ?? {});
    stop();
    dispatch(trace.wiped());
    setRecord(values);
  };
  const beginAnew = () => {
    stop();
    setRecord(undefined);
    setAnew((times) => times + 1);
  };
  const hasMap = definition.fields.some(({ kind, opens }) => kind === "map" && !opens);
  return (
    <>
      <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-2 pb-2">
        <Segmented
          label="Width"
          value={width}
          onChange={setWidth}
          options={[
            ["desk", "Desk"],
            ["tablet", "Tablet"],
            ["phone", "Phone"],
          ]}
        />
        <label className="inline-flex items-center gap-2 text-quiet">
          Situation
          <select
            className="h-[28px] rounded border border-edge bg-field px-1.5 text-ink"
            value={rehearsed}
            onChange={(event) => {
              stop();
              setChosen(event.target.value as Rehearsed);
            }}
          >
            {(Object.entries(SITUATION_WORDS) as [Rehearsed, string][])
              .filter(([value]) => definition.services?.length || !ofServicesAlone(value))
              .map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
          </select>
        </label>
        {rehearsed === "normal" ? null : (
          <span role="status" className="text-ochre">
            Simulated: {SITUATION_WORDS[rehearsed]}
          </span>
        )}
        <span className="ml-auto flex items-center gap-2.5 max-[640px]:ml-0">
          {record && !run ? <span role="status">Stored record</span> : null}
          {answer ? (
            <button type="button" className="text-quiet underline" onClick={openStored}>
              Open a stored record
            </button>
          ) : null}
          {run || record || steps.length ? (
            <button type="button" className="text-quiet underline" onClick={beginAnew}>
              Start over
            </button>
          ) : null}
          <Button
            aria-expanded={opened === "send"}
            aria-controls="would-send"
            onClick={() => setOpened(opened === "send" ? undefined : "send")}
          >
            Submitted values
          </Button>
          <Button
            aria-expanded={opened === "rehearsals"}
            aria-controls="rehearsals"
            onClick={() => setOpened(opened === "rehearsals" ? undefined : "rehearsals")}
          >
            Rehearsals{kept.length ? ` (${kept.length})` : ""}
          </Button>
        </span>
      </div>
      <div
        ref={spread}
        className={`relative grid min-h-0 flex-1 overflow-hidden rounded-md border border-rule bg-page max-[900px]:grid-cols-1 ${
          opened
            ? "grid-cols-[var(--form-width,374px)_232px_minmax(0,1fr)_340px]"
            : "grid-cols-[var(--form-width,374px)_232px_minmax(0,1fr)]"
        }`}
      >
        <section aria-label="Form" data-page ref={page} className="min-h-0 overflow-y-auto px-[22px] py-4" />
        <Gutter title="Address parts" answer={answer} bound={new Set(wires.map(({ part }) => part))} />
        <section aria-label="Map" ref={mapPlace} className="relative min-h-[300px]">
          {hasMap ? null : <p className="p-6 text-quiet">This form has no map. Add a map field in Compose.</p>}
        </section>
        <Wires inside={spread} wires={wires} />
        {opened === "send" && going ? (
          <SendPanel definition={definition} going={going} close={() => setOpened(undefined)} />
        ) : null}
        {opened === "rehearsals" ? (
          <Rehearsals
            formRef={formRef}
            definition={definition}
            situation={rehearsed}
            steps={run ? [] : steps}
            kept={kept}
            results={results}
            values={() => storedValues(definition, rendered.current?.binding.values() ?? {})}
            run={start}
            stop={stop}
            states={() => (rendered.current ? statesOf(sentBy(rendered.current, definition)) : {})}
            close={() => setOpened(undefined)}
          />
        ) : null}
      </div>
      <TraceView />
    </>
  );
}

/** What a form would send now; what the browser itself would. */
function sentBy({ form, binding }: RenderedForm, definition: FormDefinition): ReturnType<typeof goingOut> {
  const sent = [...new FormData(form)].map(([name, value]) => [name, String(value)] as const);
  return goingOut(definition, binding.state, binding.values(), sent);
}

function statesOf({ addresses }: ReturnType<typeof goingOut>): Record<string, AddressState> {
  return Object.fromEntries(addresses.map(({ address, state }) => [address, state]));
}
