import { FACTS, type Field } from "@bibliotope/core/form";
import { useId } from "react";
import type { Proposal } from "./propose.ts";

/** In place of a pattern: the field searches. */
export const SEARCHES = "searches";

/** Patterns that are offered while one is typed. */
const OFFERED = [
  SEARCHES,
  ...["house", "street", "unit", "district", "town", "county", "region", "postcode", "country.code", "country.name"],
  ...FACTS.filter((fact) => fact === "position" || fact === "line" || fact === "ref"),
].map((name) => (name === SEARCHES ? name : `{${name}}`));

const OFFERED_PATTERNS = "patterns-offered";

/** The patterns that all rows offer. */
export function OfferedPatterns() {
  return (
    <datalist id={OFFERED_PATTERNS}>
      {OFFERED.map((pattern) => (
        <option key={pattern} value={pattern} />
      ))}
    </datalist>
  );
}

/** What a field is bound to: a pattern, an autofill token or a search; empty for one that is taken as it is. */
export function wordOf({ kind, binding, autofill = "" }: Field): string {
  if (kind === "search") return SEARCHES;
  return binding ?? (TOKEN.test(autofill) ? autofill : "");
}

const TOKEN = /(^|\s)(street-address|address-line[1-3]|address-level[1-4]|postal-code|country|country-name)$/;

interface ProposalRowProps {
  proposal: Proposal;
  value: string;
  /** What is wrong with it. */
  wrong: string | undefined;
  set: (to: string) => void;
}

/** What a control of the pasted form would be bound to, and why; another pattern can be typed instead. */
export function ProposalRow({ proposal, value, wrong, set }: ProposalRowProps) {
  const { field, control, isAddress, reason, sureness } = proposal;
  const id = useId();
  const isChanged = value !== wordOf(field);
  return (
    <tr className="border-b border-rule align-baseline last:border-0">
      <td className="w-[34%] py-1.5 pr-3">
        {field.label} <span className="font-mono text-[11.5px] text-quiet">{control.name}</span>
      </td>
      <td className="w-[30%] py-1 pr-3">
        <input
          aria-label={`${field.label} is bound to`}
          aria-invalid={wrong !== undefined}
          aria-describedby={`${id}-wrong`}
          list={OFFERED_PATTERNS}
          className="h-[26px] w-full rounded border border-edge bg-field px-1.5 font-mono text-[12.5px]"
          placeholder="as is"
          maxLength={300}
          spellCheck={false}
          value={value}
          onChange={(event) => set(event.target.value)}
        />
        <p id={`${id}-wrong`} role="status" className="text-[12px] text-madder empty:hidden">
          {wrong}
        </p>
      </td>
      <td className="py-1.5 pr-3 text-[12.5px] text-quiet">
        {isChanged ? (
          <>
            yours{" "}
            <button type="button" className="underline" onClick={() => set(wordOf(field))}>
              undo<span className="sr-only"> for {field.label}</span>
            </button>
          </>
        ) : isAddress ? (
          <>
            {field.address ? `${field.address}: ` : ""}
            {reason}
          </>
        ) : null}
      </td>
      <td className="w-[72px] py-1.5">
        {isAddress && !isChanged ? (
          <span
            title={`${Math.round(sureness * 100)} %`}
            className="block h-1.5 w-[64px] overflow-hidden rounded-sm bg-rule"
          >
            <span className="sr-only">{Math.round(sureness * 100)} %</span>
            <span
              aria-hidden
              className={`block h-full forced-color-adjust-none ${sureness >= 0.7 ? "bg-verdigris" : "bg-ochre"}`}
              ref={(bar) => bar?.style.setProperty("width", `${sureness * 100}%`)}
            />
          </span>
        ) : null}
      </td>
    </tr>
  );
}
