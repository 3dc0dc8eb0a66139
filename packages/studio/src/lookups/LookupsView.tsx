import { shortLine } from "@bibliotope/core/form";
import { readPosition } from "@bibliotope/core/geo";
import { PARTS } from "@bibliotope/core/place";
import type { InteractiveMap } from "@bibliotope/kit";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useNavigationType, useParams, useSearchParams } from "react-router";
import { useKeepLookupMutation } from "../state/api.ts";
import { Button } from "../ui/Button.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { CandidateMap, type Spot } from "./CandidateMap.tsx";
import { Earlier } from "./Earlier.tsx";
import { ABOUT, asCall, CALLS, canAsk, type LookupQuery, readQuery, withWord, writeQuery } from "./lookup-query.ts";
import { Narrow } from "./Narrow.tsx";
import { Raw } from "./Raw.tsx";
import { Result } from "./Result.tsx";
import { bodyOf, type LookupState, useAnswer } from "./use-answer.ts";

const EMPTY: LookupQuery = { call: "forward", words: { gloss: "1" } };
/** Milliseconds after which a lookup counts as requested for and not as typed through. */
const SETTLED = 1200;

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
  const input = useRef<HTMLInputElement>(null);
  useKeep(query, first);
  const moved = useNavigationType();
  useEffect(() => {
    // what is typed runs ahead of the address, which only follows it
    if (moved !== "REPLACE") setTyped(query);
  }, [query, moved]);
  useEffect(() => input.current?.focus(), []);

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
  const { main, of, hint, example } = ABOUT[typed.call];
  const hasParts = typed.call === "forward" && (partsOpen || PARTS.some((part) => typed.words[part]));
  return (
    <main className="flex min-h-0 flex-1 flex-col gap-3 px-5 py-4 min-[901px]:h-[calc(100vh-46px)] min-[901px]:flex-none">
      <h1 className="sr-only">Lookups</h1>
      <form
        className="flex flex-wrap items-stretch gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (canAsk(typed)) ask(typed, other);
        }}
      >
        <Segmented
          large
          label="Kind of lookup"
          value={typed.call}
          onChange={(call) => {
            const next = asCall(typed, call);
            setTyped(next);
            if (canAsk(next)) ask(next, undefined);
            input.current?.focus();
          }}
          options={CALLS.map((call) => [call, ABOUT[call].name] as const)}
        />
        {of ? (
          <input
            ref={main ? undefined : input}
            aria-label={of}
            placeholder={of}
            value={typed.of ?? ""}
            onChange={(event) => setTyped({ ...typed, of: event.target.value.trim() })}
            className={`h-[40px] rounded border border-ink bg-field px-3 font-mono text-[15px] ${main ? "w-24" : "min-w-0 flex-1"}`}
          />
        ) : null}
        {main ? (
          <input
            ref={input}
            aria-label={ABOUT[typed.call].name}
            placeholder={hint}
            value={typed.words[main] ?? ""}
            onChange={(event) => type(main, event.target.value)}
            spellCheck={false}
            autoComplete="off"
            className="h-[40px] min-w-56 flex-1 rounded border border-ink bg-field px-3.5 font-serif text-[18px]"
          />
        ) : null}
        {typed.call === "distance" ? (
          <input
            aria-label="To"
            placeholder="LAT,LON"
            value={typed.words.to ?? ""}
            onChange={(event) => type("to", event.target.value)}
            className="h-[40px] min-w-44 flex-1 rounded border border-ink bg-field px-3.5 font-serif text-[18px]"
          />
        ) : null}
        <Button strong type="submit" className="h-[40px]! px-4!" disabled={!canAsk(typed)}>
          Look up
        </Button>
      </form>
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
          {!canAsk(query) ? (
            <p className="px-1 py-6 font-serif text-[17px] text-quiet">
              Try, for example,{" "}
              <Link className="text-ink underline" to={`/lookups/${writeQuery(example)}`}>
                {example.of ?? example.words[main]}
              </Link>
              . The URL of this page contains the lookup, so you can bookmark and share it.
            </p>
          ) : beside && other ? (
            <div className="grid grid-cols-2 gap-3 max-[900px]:grid-cols-1">
              <div>
                <p className="mb-2 flex h-[26px] items-center text-[12.5px] text-quiet">These settings</p>
                <Result
                  state={first}
                  query={query}
                  others={placesOf(bodyOf(second))}
                  {...{ marked, open, inside, ask }}
                  onMark={setMarked}
                />
              </div>
              <div>
                <div className="mb-2 flex items-center gap-2 text-[12.5px] text-quiet">
                  <span>Other settings</span>
                  <Narrow query={other} onChange={(next) => ask(query, next)} map={map} />
                </div>
                <Result
                  state={second}
                  query={other}
                  others={placesOf(body)}
                  marked={undefined}
                  onMark={() => undefined}
                  {...{ open, inside, ask }}
                />
              </div>
            </div>
          ) : (
            <Result state={first} query={query} {...{ marked, open, inside, ask }} onMark={setMarked} />
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

function spotsOf(body: ReturnType<typeof bodyOf>): Spot[] {
  const found = [
    ...(body?.suggestions ?? []).map(({ at, line }) => ({ at, label: line })),
    ...(body?.features ?? []).map(({ properties }) => ({ at: properties.at, label: shortLine(properties) })),
  ];
  return found;
}

/** The two ends of a distance, once both are positions. */
function lineOf({ call, words }: LookupQuery) {
  const [from, to] = call === "distance" ? [words.from, words.to].map((text) => readPosition(text ?? "")) : [];
  return from && to ? [from, to] : undefined;
}

/** Where each ref is in an answer. */
function placesOf(body: ReturnType<typeof bodyOf>): Map<string, number> | undefined {
  return (
    body &&
    new Map(
      [...(body.suggestions ?? []).map(({ ref }) => ref), ...(body.features ?? []).map(({ id }) => id)].map(
        (ref, i) => [ref, i],
      ),
    )
  );
}

function statusOf({ answer, loading, failed }: LookupState): string {
  if (failed) return "The server does not answer.";
  if (!answer) return loading ? "Looking up" : "";
  const body = bodyOf({ answer, loading });
  const count = body?.features?.length ?? body?.suggestions?.length;
  const found =
    body?.outcome === "none"
      ? "nothing found"
      : count === undefined
        ? ""
        : body?.outcome === "ambiguous"
          ? `${count} found, ambiguous`
          : body?.outcome === "differs"
            ? "found, with differences"
            : `${count} found`;
  const size = answer.size < 1000 ? `${answer.size} B` : `${(answer.size / 1000).toFixed(1)} kB`;
  return [found || `status ${answer.status}`, `${answer.took.toFixed(1)} ms`, size].join(" · ");
}

/** Keeps a lookup that represents a moment; what is typed through on the way is not kept. */
function useKeep(query: LookupQuery, { answer }: LookupState): void {
  const [keep] = useKeepLookupMutation();
  const body = bodyOf({ answer, loading: false });
  useEffect(() => {
    if (!body || !canAsk(query)) return;
    const found = body.features?.length ?? body.suggestions?.length ?? 1;
    const timer = setTimeout(
      () => void keep({ asked: writeQuery(query), outcome: body.outcome ?? "matched", found }),
      SETTLED,
    );
    return () => clearTimeout(timer);
  }, [query, body, keep]);
}

/** An address by parts, beside or instead of free text. */
function ByParts({
  typed,
  onType,
  onAsk,
}: {
  typed: LookupQuery;
  onType: (name: string, value: string) => void;
  onAsk: () => void;
}) {
  return (
    <div className="grid grid-cols-7 gap-2 max-[900px]:grid-cols-3">
      {PARTS.map((part) => (
        <label key={part} className="text-[12px] text-quiet">
          {part}
          <input
            value={typed.words[part] ?? ""}
            onChange={(event) => onType(part, event.target.value)}
            onKeyDown={(event) => event.key === "Enter" && onAsk()}
            className="mt-0.5 h-[30px] w-full rounded border border-edge bg-field px-2 font-serif text-[15px] text-ink"
          />
        </label>
      ))}
    </div>
  );
}
