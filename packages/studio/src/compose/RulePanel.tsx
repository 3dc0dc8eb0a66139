import {
  type AddressRule,
  addressOf,
  type Field,
  type FormDefinition,
  fillableFields,
  isLookUp,
  MAY_DIFFER,
  ruleOf,
  type Start,
  startOf,
} from "@bibliotope/core/form";
import { EXACTNESS, type Exactness, KINDS, type PartName } from "@bibliotope/core/place";
import { Choices, INPUT, Labelled } from "./Labelled.tsx";

const EXACT: Readonly<Record<Exactness, string>> = {
  surveyed: "surveyed at the house",
  between: "interpolated between houses",
  along: "on the street",
  centre: "centre of the area",
};
/** Parts that a form may let differ, in the words of this view. */
const MAY: readonly (readonly [PartName, string])[] = [
  ["postcode", "postcode"],
  ["house", "house"],
  ["street", "street"],
  ["town", "town"],
];
/** Score from which the first of several is taken, when that is chosen. */
const SURE = 0.9;

interface RulePanelProps {
  definition: FormDefinition;
  /** Name of the address; empty for the first. */
  address: string;
  change: (to: Partial<AddressRule>) => void;
}

/** How an address of the form is looked up, and what happens then. */
export function RulePanel({ definition, address, change }: RulePanelProps) {
  const rule = ruleOf(definition, address);
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
    <section aria-label="Address lookup" className="mt-5 grid gap-4 border-t border-rule pt-4">
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
      <Labelled label="When nothing is found">
        {(id) => (
          <textarea
            id={id}
            rows={2}
            className={`${INPUT} h-auto py-1.5`}
            value={rule.none ?? ""}
            maxLength={300}
            placeholder="Nothing was found. Check the spelling, or go on with what you typed."
            onChange={(event) => change({ none: event.target.value })}
          />
        )}
      </Labelled>
      <Choices
        label="When several match"
        value={rule.takeFrom === undefined ? "choose" : "take"}
        options={[
          ["choose", "let the user choose"],
          ["take", `use the first with a score above ${rule.takeFrom ?? SURE}`],
        ]}
        onChange={(to) => change({ takeFrom: to === "take" ? (rule.takeFrom ?? SURE) : undefined })}
      />
      <Several
        legend="Parts that may differ from what was typed without asking"
        options={MAY}
        chosen={rule.mayDiffer ?? MAY_DIFFER}
        onChange={(mayDiffer) => change({ mayDiffer })}
      />
      <Several
        legend="Only these kinds (all if none is selected)"
        options={KINDS.map((kind) => [kind, kind] as const)}
        chosen={rule.kinds ?? []}
        onChange={(kinds) => change({ kinds: kinds.length ? kinds : undefined })}
      />
      <Labelled label="Only these countries (codes)">
        {(id) => (
          <input
            key={address}
            id={id}
            className={INPUT}
            defaultValue={rule.countries?.join(", ") ?? ""}
            maxLength={80}
            placeholder="all"
            onChange={(event) => {
              const countries = event.target.value.toUpperCase().match(/\b[A-Z]{2}\b/g) ?? [];
              change({ countries: countries.length ? [...new Set(countries)].slice(0, 20) : undefined });
            }}
          />
        )}
      </Labelled>
      <div className="grid grid-cols-2 gap-4">
        <Labelled label="Minimum exactness">
          {(id) => (
            <select
              id={id}
              className={INPUT}
              value={rule.exactness ?? ""}
              onChange={(event) => change({ exactness: (event.target.value || undefined) as Exactness | undefined })}
            >
              <option value="">any</option>
              {EXACTNESS.map((one) => (
                <option key={one} value={one}>
                  {EXACT[one]}
                </option>
              ))}
            </select>
          )}
        </Labelled>
        <div className="grid content-end gap-1 pb-1">
          <Tick
            label="Ask for the country first"
            checked={rule.countryFirst ?? false}
            disabled={!of.some(({ kind }) => kind === "country")}
            onChange={(is) => change({ countryFirst: is || undefined })}
          />
          <Tick
            label="Accept any position on the map"
            checked={rule.anywhere ?? false}
            onChange={(is) => change({ anywhere: is || undefined })}
          />
        </div>
      </div>
      <Labelled label="Nearest place of this kind, as {nearby} and {away}">
        {(id) => (
          <input
            id={id}
            className={INPUT}
            value={rule.nearby ?? ""}
            maxLength={80}
            placeholder="for example, reading room"
            onChange={(event) => change({ nearby: event.target.value })}
          />
        )}
      </Labelled>
    </section>
  );
}

interface SeveralProps<T extends string> {
  legend: string;
  options: readonly (readonly [value: T, words: string])[];
  chosen: readonly T[];
  onChange: (chosen: T[]) => void;
}

/** Any of some. */
function Several<T extends string>({ legend, options, chosen, onChange }: SeveralProps<T>) {
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
