interface SeveralProps<T extends string> {
  legend: string;
  options: readonly (readonly [value: T, words: string])[];
  chosen: readonly T[];
  onChange: (chosen: T[]) => void;
}

/** Any of some. */
export function Several<T extends string>({ legend, options, chosen, onChange }: SeveralProps<T>) {
  const toggle = (value: T) =>
    onChange(chosen.includes(value) ? chosen.filter((one) => one !== value) : [...chosen, value]);
  return (
    <fieldset>
      <legend className="mb-1 text-[12.5px] text-quiet">{legend}</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {options.map(([value, words]) => (
          <Tick key={value} label={words} checked={chosen.includes(value)} onChange={() => toggle(value)} />
        ))}
      </div>
    </fieldset>
  );
}

interface TickProps {
  label: string;
  checked: boolean;
  disabled?: boolean;
  onChange: (is: boolean) => void;
}

/** A yes or no. */
export function Tick({ label, checked, disabled, onChange }: TickProps) {
  return (
    <label className="inline-flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}
