import { checkDefinition, type Field, type FormExample, fillingsFor } from "@bibliotope/core/form";
import { useState } from "react";
import { RowHead, Table } from "../ui/Table.tsx";
import { INPUT, Labelled } from "./Labelled.tsx";

interface PatternInputProps {
  field: Field;
  examples: readonly FormExample[];
  change: (to: Partial<Field>) => void;
}

/** The pattern that fills a field, with what it gives in each country while it is typed. */
export function PatternInput({ field, examples, change }: PatternInputProps) {
  const [pattern, setPattern] = useState(field.binding ?? "");
  const [before, setBefore] = useState(field.binding);
  if (before !== field.binding) {
    // bound or unbound elsewhere, or undone
    setBefore(field.binding);
    setPattern(field.binding ?? "");
  }
  // alone: rules that speak of other fields are none of the business
  const { show: _, ...alone } = { ...field, address: "", binding: pattern || undefined };
  const wrong = pattern ? checkDefinition({ title: "", fields: [alone] })[0]?.message : undefined;
  return (
    <div>
      <Labelled label="Filled with">
        {(id) => (
          <>
            <input
              id={id}
              className={`${INPUT} h-[40px] font-mono text-[13.5px]`}
              value={pattern}
              placeholder={field.autofill ? `by autofill token, ${field.autofill}` : "{street} {house}[, {unit}]"}
              aria-invalid={wrong !== undefined}
              aria-describedby={`${id}-wrong`}
              spellCheck={false}
              onChange={(event) => {
                setPattern(event.target.value);
                const next: Field = { ...alone, binding: event.target.value || undefined };
                if (!checkDefinition({ title: "", fields: [next] }).length) change({ binding: event.target.value });
              }}
            />
            <p id={`${id}-wrong`} role="status" className="min-h-5 text-[12.5px] text-madder">
              {wrong ? `${wrong} (not saved yet)` : ""}
            </p>
          </>
        )}
      </Labelled>
      <Table label="Result in each country" className="w-full border-t border-rule">
        {examples.map(({ title, answer }) => {
          const value = wrong ? "" : (fillingsFor({ title: "", fields: [alone] }, answer)[0]?.value ?? "");
          return (
            <tr key={title} className="border-b border-rule">
              <RowHead className="w-2/5 py-1.5 text-quiet">{title}</RowHead>
              <td className="py-1.5 font-serif text-[15px] whitespace-pre-line">
                {value || <span className="text-ochre">stays empty</span>}
              </td>
            </tr>
          );
        })}
      </Table>
    </div>
  );
}
