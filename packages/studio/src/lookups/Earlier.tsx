import { Popover } from "radix-ui";
import { Link } from "react-router";
import { useForgetLookupsMutation, useKeepingLookupsMutation, useLookupsQuery, wordsOf } from "../state/api.ts";
import { moment } from "../ui/moment.ts";
import { ABOUT, type LookupQuery, readQuery } from "./lookup-query.ts";

/** Earlier lookups: each can be tried again; they can be forgotten, and not kept at all. */
export function Earlier() {
  const { data, error } = useLookupsQuery();
  const [forget] = useForgetLookupsMutation();
  const [keeping] = useKeepingLookupsMutation();
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className="h-[26px] rounded border border-rule bg-page px-2.5 text-[13px] hover:bg-wash">
          History
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="Lookup history"
          className="z-10 flex max-h-[70vh] w-[30rem] max-w-[94vw] flex-col rounded-md border border-edge bg-page shadow-sm"
        >
          {error ? <p className="p-4 text-ochre">{wordsOf(error)}</p> : null}
          {data?.lookups.length === 0 ? (
            <p className="p-4 text-quiet">{data.keeps ? "No lookups yet." : "Lookups are not saved."}</p>
          ) : null}
          <ul className="min-h-0 flex-1 overflow-y-auto">
            {data?.lookups.map(({ query, outcome, found, askedAt }) => (
              <li key={query} className="border-rule not-first:border-t">
                <Popover.Close asChild>
                  <Link
                    to={`/lookups/${query}`}
                    className="grid grid-cols-[5rem_1fr_auto] items-baseline gap-3 px-4 py-2 hover:bg-wash"
                  >
                    <span className="text-quiet">{nameOf(readQuery(query))}</span>
                    <span className="truncate font-serif text-[15px]">{wordsIn(readQuery(query)) || query}</span>
                    <span className="text-[12.5px] text-quiet">
                      {outcome === "none" ? "none" : found}, {moment(askedAt)}
                    </span>
                  </Link>
                </Popover.Close>
              </li>
            ))}
          </ul>
          {data ? (
            <div className="flex items-center justify-between gap-4 border-t border-rule px-4 py-2.5">
              <label className="flex items-center gap-2">
                <input type="checkbox" checked={data.keeps} onChange={(event) => void keeping(event.target.checked)} />
                Keep lookups for {data.days} days
              </label>
              <button
                type="button"
                className="underline disabled:text-quiet"
                disabled={!data.lookups.length}
                onClick={() => void forget()}
              >
                Delete all
              </button>
            </div>
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const nameOf = (query: LookupQuery | undefined) => (query ? ABOUT[query.call].name : "");

function wordsIn(query: LookupQuery | undefined): string {
  if (!query) return "";
  const { call, of, words } = query;
  if (call === "distance") return `${words.from} to ${words.to}`;
  const { q, at, starts, gloss: _, ...others } = words;
  return [of, q ?? at ?? starts, ...(q || at || starts ? [] : Object.values(others))].filter(Boolean).join(" ");
}
