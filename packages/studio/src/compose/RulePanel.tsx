import {
  type AddressRule,
  addressOf,
  type Field,
  type FormDefinition,
  MAY_DIFFER,
  ruleOf,
} from "@bibliotope/core/form";
import { EXACTNESS, type Exactness, KINDS, type PartName } from "@bibliotope/core/place";
import { Choices, INPUT, Labelled } from "./Labelled.tsx";
import { StartRule } from "./StartRule.tsx";
import { Several, Tick } from "./Ticks.tsx";

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
  const of = definition.fields.filter((field) => addressOf(field) === address);
  return (
    <section aria-label="Address lookup" className="mt-5 grid gap-4 border-t border-rule pt-4">
      <StartRule definition={definition} address={address} change={change} />
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
      <AcceptRule rule={rule} of={of} change={change} />
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

interface AcceptRuleProps {
  rule: AddressRule;
  /** Fields of the address. */
  of: readonly Field[];
  change: (to: Partial<AddressRule>) => void;
}

/** How exact a position must be, and what else is accepted. */
function AcceptRule({ rule, of, change }: AcceptRuleProps) {
  return (
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
  );
}
