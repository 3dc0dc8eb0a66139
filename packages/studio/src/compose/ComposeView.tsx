import { useMemo, useRef, useState } from "react";
import { Gutter } from "../forms/Gutter.tsx";
import { type GutterRow, serviceRows } from "../forms/rows.ts";
import { useClient } from "../forms/use-client.ts";
import { Wires } from "../forms/Wires.tsx";
import { wiresOf } from "../forms/wires-of.ts";
import { PasteDialog } from "../paste/PasteDialog.tsx";
import { draft } from "../state/draft.slice.ts";
import { useServicesQuery } from "../state/services-api.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { AddField } from "./AddField.tsx";
import { DRAGGED } from "./dragged.ts";
import { useExamples } from "./examples.ts";
import { FieldCard } from "./FieldCard.tsx";
import { FieldPanel } from "./FieldPanel.tsx";
import { FormPanel } from "./FormPanel.tsx";
import { Problems } from "./Problems.tsx";

/** Binding parts to fields: by dragging a part to a field, or by keyboard: pick a part, pick a field. */
export function ComposeView() {
  const { definition, selected, picked } = useStudio(({ draft }) => draft);
  const dispatch = useStudioDispatch();
  const client = useClient();
  const examples = useExamples(client);
  const [shown, setShown] = useState(0);
  const spread = useRef<HTMLDivElement>(null);
  const answer = examples[shown % Math.max(1, examples.length)]?.answer;
  const wires = useMemo(() => wiresOf(definition, answer), [definition, answer]);
  const { data: known } = useServicesQuery(undefined, { skip: !definition.services?.length });
  const services = useMemo(() => serviceRows(definition, known), [definition, known]);
  const field = definition.fields.find(({ name }) => name === selected);

  const handle = (row: GutterRow, look: string) => (
    <button
      type="button"
      draggable
      aria-pressed={picked === row.name}
      aria-label={`Pick ${row.name}`}
      className={`-ml-1.5 cursor-grab rounded px-1.5 py-0.5 ${look} ${picked === row.name ? "bg-ink text-page" : "hover:bg-wash"}`}
      onClick={() => dispatch(draft.picked(row.name))}
      onDragStart={(event) => {
        event.dataTransfer.setData(DRAGGED, row.name);
        event.dataTransfer.effectAllowed = "link";
      }}
    >
      {row.name}
    </button>
  );
  return (
    <>
      <div
        ref={spread}
        className="relative grid min-h-0 flex-1 grid-cols-[minmax(300px,414px)_232px_minmax(0,1fr)] overflow-hidden rounded-md border border-rule bg-page max-[900px]:grid-cols-1"
      >
        <section aria-label="Fields" data-page className="min-h-0 overflow-y-auto px-3 py-3">
          <div className="flex h-5 justify-between gap-3 px-3 text-[12.5px] text-quiet">
            <p role="status">
              {picked
                ? `“${picked}” is selected: now select the field it fills.`
                : "Drag a part to a field, or select a part, then a field."}
            </p>
            <PasteDialog />
          </div>
          <ul>
            {definition.fields.map((existing) => (
              <FieldCard
                key={existing.name}
                field={existing}
                isSelected={existing.name === selected}
                picked={picked}
                parts={wires.filter((wire) => wire.field === existing.name).map(({ part }) => part)}
              />
            ))}
          </ul>
          <AddField />
        </section>
        <Gutter
          title={`Parts · example from ${examples[shown % Math.max(1, examples.length)]?.title ?? "the islands"}`}
          head={
            <label className="mb-2 flex items-center gap-1.5 text-[12.5px] text-quiet">
              Example from
              <select
                className="min-w-0 rounded border border-transparent bg-transparent hover:border-edge"
                value={shown}
                onChange={(event) => setShown(Number(event.target.value))}
              >
                {examples.map(({ title }, i) => (
                  <option key={title} value={i}>
                    {title}
                  </option>
                ))}
              </select>
            </label>
          }
          answer={answer}
          bound={new Set(wires.map(({ part }) => part))}
          services={services}
          handle={handle}
        />
        <section aria-label="Selected field" className="min-h-0 overflow-y-auto px-[22px] py-5">
          {field ? <FieldPanel key={field.name} field={field} examples={examples} /> : <FormPanel />}
        </section>
        <Wires inside={spread} wires={wires} />
      </div>
      <Problems definition={definition} examples={examples} />
    </>
  );
}
