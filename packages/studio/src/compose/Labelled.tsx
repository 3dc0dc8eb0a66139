import { type ReactNode, useId } from "react";

/** Classes of a text input in the side panel. */
export const INPUT = "h-[34px] w-full rounded border border-edge bg-field px-3 text-ink aria-invalid:border-madder";

/** A control with the label above. */
export function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
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

/** Values side by side of which one holds, with words above. */
export function Choices<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly (readonly [value: T, words: string])[];
  onChange: (value: T) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-[12.5px] text-quiet">{label}</legend>
      <div className="flex flex-wrap gap-1.5">
        {options.map(([option, words]) => (
          <button
            key={option}
            type="button"
            aria-pressed={option === value}
            onClick={() => onChange(option)}
            className="min-h-[28px] rounded border border-edge bg-field px-2.5 text-left text-[13px] hover:bg-wash aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-page"
          >
            {words}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
