import type { ComponentProps } from "react";
import { INPUT, Labelled } from "../compose/Labelled.tsx";

/** A line of text with the label above. */
export function TextField({
  label,
  change,
  ...input
}: { label: string; change: (to: string) => void } & Omit<ComponentProps<"input">, "onChange" | "className" | "id">) {
  return (
    <Labelled label={label}>
      {(id) => <input {...input} id={id} className={INPUT} onChange={(event) => change(event.target.value)} />}
    </Labelled>
  );
}
