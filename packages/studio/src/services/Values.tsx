import { type Service, type ServiceValue, VALUE_KINDS } from "@bibliotope/core/service";
import type { TriedService } from "@bibliotope/wire";
import { useMemo } from "react";
import { ChoiceInPlace, TextInPlace } from "./InPlace.tsx";
import { valuesIn } from "./ways.ts";
import { VALUE_WORDS } from "./words.ts";

interface ValuesProps {
  service: Service;
  tried: TriedService | undefined;
  set: (values: ServiceValue[]) => void;
  isFixed: boolean;
}

/** What forms may use of a service: its values by name, each with the way into the answer. */
export function Values({ service: described, tried, set, isFixed }: ValuesProps) {
  const { name: service, values } = described;
  const found = useMemo(() => tried && valuesIn(described, tried), [described, tried]);
  const change = (at: number, to: Partial<ServiceValue>) =>
    set(values.map((value, i) => (i === at ? { ...value, ...to } : value)));
  return (
    <fieldset disabled={isFixed} className="min-w-0">
      <legend className="text-[12.5px] text-quiet">Values for forms</legend>
      {values.map(({ name, way, each, kind, isList, missing }, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a name changes while it is written
        <div key={i} className="relative border-b border-rule py-2">
          <span data-field={name} className="absolute top-5 -right-2 size-0" />
          <div className="flex items-baseline gap-1 font-semibold text-slate">
            <span className="max-w-[9rem] truncate">{service || "service"}.</span>
            <TextInPlace
              aria-label="Value name"
              value={name}
              className="!font-sans text-[14px] font-semibold text-slate"
              change={(to) => change(i, { name: to })}
            />
            <button
              type="button"
              className="ml-auto text-[12.5px] font-normal text-quiet underline"
              onClick={() => set(values.toSpliced(i, 1))}
            >
              remove<span className="sr-only">: {name}</span>
            </button>
          </div>
          <TextInPlace
            aria-label={`Path to ${name}`}
            value={way}
            size={24}
            className="w-full"
            change={(to) => change(i, { way: to })}
          />
          <div className="text-[12.5px] text-quiet">
            <ChoiceInPlace
              aria-label={`Type of ${name}`}
              value={kind}
              options={VALUE_KINDS.map((one) => [one, VALUE_WORDS[one]] as const)}
              change={(to) => change(i, { kind: to })}
            />
            <label className="ml-2 inline-flex items-baseline gap-1">
              <input
                type="checkbox"
                checked={isList ?? false}
                onChange={(event) => change(i, { isList: event.target.checked || undefined })}
              />
              list
            </label>
            {isList ? (
              <>
                , each at{" "}
                <TextInPlace
                  aria-label={`Path within each item of ${name}`}
                  value={each}
                  placeholder="itself"
                  size={8}
                  change={(to) => change(i, { each: to || undefined })}
                />
              </>
            ) : null}
            <span className="block">
              when missing{" "}
              <TextInPlace
                aria-label={`Text when ${name} is missing`}
                value={missing}
                placeholder="nothing"
                size={9}
                change={(to) => change(i, { missing: to || undefined })}
              />
            </span>
          </div>
          {found ? <Found value={Object.hasOwn(found, name) ? found[name] : undefined} /> : null}
        </div>
      ))}
      {values.length ? null : (
        <p className="mt-2 text-[13px] text-quiet">Nothing yet. Try it, then click a value in the response.</p>
      )}
    </fieldset>
  );
}

function Found({ value }: { value: string | readonly string[] | undefined }) {
  if (value === undefined) return <p className="mt-0.5 text-[13px] text-quiet">try again to see its value</p>;
  const texts = [value].flat().filter(Boolean);
  return (
    <p className={`mt-0.5 break-words text-[13px] ${texts.length ? "text-verdigris" : "text-ochre"}`}>
      {texts.length ? texts.join(" · ") : "no value"}
    </p>
  );
}
