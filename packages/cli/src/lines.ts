import type { DistanceAnswer, ForwardAnswer, HeightAnswer, SuggestAnswer } from "@bibliotope/wire";

/** Suggestions as lines of a terminal: ref, kind, line, what it lies in. */
export function suggestionLines({ suggestions, advice }: SuggestAnswer): string[] {
  const lines = suggestions.map(({ ref, kind, line, within, more }) =>
    [ref, kind.padEnd(8), line, within, more ? `(${more} inside)` : ""].filter(Boolean).join("  "),
  );
  return lines.length ? lines : ["Nothing found.", ...advice];
}

/** Candidates as lines of a terminal: ref, kind, how sure or how far, line, position. */
export function candidateLines({ features, advice }: Pick<ForwardAnswer, "features" | "advice">): string[] {
  const lines = features.map(({ id, properties: { kind, score, distance, line, at } }) => {
    const how = score !== undefined ? score.toFixed(2) : distance !== undefined ? `${distance} m` : "";
    return [id, kind.padEnd(8), how.padStart(7), line, `${at.lat},${at.lon}`].join("  ");
  });
  return lines.length ? [...lines, ...advice] : ["Nothing found.", ...advice];
}

export const distanceLines = ({ metres, bearing }: DistanceAnswer): string[] => [
  `${metres} m${bearing === undefined ? "" : `, at ${bearing}°`}`,
];

/** One height, or several. */
export const heightLines = (answer: HeightAnswer | { heights: (number | null)[] }): string[] =>
  ("heights" in answer ? answer.heights : [answer.metres]).map((metres) =>
    metres === null ? "There is no elevation data there." : `${metres} m`,
  );
