import { checkDefinition, type Field, fillingsFor } from "@bibliotope/core/form";
import { type ReactNode, useId, useState } from "react";
import { draft } from "../state/draft.slice.ts";
import { useStudioDispatch } from "../state/store.ts";
import type { Example } from "./examples.ts";

const INPUT = "h-[34px] w-full rounded border border-edge bg-field px-3 text-ink aria-invalid:border-madder";

/** What fills the field in hand, with what that gives in each country. */
export function FieldPanel({ field, examples }: { field: Field; examples: readonly Example[] }) {
  const dispatch = useStudioDispatch();
  const [pattern, setPattern] = useState(field.binding ?? "");
  const [before, setBefore] = useState(field.binding);
  if (before !== field.binding) {
    // bound or unbound elsewhere, or undone
    setBefore(field.binding);
    setPattern(field.binding ?? "");
  }
  const typed: Field = { ...field, binding: pattern || undefined };
  const wrong = pattern ? checkDefinition({ title: "", fields: [typed] })[0]?.message : undefined;
  const change = (to: Partial<Field>) => dispatch(draft.fieldChanged({ field: field.name, to }));
  const takes = field.kind !== "search" && field.kind !== "map";
  return (
    <>
      <h2 className="font-serif text-[18px] font-semibold">{field.label}</h2>
      <div className="mt-3 grid grid-cols-2 gap-4">
        <Labelled label="Label">
          {(id) => (
            <input
              id={id}
              className={INPUT}
              value={field.label}
              maxLength={80}
              onChange={(event) => event.target.value && change({ label: event.target.value })}
            />
          )}
        </Labelled>
        <Labelled label="Autofill token">
          {(id) => (
            <input
              id={id}
              className={`${INPUT} font-mono text-[13px]`}
              value={field.autofill ?? ""}
              maxLength={80}
              onChange={(event) => change({ autofill: event.target.value })}
            />
          )}
        </Labelled>
      </div>
      {takes ? (
        <div className="mt-4">
          <Labelled label="What it is filled with">
            {(id) => (
              <>
                <input
                  id={id}
                  className={`${INPUT} h-[40px] font-mono text-[13.5px]`}
                  value={pattern}
                  placeholder={
                    field.autofill ? `by its autofill token, ${field.autofill}` : "{street} {house}[, {unit}]"
                  }
                  aria-invalid={wrong !== undefined}
                  aria-describedby={`${id}-wrong`}
                  spellCheck={false}
                  onChange={(event) => {
                    setPattern(event.target.value);
                    const next: Field = { ...field, binding: event.target.value || undefined };
                    if (!checkDefinition({ title: "", fields: [next] }).length) change({ binding: event.target.value });
                  }}
                />
                <p id={`${id}-wrong`} role="status" className="min-h-5 text-[12.5px] text-madder">
                  {wrong ? `${wrong} (not saved yet)` : ""}
                </p>
              </>
            )}
          </Labelled>
          <table className="w-full border-t border-rule">
            <caption className="sr-only">What it gives in each country</caption>
            <tbody>
              {examples.map(({ title, answer }) => {
                const value = wrong ? "" : (fillingsFor({ title: "", fields: [typed] }, answer)[0]?.value ?? "");
                return (
                  <tr key={title} className="border-b border-rule">
                    <th scope="row" className="w-2/5 py-2 text-left font-normal text-quiet">
                      {title}
                    </th>
                    <td className="py-2 font-serif text-[15px]">
                      {value || <span className="text-ochre">stays empty</span>}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      ) : (
        <p className="mt-4 text-quiet">
          {field.kind === "search"
            ? "People search here; nothing fills it."
            : "Shows the place, and takes the house that is pressed."}
        </p>
      )}
    </>
  );
}

function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-[12.5px] text-quiet">
        {label}
      </label>
      {children(id)}
    </div>
  );
}
