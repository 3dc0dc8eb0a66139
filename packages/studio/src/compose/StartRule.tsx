import {
  type AddressRule,
  addressOf,
  type Field,
  type FormDefinition,
  fillableFields,
  isLookUp,
  type Start,
  startOf,
} from "@bibliotope/core/form";
import { Choices, INPUT, Labelled } from "./Labelled.tsx";

interface StartRuleProps {
  definition: FormDefinition;
  /** Name of the address; empty for the first. */
  address: string;
  change: (to: Partial<AddressRule>) => void;
}

/** What starts a lookup of an address. */
export function StartRule({ definition, address, change }: StartRuleProps) {
  const start = startOf(definition, address);
  const of = definition.fields.filter((field) => addressOf(field) === address);
  const seen = fillableFields(definition, address).filter(({ kind }) => kind === "text" || kind === "country");
  const hasSearch = of.some(({ kind }) => kind === "search");
  const button = of.find(isLookUp);
  const complete = start.on === "complete" ? start.fields : [];
  const toggle = ({ name }: Field) => {
    const fields = complete.includes(name) ? complete.filter((existing) => existing !== name) : [...complete, name];
    if (fields.length) change({ start: { on: "complete", fields } });
  };
  const starts: readonly (readonly [Start["on"], string])[] = [
    ...(hasSearch ? [["choice", "a suggestion is chosen"] as const] : []),
    ...(seen.length
      ? [["leaving", "a field loses focus"] as const, ["complete", "several fields are filled in"] as const]
      : []),
    ...(button ? [["button", "the button is clicked"] as const] : []),
    ["never", "never automatically"],
  ];
  const setStart = (on: Start["on"]) => {
    const first = seen[0]?.name ?? "";
    const ways: Readonly<Record<Start["on"], Start>> = {
      choice: { on },
      never: { on },
      leaving: { on, field: first },
      complete: { on, fields: seen.slice(0, 3).map(({ name }) => name) },
      button: { on, field: button?.name ?? "" },
    } as Record<Start["on"], Start>;
    change({ start: ways[on] });
  };
  return (
    <>
      <Choices
        label={`Start a lookup${address ? ` of “${address}”` : ""} when`}
        value={start.on}
        options={starts}
        onChange={setStart}
      />
      {start.on === "leaving" ? (
        <Labelled label="Which field">
          {(id) => (
            <select
              id={id}
              className={INPUT}
              value={start.field}
              onChange={(event) => change({ start: { on: "leaving", field: event.target.value } })}
            >
              {seen.map(({ name, label }) => (
                <option key={name} value={name}>
                  {label}
                </option>
              ))}
            </select>
          )}
        </Labelled>
      ) : null}
      {start.on === "complete" ? (
        <fieldset>
          <legend className="mb-1 text-[12.5px] text-quiet">Which fields</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {seen.map((field) => (
              <label key={field.name} className="inline-flex items-center gap-1.5">
                <input type="checkbox" checked={complete.includes(field.name)} onChange={() => toggle(field)} />
                {field.label}
              </label>
            ))}
          </div>
        </fieldset>
      ) : null}
    </>
  );
}
