import type { RehearsalStep, Values } from "@bibliotope/core/form";
import { type RenderedForm, renderForm, type TraceEvent } from "@bibliotope/kit";
import { FormDriver } from "@bibliotope/kit/testing";
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
import { partColour } from "../ui/part-colour.ts";
import { useLatest } from "../ui/use-latest.ts";
import { playRehearsal } from "./play-steps.ts";
import { Rehearsals } from "./Rehearsals.tsx";
import { RehearseBar, type RehearsePanel } from "./RehearseBar.tsx";
import { StepRecorder } from "./record-steps.ts";
import { SendPanel } from "./SendPanel.tsx";
import { sentBy, statesOf } from "./sent-by.ts";
import { playedCalls, playedDevice, WIDTHS, type Width, wireSituation } from "./situations.ts";
import { storedValues, useRuns } from "./use-runs.ts";

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
  const [opened, setOpened] = useState<RehearsePanel>();
  const [going, setGoing] = useState<ReturnType<typeof sentBy>>();
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
    if (run && driver) {
      const { rehearsal } = run;
      dispatch(trace.began(rehearsal.name));
      playRehearsal(driver, made, definition, rehearsal, (step) => note(rehearsal.id, { state: "running", step }))
        .then((result) => {
          dispatch(trace.ended());
          note(rehearsal.id, result);
          following.current();
        })
        .catch((error: unknown) => {
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
      <RehearseBar
        width={width}
        setWidth={setWidth}
        hasServices={Boolean(definition.services?.length)}
        situation={rehearsed}
        choose={(situation) => {
          stop();
          setChosen(situation);
        }}
        isStored={Boolean(record) && !run}
        openStored={answer ? openStored : undefined}
        beginAnew={run || record || steps.length ? beginAnew : undefined}
        opened={opened}
        setOpened={setOpened}
        kept={kept.length}
      />
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
