import type { BatchCandidates } from "@bibliotope/wire";
import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { markerColour } from "../lookups/CandidateMap.tsx";
import { GlossLine } from "../lookups/GlossLine.tsx";
import { Differences } from "../ui/Differences.tsx";
import { EXACTNESS_WORDS } from "../ui/exactness.ts";
import { scoreText } from "../ui/score-text.ts";
import { differing } from "./differing.ts";
import type { Review } from "./use-review.ts";
import { DECISION_WORDS } from "./words.ts";

export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="inline-flex h-[22px] min-w-[22px] items-center justify-center rounded border border-edge bg-field px-1 font-mono text-[12px] text-ink">
      {children}
    </kbd>
  );
}

interface RowPanelProps {
  heads: readonly string[] | null;
  review: Review;
  isCorrecting: boolean;
  setCorrecting: (is: boolean) => void;
  canEdit: boolean;
}

/** One row with all that may be meant, and what can be decided about it. */
export function RowPanel({ heads, review, isCorrecting, setCorrecting, canEdit }: RowPanelProps) {
  const { row, found, marked, text } = review;
  const lines = useMemo(() => differing(found?.candidates ?? []), [found]);
  if (!row) return <p className="text-quiet">{review.isLoading ? "Loading the rows" : "Nothing left to review."}</p>;
  return (
    <div>
      <div className="rounded-md border border-rule bg-field px-4 py-3">
        <p className="font-mono text-[12.5px] text-quiet">
          row {row.number.toLocaleString("en")}
          {row.decision ? ` · ${DECISION_WORDS[row.decision]}` : ""}
        </p>
        {isCorrecting ? (
          <Correct key={row.number} text={text ?? row.query} ask={review.correct} close={() => setCorrecting(false)} />
        ) : (
          <p className="font-serif text-[22px] leading-[30px] break-words">{(text ?? row.query) || "(nothing)"}</p>
        )}
        {found ? <Cells heads={heads} found={found} /> : null}
      </div>
      {found && !found.candidates.length ? (
        <p className="mt-3 rounded-md border border-rule bg-page px-4 py-3 text-quiet">
          Nothing was found for this row. Correct it with E, or skip it with L.
        </p>
      ) : null}
      <ol aria-label="Candidates" className="mt-2.5 grid gap-2.5">
        {found?.candidates.map((candidate, place) => (
          <li
            key={`${candidate.ref} ${candidate.line}`}
            aria-current={place === marked ? "true" : undefined}
            className={`relative rounded-md border bg-page px-4 py-3 ${place === marked ? "border-ink" : "border-rule"}`}
            onMouseEnter={() => review.setMarked(place)}
          >
            <span
              aria-hidden="true"
              className="absolute top-0 bottom-0 left-0 w-1 rounded-l-md"
              style={{ background: `var(--${markerColour(place)})` }}
            />
            <div className="flex items-start gap-4 max-[560px]:flex-col-reverse max-[560px]:gap-2">
              <div className="min-w-0 flex-1">
                {candidate.gloss?.length ? <GlossLine gloss={candidate.gloss} /> : null}
                <p className={candidate.gloss?.length ? "mt-1.5 text-quiet" : "font-serif text-[17px]"}>
                  {lines[place].map(({ text, differs }, i) => {
                    // biome-ignore lint/suspicious/noArrayIndexKey: a stretch is its place
                    return differs ? <Differing key={i}>{text}</Differing> : <span key={i}>{text}</span>;
                  })}
                </p>
                <Differences differences={candidate.differences} />
              </div>
              <div className="flex-none text-right text-[12.5px] max-[560px]:flex max-[560px]:items-center max-[560px]:gap-3">
                <button
                  type="button"
                  disabled={!canEdit}
                  aria-label={`Accept ${candidate.line}`}
                  onClick={() => void review.decide(place === 0 ? "accept" : "choose", place)}
                >
                  <Key>{place + 1}</Key>
                </button>
                <p className="mt-1.5">
                  <span className="font-semibold">
                    {candidate.score === undefined
                      ? `${Math.round(candidate.distance ?? 0)} m`
                      : scoreText(candidate.score)}
                  </span>
                  <span className="text-quiet">
                    {" "}
                    · {candidate.kind === "address" ? "" : `${candidate.kind}, `}
                    {EXACTNESS_WORDS[candidate.exactness]}
                  </span>
                </p>
              </div>
            </div>
          </li>
        ))}
      </ol>
    </div>
  );
}

/** What sets a candidate apart from the others. */
const Differing = ({ children }: { children: ReactNode }) => (
  <strong className="rounded-sm bg-wash px-0.5 font-semibold text-ink">{children}</strong>
);

/** The cells of the row as they came, where there are more than what was requested. */
function Cells({ heads, found }: { heads: readonly string[] | null; found: BatchCandidates }) {
  if (found.cells.length < 2) return null;
  return (
    <dl className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[12.5px]">
      {found.cells.map((cell, i) =>
        cell ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: a cell is its place
          <div key={i} className="flex min-w-0 gap-1.5">
            <dt className="text-quiet">{(heads?.[i] ?? String(i + 1)).slice(0, 40)}</dt>
            <dd className="max-w-[18rem] truncate font-mono">{cell}</dd>
          </div>
        ) : null,
      )}
    </dl>
  );
}

/** Another text in the place of the row's own. */
function Correct({ text, ask, close }: { text: string; ask: (text: string) => void; close: () => void }) {
  const [value, setValue] = useState(text);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.select(), []);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        ask(value.trim());
        close();
      }}
    >
      <input
        ref={input}
        aria-label="Corrected text"
        className="w-full border-b border-edge bg-transparent font-serif text-[22px] leading-[30px] outline-offset-4"
        value={value}
        maxLength={300}
        onChange={(event) => setValue(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && close()}
      />
      <p className="mt-1 text-[12.5px] text-quiet">
        Press Enter to look up this text; nothing is decided yet. Esc discards the change.
      </p>
    </form>
  );
}
