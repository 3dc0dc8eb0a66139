import { readPosition } from "@bibliotope/core/geo";
import { PARTS } from "@bibliotope/core/place";
import type { InteractiveMap } from "@bibliotope/kit";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useNavigationType, useParams, useSearchParams } from "react-router";
import { lineOf, spotsOf, statusOf } from "./answer-places.ts";
import { CandidateMap } from "./CandidateMap.tsx";
import { Earlier } from "./Earlier.tsx";
import { ABOUT, asCall, canAsk, type LookupQuery, readQuery, withWord, writeQuery } from "./lookup-query.ts";
import { Narrow } from "./Narrow.tsx";
import { ByParts, QueryForm } from "./QueryForm.tsx";
import { Raw } from "./Raw.tsx";
import { Results } from "./Results.tsx";
import { bodyOf, useAnswer } from "./use-answer.ts";
import { useKeep } from "./use-keep.ts";

const EMPTY: LookupQuery = { call: "forward", words: { gloss: "1" } };

/** Lookups by hand. The URL of this view contains the lookup: `/lookups/`, then what follows `/v1/`. */
export function LookupsView() {
  const path = useParams()["*"] ?? "";
  const [search] = useSearchParams();
  const go = useNavigate();
  const besideText = search.get("beside") ?? undefined;
  const query = useMemo(() => {
    const words = new URLSearchParams(search);
    words.delete("beside");
    return readQuery(`${path}?${words}`) ?? EMPTY;
  }, [path, search]);
  const beside = useMemo(() => (besideText === undefined ? undefined : readQuery(besideText)), [besideText]);
  const [typed, setTyped] = useState(query);
  const first = useAnswer(query);
  const second = useAnswer(beside);
  const [marked, setMarked] = useState<number>();
  const [partsOpen, setPartsOpen] = useState(false);
  const [map, setMap] = useState<InteractiveMap>();
  useKeep(query, first);
  const moved = useNavigationType();
  useEffect(() => {
    // what is typed runs ahead of the address, which only follows it
    if (moved !== "REPLACE") setTyped(query);
  }, [query, moved]);

  const ask = useCallback(
    (next: LookupQuery, other = beside, replace = false) => {
      const text = writeQuery(next);
      const more = other ? `${text.endsWith("?") ? "" : "&"}beside=${encodeURIComponent(writeQuery(other))}` : "";
      void go(`/lookups/${text}${more}`, { replace });
    },
    [go, beside],
  );
  const type = (name: string, value: string) => {
    const next = withWord(typed, name, value);
    setTyped(next);
    // suggestions follow the typing
    if (next.call === "suggest") ask(next, beside, true);
  };
  // the other setting asks the same thing, narrowed otherwise
  const other = beside && { ...beside, of: query.of, words: { ...beside.words, ...sameWords(query) } };
  const press = (at: { lat: number; lon: number }) => {
    const text = `${at.lat.toFixed(6)},${at.lon.toFixed(6)}`;
    const back = query.call === "reverse" ? query : withWord(asCall(query, "reverse"), "kinds", "");
    ask(withWord(back, "at", text), undefined);
  };
  const open = (ref: string) => ask({ call: "records", of: ref, words: {} }, undefined);
  const inside = (ref: string) => ask({ call: "suggest", words: { inside: ref } }, undefined);
  const body = bodyOf(first);
  const spots = useMemo(() => spotsOf(body), [body]);
  const aim = useMemo(() => (query.words.at ? readPosition(query.words.at) : undefined), [query]);
  const line = useMemo(() => lineOf(query), [query]);
  const { main, example } = ABOUT[typed.call];
  const hasParts = typed.call === "forward" && (partsOpen || PARTS.some((part) => typed.words[part]));
  return (
    <main className="flex min-h-0 flex-1 flex-col gap-3 px-5 py-4 min-[901px]:h-[calc(100vh-46px)] min-[901px]:flex-none">
      <h1 className="sr-only">Lookups</h1>
      <QueryForm
        typed={typed}
        choose={(call) => {
          const next = asCall(typed, call);
          setTyped(next);
          if (canAsk(next)) ask(next, undefined);
        }}
        type={type}
        setOf={(of) => setTyped({ ...typed, of })}
        ask={() => ask(typed, other)}
      />
      {hasParts ? <ByParts typed={typed} onType={type} onAsk={() => ask(typed, other)} /> : null}
      <div className="flex flex-wrap items-center gap-2">
        <Narrow query={query} onChange={(next) => ask(next)} map={map} />
        {typed.call === "forward" ? (
          <button
            type="button"
            aria-expanded={hasParts}
            className="h-[26px] rounded border border-dashed border-edge px-2.5 text-[13px] text-quiet hover:bg-wash"
            onClick={() => setPartsOpen(!hasParts)}
          >
            By parts
          </button>
        ) : null}
        <span role="status" className="ml-auto text-[12.5px] text-quiet">
          {statusOf(first)}
        </span>
        <Earlier />
        <button
          type="button"
          aria-pressed={beside !== undefined}
          disabled={!canAsk(query) || query.call === "distance" || query.call === "records"}
          className="h-[26px] rounded border border-rule bg-page px-2.5 text-[13px] enabled:hover:bg-wash disabled:text-quiet aria-pressed:border-ink"
          onClick={() => (beside ? go(`/lookups/${writeQuery(query)}`) : ask(query, query))}
        >
          Compare settings
        </button>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_430px] gap-4 min-[901px]:grid-rows-[minmax(0,1fr)] max-[900px]:grid-cols-1">
        <section aria-label="Results" className="min-h-0 min-w-0 overflow-y-auto max-[900px]:overflow-visible">
          {canAsk(query) ? (
            <Results
              first={{ state: first, query }}
              second={beside && other ? { state: second, query: other } : undefined}
              narrow={<Narrow query={other ?? query} onChange={(next) => ask(query, next)} map={map} />}
              {...{ marked, open, inside, ask }}
              onMark={setMarked}
            />
          ) : (
            <p className="px-1 py-6 font-serif text-[17px] text-quiet">
              Try, for example,{" "}
              <Link className="text-ink underline" to={`/lookups/${writeQuery(example)}`}>
                {example.of ?? example.words[main]}
              </Link>
              . The URL of this page contains the lookup, so you can bookmark and share it.
            </p>
          )}
        </section>
        <div className="flex min-h-0 flex-col gap-3">
          <CandidateMap {...{ spots, aim, line, marked }} onMark={setMarked} onPress={press} onReady={setMap} />
          <Raw query={query} state={first} />
        </div>
      </div>
    </main>
  );
}

/** The words that make two lookups the same question, not its narrowing. */
function sameWords({ call, words }: LookupQuery): Record<string, string> {
  const names = [ABOUT[call].main, "to", "gloss", ...PARTS];
  return Object.fromEntries(Object.entries(words).filter(([name]) => names.includes(name)));
}
