import type { TraceEvent } from "@bibliotope/kit";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

const KEPT = 400;

/** What happened since the last lookup began, or in a rehearsal. */
export interface TraceState {
  events: TraceEvent[];
  /** Name of the rehearsal that it is of; empty by hand. */
  about: string;
  isRunning: boolean;
}

const initialState: TraceState = { events: [], about: "", isRunning: false };

const slice = createSlice({
  name: "trace",
  initialState,
  reducers: {
    happened: (state, { payload }: PayloadAction<TraceEvent>) => {
      // the end of something that was requested before all was wiped
      const isEnd = payload.row === "answered" || payload.row === "dropped";
      if (isEnd && !state.events.some((event) => event.row === "requests" && event.id === payload.id)) return;
      // a key or a press of the map after a filled form begins anew
      const last = state.events.at(-1);
      const begins =
        (payload.row === "keys" && payload.key !== "↵") || (payload.row === "requests" && payload.call === "reverse");
      const isOver = state.about !== "" || (last?.row === "fields" && last.why !== "corrected");
      if (begins && isOver && !state.isRunning) {
        state.events = [];
        state.about = "";
      }
      state.events.push(payload);
      if (state.events.length > KEPT) state.events.shift();
    },
    wiped: () => initialState,
    /** A rehearsal begins: all that happens until its end is of it. */
    began: (_, { payload }: PayloadAction<string>) => ({ events: [], about: payload, isRunning: true }),
    ended: (state) => {
      state.isRunning = false;
    },
  },
});

export const traceReducer = slice.reducer;
export const trace = slice.actions;
