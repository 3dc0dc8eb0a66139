interface SegmentedProps<T extends string> {
  label: string;
  value: T;
  onChange: (value: T) => void;
  options: readonly (readonly [value: T, name: string])[];
  large?: boolean;
}

/** A choice of one among a few, side by side. */
export function Segmented<T extends string>({ label, value, onChange, options, large }: SegmentedProps<T>) {
  return (
    <fieldset aria-label={label} className="inline-flex flex-wrap overflow-hidden rounded border border-edge bg-page">
      {options.map(([option, name]) => (
        <button
          key={option}
          type="button"
          aria-pressed={option === value}
          onClick={() => onChange(option)}
          className={`border-edge font-semibold not-first:border-l aria-pressed:bg-ink aria-pressed:text-page ${
            large ? "h-[38px] px-3.5" : "h-[26px] px-2.5 text-[12.5px]"
          } ${option === value ? "" : "text-quiet hover:bg-wash"}`}
        >
          {name}
        </button>
      ))}
    </fieldset>
  );
}
