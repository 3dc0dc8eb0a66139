import type { InteractiveMap } from "@bibliotope/kit";
import { Popover } from "radix-ui";
import { useState } from "react";
import { type LookupQuery, NARROWING, withWord } from "./lookup-query.ts";

interface NarrowProps {
  query: LookupQuery;
  onChange: (query: LookupQuery) => void;
  /** The map beside, whose view may narrow. */
  map: InteractiveMap | undefined;
}

const NAMES: Readonly<Record<string, { name: string; hint: string }>> = {
  countries: { name: "countries", hint: "QR,QV" },
  kinds: { name: "kinds", hint: "address,street,place" },
  inside: { name: "inside", hint: "ref of an area, street or building" },
  box: { name: "box", hint: "W,S,E,N" },
  near: { name: "near", hint: "LAT,LON" },
  lang: { name: "languages", hint: "en,qth-Grek" },
  limit: { name: "limit", hint: "5" },
  radius: { name: "radius, metres", hint: "250" },
  facts: { name: "facts", hint: "phone,openingHours,rating" },
  height: { name: "elevation", hint: "1" },
};

/** What narrows the lookup, each on a chip, and a small form to change it. */
export function Narrow({ query, onChange, map }: NarrowProps) {
  const [open, setOpen] = useState(false);
  const names = NARROWING[query.call];
  const set = names.filter((name) => query.words[name]);
  if (!names.length) return null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      {set.map((name) => (
        <span
          key={name}
          className="inline-flex h-[26px] items-center rounded border border-rule bg-page pl-2.5 text-[13px]"
        >
          {NAMES[name].name}&nbsp;<b className="max-w-56 truncate">{query.words[name]}</b>
          <button
            type="button"
            aria-label={`Remove ${NAMES[name].name}`}
            className="grid h-full w-7 place-items-center text-quiet hover:text-ink"
            onClick={() => onChange(withWord(query, name, ""))}
          >
            ×
          </button>
        </span>
      ))}
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger asChild>
          <button
            type="button"
            className="h-[26px] rounded border border-dashed border-edge px-2.5 text-[13px] text-quiet hover:bg-wash"
          >
            + filter
          </button>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={6}
            aria-label="Filters"
            className="z-10 w-[26rem] max-w-[94vw] rounded-md border border-edge bg-page p-4 shadow-sm"
          >
            <NarrowForm
              {...{ query, map, names }}
              onChange={(next) => {
                setOpen(false);
                onChange(next);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  );
}

function NarrowForm({ query, onChange, map, names }: NarrowProps & { names: readonly string[] }) {
  const send = (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const given = new FormData(event.currentTarget);
    onChange(names.reduce((all, name) => withWord(all, name, String(given.get(name) ?? "").trim()), query));
  };
  const fill = (form: HTMLFormElement | null, name: string) => {
    const field = form?.elements.namedItem(name);
    if (!map || !(field instanceof HTMLInputElement)) return;
    const { at } = map.view;
    const { west, south, east, north } = map.bounds();
    const round = (value: number) => String(Math.round(value * 1e5) / 1e5);
    field.value = name === "near" ? [at.lat, at.lon].map(round).join() : [west, south, east, north].map(round).join();
  };
  return (
    <form onSubmit={send} className="grid gap-2.5">
      {names.map((name) => (
        <div key={name} className="grid grid-cols-[7.5rem_1fr_auto] items-center gap-2">
          <label htmlFor={`narrow-${name}`}>{NAMES[name].name}</label>
          <input
            id={`narrow-${name}`}
            name={name}
            defaultValue={query.words[name] ?? ""}
            placeholder={NAMES[name].hint}
            className="h-[30px] min-w-0 rounded border border-edge bg-field px-2 font-mono text-[12.5px]"
          />
          {name === "near" || name === "box" ? (
            <button
              type="button"
              className="text-[12.5px] underline"
              onClick={(event) => fill(event.currentTarget.form, name)}
            >
              map's view
            </button>
          ) : null}
        </div>
      ))}
      <button
        type="submit"
        className="mt-1 h-[32px] justify-self-start rounded border border-ink bg-ink px-3 font-semibold text-page"
      >
        Look up
      </button>
    </form>
  );
}
