import { shortLine } from "@bibliotope/core/form";
import { readPosition } from "@bibliotope/core/geo";
import type { Spot } from "./CandidateMap.tsx";
import type { LookupQuery } from "./lookup-query.ts";
import { bodyOf, type LookupState } from "./use-answer.ts";

/** What an answer shows on the map. */
export function spotsOf(body: ReturnType<typeof bodyOf>): Spot[] {
  const found = [
    ...(body?.suggestions ?? []).map(({ at, line }) => ({ at, label: line })),
    ...(body?.features ?? []).map(({ properties }) => ({ at: properties.at, label: shortLine(properties) })),
  ];
  return found;
}

/** The two ends of a distance, once both are positions. */
export function lineOf({ call, words }: LookupQuery) {
  const [from, to] = call === "distance" ? [words.from, words.to].map((text) => readPosition(text ?? "")) : [];
  return from && to ? [from, to] : undefined;
}

/** Where each ref is in an answer. */
export function placesOf(body: ReturnType<typeof bodyOf>): Map<string, number> | undefined {
  return (
    body &&
    new Map(
      [...(body.suggestions ?? []).map(({ ref }) => ref), ...(body.features ?? []).map(({ id }) => id)].map(
        (ref, i) => [ref, i],
      ),
    )
  );
}

/** An answer in a line: what was found, how long it took, its size. */
export function statusOf({ answer, loading, failed }: LookupState): string {
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
