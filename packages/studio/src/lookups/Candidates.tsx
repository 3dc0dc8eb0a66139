import type { RecordFeature, Suggestion } from "@bibliotope/wire";
import { Differences } from "../ui/Differences.tsx";
import { EXACTNESS_WORDS } from "../ui/exactness.ts";
import { scoreText } from "../ui/score-text.ts";
import { markerColour } from "./CandidateMap.tsx";
import { Facts } from "./Facts.tsx";
import { GlossLine } from "./GlossLine.tsx";
import type { AnswerBody } from "./use-answer.ts";

interface CandidatesProps {
  body: AnswerBody;
  /** Place of the candidate that is marked on the map. */
  marked: number | undefined;
  onMark: (place: number | undefined) => void;
  onOpen: (ref: string) => void;
  /** Asks for what is inside a street or a building. */
  onInside: (ref: string) => void;
  /** Refs that the other setting answers too, and where: what is not there differs. */
  others?: ReadonlyMap<string, number>;
}

/** What was found, best first; each line is tied to the marker. */
export function Candidates({ body, marked, onMark, onOpen, onInside, others }: CandidatesProps) {
  if (body.metres !== undefined) return <Distance metres={body.metres} bearing={body.bearing} />;
  const isOne = (body.suggestions ?? body.features ?? []).length === 1;
  const card = (place: number, ref: string, children: React.ReactNode) => {
    const other = others?.get(ref);
    const differs = others && other !== place;
    return (
      <li
        key={`${ref} ${place}`}
        data-marked={marked === place}
        onMouseEnter={() => onMark(place)}
        onMouseLeave={() => onMark(undefined)}
        onFocus={() => onMark(place)}
        className={`relative rounded-md border bg-page px-4.5 py-3.5 ${marked === place ? "border-ink" : "border-rule"}`}
      >
        <span
          aria-hidden="true"
          className="absolute top-0 bottom-0 left-0 w-1 rounded-l-md"
          style={{ background: `var(--${markerColour(place)})` }}
        />
        {isOne ? null : (
          <span
            className="absolute top-1 left-2 font-mono text-[11px]"
            style={{ color: `var(--${markerColour(place)})` }}
          >
            {place + 1}
          </span>
        )}
        {children}
        {differs ? (
          <p className="mt-2 text-[12px] font-semibold text-ochre">
            {other === undefined ? "only with these settings" : `number ${other + 1} with the other settings`}
          </p>
        ) : null}
      </li>
    );
  };
  return (
    <ol aria-label="Candidates" className="grid gap-2.5">
      {body.suggestions?.map((suggestion, place) =>
        card(place, suggestion.ref, <SuggestionLine {...{ suggestion, onOpen, onInside }} />),
      )}
      {body.features?.map((feature, place) => card(place, feature.id, <FeatureCard {...{ feature, onOpen }} />))}
    </ol>
  );
}

function SuggestionLine({
  suggestion: { ref, kind, line, within, marks, more },
  onOpen,
  onInside,
}: { suggestion: Suggestion } & Pick<CandidatesProps, "onOpen" | "onInside">) {
  const pieces = marks.flatMap(([start, end], i) => [
    { text: line.slice(marks[i - 1]?.[1] ?? 0, start), marked: false },
    { text: line.slice(start, end), marked: true },
  ]);
  pieces.push({ text: line.slice(marks.at(-1)?.[1] ?? 0), marked: false });
  return (
    <div className="flex items-baseline gap-4">
      <div className="min-w-0 flex-1">
        <button
          type="button"
          className="text-left font-serif text-[19px] leading-[26px] hover:underline"
          onClick={() => onOpen(ref)}
        >
          {pieces.map(({ text, marked }, i) =>
            marked ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: pieces of one line have no other name
              <mark key={i} className="bg-transparent font-semibold text-ochre">
                {text}
              </mark>
            ) : (
              text
            ),
          )}
        </button>
        <p className="text-quiet">{within}</p>
      </div>
      {more > 0 ? (
        <button type="button" className="text-[13px] whitespace-nowrap underline" onClick={() => onInside(ref)}>
          {more} inside
        </button>
      ) : null}
      <span className="text-[12px] text-quiet">{kind}</span>
    </div>
  );
}

function FeatureCard({
  feature: { id, properties },
  onOpen,
}: { feature: RecordFeature } & Pick<CandidatesProps, "onOpen">) {
  const { line, lines, kind, exactness, score, differences, distance, bearing, gloss, facts, covers } = properties;
  return (
    <>
      <div className="flex items-start gap-4 max-[560px]:flex-col-reverse max-[560px]:gap-2">
        <div className="min-w-0 flex-1">
          {gloss ? (
            <GlossLine gloss={gloss} />
          ) : (
            <p className="font-serif text-[19px] leading-[26px]">{properties.parts.place?.name ?? line}</p>
          )}
        </div>
        <div className="w-36 flex-none text-right max-[560px]:text-left">
          {score === undefined ? null : <Score score={score} />}
          {distance === undefined ? null : (
            <p className="font-semibold">
              {distance === 0
                ? "contains the position"
                : `${distance} m${bearing === undefined ? "" : `, ${compass(bearing)}`}`}
            </p>
          )}
          <p className="mt-1 text-[12.5px] text-quiet">
            {kind}, {EXACTNESS_WORDS[exactness]}
          </p>
        </div>
      </div>
      <p className="mt-2 text-quiet">{gloss || properties.parts.place ? line : lines.join(" · ")}</p>
      <Differences differences={differences} />
      {covers?.length ? <p className="mt-1 text-quiet">Covers {covers.join(", ")}</p> : null}
      {facts && Object.keys(facts).length ? <Facts facts={facts} /> : null}
      <button type="button" className="mt-1 font-mono text-[12px] text-quiet underline" onClick={() => onOpen(id)}>
        {id}
      </button>
    </>
  );
}

function Score({ score }: { score: number }) {
  return (
    <>
      <p className="text-[16px] font-semibold">{scoreText(score)}</p>
      <span aria-hidden="true" className="mt-1 block h-1 rounded bg-rule">
        <span className="block h-1 rounded bg-ink" style={{ width: `${score * 100}%` }} />
      </span>
    </>
  );
}

const WINDS = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"];

/** The nearest of eight winds. @param bearing degrees clockwise from north */
function compass(bearing: number): string {
  return WINDS[Math.round(bearing / 45) % 8];
}

function Distance({ metres, bearing }: { metres: number; bearing?: number }) {
  const [value, unit] = metres >= 10_000 ? [(metres / 1000).toFixed(1), "km"] : [metres.toFixed(1), "m"];
  return (
    <p className="rounded-md border border-rule bg-page px-5 py-4 font-serif text-[24px]">
      {value} {unit}
      {bearing === undefined ? null : (
        <span className="ml-4 text-[17px] text-quiet">
          to the {compass(bearing)}, {bearing.toFixed(1)}°
        </span>
      )}
    </p>
  );
}
