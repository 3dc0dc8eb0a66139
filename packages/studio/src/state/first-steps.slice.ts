import { createListenerMiddleware, createSlice, type PayloadAction } from "@reduxjs/toolkit";
import { answers } from "./answer.slice.ts";
import { api } from "./api.ts";

/** What somebody does who is new here, in this order: each is done by doing it. */
export const STEPS = ["tried", "changed", "taken", "imported"] as const;
export type Step = (typeof STEPS)[number];

/** What of it was done in this browser. */
export interface FirstSteps {
  done: Step[];
  /** Put away by hand. */
  isHidden: boolean;
}

const KEY = "bibliotope.first-steps";

/** What was done in earlier visits. */
export function readFirstSteps(stored: string | null): FirstSteps {
  const nothing: FirstSteps = { done: [], isHidden: false };
  try {
    const { done, isHidden } = JSON.parse(stored ?? "null") ?? nothing;
    return { done: STEPS.filter((step) => Array.isArray(done) && done.includes(step)), isHidden: isHidden === true };
  } catch {
    return nothing;
  }
}

const add = (state: FirstSteps, step: Step) => {
  if (!state.done.includes(step)) state.done.push(step);
};

const slice = createSlice({
  name: "firstSteps",
  initialState: () => readFirstSteps(typeof localStorage === "undefined" ? null : localStorage.getItem(KEY)),
  reducers: {
    did: (state, { payload }: PayloadAction<Step>) => add(state, payload),
    hidden: (state) => {
      state.isHidden = true;
    },
  },
  extraReducers: (build) =>
    build
      .addMatcher(answers.filled.match, (state) => add(state, "tried"))
      .addMatcher(api.endpoints.saveDraft.matchFulfilled, (state) => add(state, "changed"))
      .addMatcher(isImport, (state) => add(state, "imported")),
});

/** A file is being imported, and not only tried: the calls about data are loaded later, so it is known by its name. */
function isImport(action: {
  type: string;
  meta?: { arg?: { endpointName?: string; originalArgs?: unknown } };
}): boolean {
  const { endpointName, originalArgs } = action.meta?.arg ?? {};
  const isTrial = (originalArgs as { isTrial?: boolean } | undefined)?.isTrial === true;
  return action.type.endsWith("/executeMutation/fulfilled") && endpointName === "makeLoad" && !isTrial;
}

export const firstStepsReducer = slice.reducer;
export const firstSteps = slice.actions;

/** Keeps what was done for later visits. */
export const keepFirstSteps = createListenerMiddleware<{ firstSteps: FirstSteps }>();
keepFirstSteps.startListening({
  predicate: (_, now, before) => now.firstSteps !== before.firstSteps,
  effect: (_, { getState }) => {
    try {
      localStorage.setItem(KEY, JSON.stringify(getState().firstSteps));
    } catch {
      // storage full or switched off: it is known until the page is left
    }
  },
});
