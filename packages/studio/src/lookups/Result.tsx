import { Link } from "react-router";
import { Candidates } from "./Candidates.tsx";
import { GlossLine } from "./GlossLine.tsx";
import { type LookupQuery, writeQuery } from "./lookup-query.ts";
import { bodyOf, type LookupState, problemOf } from "./use-answer.ts";

interface ResultProps {
  state: LookupState;
  query: LookupQuery;
  marked: number | undefined;
  onMark: (place: number | undefined) => void;
  open: (ref: string) => void;
  inside: (ref: string) => void;
  others?: ReadonlyMap<string, number>;
}

/** An answer: its candidates, or why there are none. */
export function Result({ state, query, marked, onMark, open, inside, others }: ResultProps) {
  const body = bodyOf(state);
  const problem = problemOf(state);
  if (state.failed) {
    return (
      <p role="alert" className="text-ochre">
        The server does not answer. Is npm start still running?
      </p>
    );
  }
  if (problem) {
    return (
      <div role="alert" className="rounded-md border border-ochre bg-page px-4.5 py-3.5">
        <p className="font-semibold">
          {problem.status} {problem.title}
        </p>
        <p>{problem.detail}</p>
        {problem.issues?.map(({ parameter, example }) =>
          example ? (
            <p key={parameter} className="mt-1 font-mono text-[12.5px]">
              {example}
            </p>
          ) : null,
        )}
      </div>
    );
  }
  if (!body) return state.loading ? <p className="text-quiet">Looking up</p> : null;
  return (
    <>
      {body.advice?.length && body.outcome !== "none" ? (
        <p className="mb-2.5 text-quiet">{body.advice.join(" ")}</p>
      ) : null}
      {body.total !== undefined && body.features && body.total > body.features.length ? (
        <p className="mb-2.5 text-quiet">
          {body.features.length} of {body.total} postcodes
        </p>
      ) : null}
      {body.outcome === "none" ? (
        <None body={body} query={query} />
      ) : (
        <Candidates body={body} {...{ marked, onMark, others }} onOpen={open} onInside={inside} />
      )}
    </>
  );
}

/** Words of a lookup that keep something out. */
const FILTERS = ["countries", "kinds", "inside", "box"];

const without = (words: LookupQuery["words"], names: readonly string[]) =>
  Object.fromEntries(Object.entries(words).filter(([name]) => !names.includes(name)));

/** Why nothing was found, how the text was read all the same, and what would be found. */
function None({ body, query: params }: { body: NonNullable<ReturnType<typeof bodyOf>>; query: LookupQuery }) {
  const { reading, advice } = body;
  const q = params.words.q ?? "";
  const narrowed = FILTERS.filter((word) => params.words[word]);
  const known = reading?.unknown
    .reduce((text, word) => text.replace(word, " "), q)
    .replace(/[\s,]+/g, " ")
    .trim();
  return (
    <div className="rounded-md border border-rule bg-page px-4.5 py-4">
      <h2 className="font-serif text-[19px]">Nothing found</h2>
      {advice?.map((words) => (
        <p key={words} className="mt-1">
          {words}
        </p>
      ))}
      {known && reading?.unknown.length ? (
        <p className="mt-1">
          <Link
            className="underline"
            to={`/lookups/${writeQuery({ ...params, words: { ...params.words, q: known } })}`}
          >
            Search for “{known}” only
          </Link>
        </p>
      ) : null}
      {narrowed.length ? (
        <p className="mt-1">
          <Link
            className="underline"
            to={`/lookups/${writeQuery({ ...params, words: without(params.words, narrowed) })}`}
          >
            Look up without filters
          </Link>{" "}
          <span className="text-quiet">({narrowed.join(", ")})</span>
        </p>
      ) : null}
      {reading?.gloss.length ? (
        <>
          <p className="mt-4 mb-2 text-quiet">Read by its format, as an address in {reading.country}:</p>
          <GlossLine gloss={reading.gloss.map((piece) => ({ ...piece, how: "not found" }))} />
        </>
      ) : null}
    </div>
  );
}
