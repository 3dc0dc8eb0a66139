import type { ComponentProps } from "react";
import { INPUT, Labelled } from "../compose/Labelled.tsx";

type TextFieldProps = { label: string } & Omit<ComponentProps<"input">, "className" | "id">;

/** A line of text with the label above. */
export function TextField({ label, ...input }: TextFieldProps) {
  return <Labelled label={label}>{(id) => <input {...input} id={id} className={INPUT} />}</Labelled>;
}
