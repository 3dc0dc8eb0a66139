import type { ComponentProps } from "react";

const LOOK =
  "h-[1.7em] max-w-full rounded-none border-0 border-b border-edge bg-transparent px-0.5 py-0 align-baseline leading-[1.7em] hover:bg-wash focus-visible:bg-field disabled:border-transparent";

/** Words of a sentence that are changed in place. */
export function TextInPlace({
  change,
  className = "",
  size,
  value = "",
  ...rest
}: { change: (to: string) => void; value?: string } & Omit<ComponentProps<"input">, "onChange" | "value">) {
  return (
    <input
      {...rest}
      value={value}
      style={{ width: `${size ?? Math.min(44, Math.max(5, value.length + 1))}ch` }}
      className={`${LOOK} font-mono text-[13px] ${className}`}
      onChange={(event) => change(event.target.value)}
    />
  );
}

/** A number of a sentence; nothing where nothing is there. */
export function NumberInPlace({
  change,
  value,
  ...rest
}: { change: (to: number | undefined) => void; value: number | undefined } & Omit<
  ComponentProps<"input">,
  "onChange" | "value"
>) {
  return (
    <input
      {...rest}
      type="number"
      value={value ?? ""}
      className={`${LOOK} w-[5ch] text-right [appearance:textfield]`}
      onChange={({ target }) => change(target.value === "" ? undefined : target.valueAsNumber)}
    />
  );
}

/** One of some words of a sentence. */
export function ChoiceInPlace<T extends string>({
  change,
  options,
  value,
  ...rest
}: {
  change: (to: T) => void;
  value: T;
  options: readonly (readonly [value: T, words: string])[];
} & Omit<ComponentProps<"select">, "onChange" | "value">) {
  return (
    <select {...rest} value={value} className={LOOK} onChange={({ target }) => change(target.value as T)}>
      {options.map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
    </select>
  );
}
