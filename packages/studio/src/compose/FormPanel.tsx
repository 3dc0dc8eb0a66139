import type { FormDefinition } from "@bibliotope/core/form";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { INPUT, Labelled } from "./Labelled.tsx";
import { ServicesPanel } from "./ServicesPanel.tsx";

/** What is the form's own: its title, the words above it and on the button. */
export function FormPanel() {
  const definition = useStudio((state) => state.draft.definition);
  const dispatch = useStudioDispatch();
  const set = (to: Partial<FormDefinition>) => {
    const changed = { ...definition, ...to };
    for (const name of ["intro", "submit"] as const) if (!changed[name]) delete changed[name];
    dispatch(draft.edited({ definition: changed }));
  };
  return (
    <>
      <h2 className="font-serif text-[18px] font-semibold">Form</h2>
      <div className="mt-3 grid gap-4">
        <Labelled label="Title">
          {(id) => (
            <input
              id={id}
              className={INPUT}
              value={definition.title}
              maxLength={80}
              onChange={(event) => event.target.value.trim() && set({ title: event.target.value })}
            />
          )}
        </Labelled>
        <Labelled label="Introduction">
          {(id) => (
            <input
              id={id}
              className={INPUT}
              value={definition.intro ?? ""}
              maxLength={400}
              onChange={(event) => set({ intro: event.target.value })}
            />
          )}
        </Labelled>
        <Labelled label="Button label">
          {(id) => (
            <input
              id={id}
              className={INPUT}
              value={definition.submit ?? ""}
              maxLength={40}
              onChange={(event) => set({ submit: event.target.value })}
            />
          )}
        </Labelled>
      </div>
      <ServicesPanel
        definition={definition}
        change={(services) => {
          const { services: _, ...others } = definition;
          dispatch(draft.edited({ definition: services ? { ...others, services } : others }));
        }}
      />
      <p className="mt-5 text-quiet">Select a field to see what fills it.</p>
    </>
  );
}
