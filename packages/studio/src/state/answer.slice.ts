import type { FormAnswer } from "@bibliotope/core/form";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

/** The address in hand: what the gutter shows. */
export interface AnswerState {
  answer: FormAnswer | undefined;
}

const initialState: AnswerState = { answer: undefined };

const slice = createSlice({
  name: "answer",
  initialState,
  reducers: {
    filled: (state, { payload }: PayloadAction<FormAnswer>) => {
      state.answer = payload;
    },
    cleared: (state) => {
      state.answer = undefined;
    },
  },
});

export const answerReducer = slice.reducer;
export const answers = slice.actions;
