import {
  type ChangeKeyRequest,
  KEY_CALL_WORDS,
  KEY_CALLS,
  type KeyCall,
  type KeyKind,
  PROGRAM_KINDS,
  PROGRAM_LIMIT,
} from "@bibliotope/wire";
import { useId } from "react";
import type { UseFormRegister } from "react-hook-form";
import { INPUT } from "../compose/Labelled.tsx";
import { namesOrigins } from "./words.ts";

/** What is typed of a key's rules; lists as they are written. */
export interface RulesDraft {
  name: string;
  origins: string;
  calls: KeyCall[];
  countries: string;
  /** A day, as 2026-12-31; empty for no end. */
  ends: string;
  /** Numbers; empty for no limit. */
  perMinute: string;
  perDay: string;
}

export const NO_RULES: RulesDraft = {
  name: "",
  origins: "",
  calls: [],
  countries: "",
  ends: "",
  perMinute: "",
  perDay: "",
};

export const draftOf = ({
  name,
  origins,
  calls,
  countries,
  endsAt,
  perMinute,
  perDay,
}: ChangeKeyRequest): RulesDraft => ({
  name,
  origins: origins.join("\n"),
  calls: [...calls],
  countries: countries.join(", "),
  ends: endsAt?.slice(0, 10) ?? "",
  perMinute: String(perMinute ?? ""),
  perDay: String(perDay ?? ""),
});

/** Rules from what was typed. A key works to the end of the last day, by UTC. */
export function rulesOf(draft: RulesDraft, kind: KeyKind): ChangeKeyRequest {
  const { name, origins, calls, countries, ends, perMinute, perDay } = draft;
  const words = (text: string) => text.split(/[\s,]+/).filter(Boolean);
  return {
    name,
    origins: namesOrigins(kind) ? words(origins) : [],
    calls,
    countries: words(countries).map((code) => code.toUpperCase()),
    endsAt: ends ? `${ends}T23:59:59Z` : null,
    perMinute: perMinute ? Number(perMinute) : null,
    perDay: perDay ? Number(perDay) : null,
  };
}

const AMOUNTS = [
  ["perMinute", "Lookups per minute"],
  ["perDay", "Lookups per day"],
] as const;

interface RulesFieldsProps {
  kind: KeyKind;
  /** Of the form that they are fields of. */
  register: UseFormRegister<RulesDraft>;
}

/** What a key is called, and what it is kept to. */
export function RulesFields({ kind, register }: RulesFieldsProps) {
  const id = useId();
  const label = "mb-1 block text-[12.5px] text-quiet";
  return (
    <div className="mt-3 grid gap-3">
      <div>
        <label className={label} htmlFor={`${id}-name`}>
          Name
        </label>
        <input id={`${id}-name`} className={INPUT} required maxLength={60} {...register("name")} />
      </div>
      {namesOrigins(kind) ? (
        <div>
          <label className={label} htmlFor={`${id}-origins`}>
            Origins, one per line
          </label>
          <textarea
            id={`${id}-origins`}
            aria-describedby={`${id}-origins-help`}
            rows={3}
            required
            spellCheck={false}
            className={`${INPUT} h-auto py-1.5 font-mono text-[13px]`}
            placeholder={kind === "web" ? "https://members.example" : "app://localhost"}
            {...register("origins")}
          />
          <p id={`${id}-origins-help`} className="mt-0.5 text-[12.5px] text-quiet">
            https://*.members.example matches all subdomains, http://localhost:* every port.
            {kind === "view" ? " Enter the origin as the platform sends it; file:// also works." : ""}
          </p>
        </div>
      ) : null}
      <fieldset>
        <legend className={label}>Kinds of lookup (all if none is selected)</legend>
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {KEY_CALLS.map((call) => (
            <label key={call} className="inline-flex items-center gap-1.5">
              <input type="checkbox" value={call} {...register("calls")} />
              {KEY_CALL_WORDS[call]}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="grid grid-cols-2 gap-4">
        <div>
          <label className={label} htmlFor={`${id}-countries`}>
            Country codes (all if empty)
          </label>
          <input
            id={`${id}-countries`}
            className={`${INPUT} font-mono text-[13px]`}
            placeholder="QR, QV"
            {...register("countries")}
          />
        </div>
        <div>
          <label className={label} htmlFor={`${id}-ends`}>
            Expiry date (never if empty)
          </label>
          <input id={`${id}-ends`} type="date" className={INPUT} {...register("ends")} />
        </div>
        {AMOUNTS.map(([amount, words]) => (
          <div key={amount}>
            <label className={label} htmlFor={`${id}-${amount}`}>
              {words}; {amount === "perMinute" && PROGRAM_KINDS.has(kind) ? PROGRAM_LIMIT : "no limit"} if empty
            </label>
            <input
              id={`${id}-${amount}`}
              type="number"
              min={1}
              max={1_000_000_000}
              className={INPUT}
              {...register(amount)}
            />
          </div>
        ))}
      </div>
    </div>
  );
}
