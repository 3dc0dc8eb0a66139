import type { TraceEvent } from "@bibliotope/kit";
import type { KeepTraceRequest } from "@bibliotope/wire";
import { createListenerMiddleware, type ThunkDispatch, type UnknownAction } from "@reduxjs/toolkit";
import { api } from "./api.ts";
import { includesRole } from "./may.ts";
import { type TraceState, trace } from "./trace.slice.ts";

/** Milliseconds after which a filled form is a run that is over. */
const OVER = 1200;
/** Characters of a trace that are kept: what the server takes in one body, with room to spare. */
const MOST = 100_000;

interface State {
  trace: TraceState;
  draft: { ref: string };
}

/** Keeps what happened with the form: a run by hand when the form is filled, a rehearsal when it ends. */
export const keepTraces = createListenerMiddleware<State, ThunkDispatch<State, unknown, UnknownAction>>();

keepTraces.startListening({
  predicate: (action, now) =>
    trace.ended.match(action) ||
    (trace.happened.match(action) &&
      !now.trace.isRunning &&
      now.trace.about === "" &&
      action.payload.row === "fields" &&
      action.payload.why !== "corrected"),
  effect: async (_, { cancelActiveListeners, delay, dispatch, getState }) => {
    cancelActiveListeners();
    const { trace: seen, draft } = getState();
    if (seen.about === "") await delay(OVER);
    // the next run may have begun meanwhile
    const now = getState().trace;
    const current = now.about === seen.about && now.events[0] === seen.events[0] ? now : seen;
    // somebody who may only view keeps nothing
    const isKept = includesRole(api.endpoints.session.select()(getState() as never).data?.role, "edit");
    if (current.events.length && isKept)
      await dispatch(api.endpoints.keepTrace.initiate({ ref: draft.ref, trace: toKeep(current) }));
  },
});

/** A trace small enough to be kept: long answers of the earliest requests go first. */
export function toKeep({ about, events }: Pick<TraceState, "about" | "events">): KeepTraceRequest {
  const kept: TraceEvent[] = [];
  let room = MOST - JSON.stringify(events.map(withoutAnswer)).length;
  for (const event of events.toReversed()) {
    const bare = withoutAnswer(event);
    const more = event === bare ? 0 : JSON.stringify(event).length - JSON.stringify(bare).length;
    kept.push(more <= room ? event : bare);
    if (more <= room) room -= more;
  }
  return { about, events: kept.reverse() };
}

function withoutAnswer(event: TraceEvent): TraceEvent {
  return event.row === "answered" ? { ...event, answer: null } : event;
}
