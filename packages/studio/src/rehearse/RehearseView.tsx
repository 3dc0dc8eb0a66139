import { type RenderedForm, renderForm, type TraceEvent } from "@bibliotope/kit";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Gutter } from "../forms/Gutter.tsx";
import { useClient, useCountries } from "../forms/use-client.ts";
import { Wires } from "../forms/Wires.tsx";
import { wiresOf } from "../forms/wires-of.ts";
import { answers } from "../state/answer.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { trace } from "../state/trace.slice.ts";
import { TraceView } from "../trace/TraceView.tsx";
import { partColour } from "../ui/part-colour.ts";
import { Segmented } from "../ui/Segmented.tsx";
import { playedDevice, type Rehearsed, SITUATION_WORDS, WIDTHS, type Width, wireSituation } from "./situations.ts";

/** The form as its users meet it, run by the kit that ships; the parts, the map and what happened beside it. */
export function RehearseView() {
  const definition = useStudio(({ draft }) => draft.definition);
  const answer = useStudio(({ answer }) => answer.answer);
  const dispatch = useStudioDispatch();
  const heard = useCallback((event: TraceEvent) => void dispatch(trace.happened(event)), [dispatch]);
  const quiet = useClient();
  const [rehearsed, setRehearsed] = useState<Rehearsed>("normal");
  const [width, setWidth] = useState<Width>("desk");
  const client = useClient(heard, wireSituation(rehearsed));
  const countries = useCountries(quiet);
  const spread = useRef<HTMLDivElement>(null);
  const page = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const rendered = useRef<RenderedForm>(undefined);
  const wires = useMemo(() => wiresOf(definition, answer), [definition, answer]);

  useEffect(() => {
    if (!client || !countries || !page.current || !sheet.current) return;
    const made = renderForm(page.current, definition, {
      client,
      countries,
      trace: heard,
      mapIn: sheet.current,
      geolocation: playedDevice(rehearsed),
      filled: (found) => dispatch(answers.filled(found)),
      cleared: () => dispatch(answers.cleared()),
    });
    rendered.current = made;
    made.form.querySelector<HTMLInputElement>("[role=combobox]")?.focus();
    return () => {
      made.destroy();
      dispatch(answers.cleared());
    };
  }, [client, countries, definition, heard, rehearsed, dispatch]);

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

  const hasMap = definition.fields.some(({ kind }) => kind === "map");
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
            onChange={(event) => setRehearsed(event.target.value as Rehearsed)}
          >
            {Object.entries(SITUATION_WORDS).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
        {rehearsed === "normal" ? null : (
          <span role="status" className="text-ochre">
            Played, not real: {SITUATION_WORDS[rehearsed]}
          </span>
        )}
      </div>
      <div
        ref={spread}
        className="relative grid min-h-0 flex-1 grid-cols-[var(--form-width,374px)_232px_minmax(0,1fr)] overflow-hidden rounded-md border border-rule bg-page max-[900px]:grid-cols-1"
      >
        <section aria-label="The form" data-page ref={page} className="min-h-0 overflow-y-auto px-[22px] py-4" />
        <Gutter title="Parts of the address in hand" answer={answer} bound={new Set(wires.map(({ part }) => part))} />
        <section aria-label="Map" ref={sheet} className="relative min-h-[300px]">
          {hasMap ? null : <p className="p-6 text-quiet">This form has no map. Add a map field in Compose.</p>}
        </section>
        <Wires inside={spread} wires={wires} />
      </div>
      <TraceView />
    </>
  );
}
