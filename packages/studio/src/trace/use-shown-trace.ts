import type { TraceEvent } from "@bibliotope/kit";
import { useEffect, useState } from "react";
import { useTraceQuery, useTracesQuery } from "../state/api.ts";
import { useStudio } from "../state/store.ts";
import type { MomentOf } from "./har.ts";

/** The trace that is looked at: what happens now, or one that was kept with the form. */
export function useShownTrace() {
  const ref = useStudio(({ draft }) => draft.ref);
  const now = useStudio(({ trace }) => trace.events);
  const { data: kept = [] } = useTracesQuery(ref);
  const [shown, setShown] = useState<number>();
  const { data: earlier } = useTraceQuery({ ref, id: shown ?? 0 }, { skip: shown === undefined });
  // what happens now comes first again as soon as something happens
  // biome-ignore lint/correctness/useExhaustiveDependencies: its events are what is waited for
  useEffect(() => setShown(undefined), [ref, now]);
  const loaded = shown === undefined ? undefined : earlier?.id === shown ? earlier : undefined;
  const events = shown === undefined ? now : ((loaded?.events ?? []) as TraceEvent[]);
  const last = events.at(-1)?.at ?? 0;
  const momentOf: MomentOf = (at) =>
    new Date(loaded ? Date.parse(loaded.keptAt) - (last - at) : performance.timeOrigin + at);
  return { events, kept, shown, show: setShown, momentOf };
}
