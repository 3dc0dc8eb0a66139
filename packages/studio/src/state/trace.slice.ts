import type { TraceEvent } from "@bibliotope/kit";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

const KEPT = 400;

/** What happened since the last lookup began. */
export interface TraceState {
  events: TraceEvent[];
}

const initialState: TraceState = { events: [] };

const slice = createSlice({
  name: "trace",
  initialState,
  reducers: {
    happened: (state, { payload }: PayloadAction<TraceEvent>) => {
      // a key or a press of the map after a filled form begins anew
      const last = state.events.at(-1);
      const begins =
        (payload.row === "keys" && payload.key !== "↵") || (payload.row === "requests" && payload.call === "reverse");
      if (begins && last?.row === "fields" && last.why !== "corrected") state.events = [];
      state.events.push(payload);
      if (state.events.length > KEPT) state.events.shift();
    },
    wiped: (state) => {
      state.events = [];
    },
  },
});

export const traceReducer = slice.reducer;
export const trace = slice.actions;
