import { combineReducers, configureStore } from "@reduxjs/toolkit";
import { useDispatch, useSelector } from "react-redux";
import { answerReducer } from "./answer.slice.ts";
import { api } from "./api.ts";
import { autosave } from "./autosave.ts";
import { csrfReducer } from "./csrf.slice.ts";
import { draftReducer } from "./draft.slice.ts";
import { firstStepsReducer, keepFirstSteps } from "./first-steps.slice.ts";
import { keepTraces } from "./keep-traces.ts";
import { traceReducer } from "./trace.slice.ts";

const reducer = combineReducers({
  [api.reducerPath]: api.reducer,
  csrf: csrfReducer,
  draft: draftReducer,
  trace: traceReducer,
  answer: answerReducer,
  firstSteps: firstStepsReducer,
});

function makeStore() {
  return configureStore({
    reducer,
    middleware: (usual) =>
      usual().prepend(autosave.middleware, keepTraces.middleware, keepFirstSteps.middleware).concat(api.middleware),
  });
}

export const store = makeStore();

export type RootState = ReturnType<typeof reducer>;
export const useStudio = useSelector.withTypes<RootState>();
export const useStudioDispatch = useDispatch.withTypes<(typeof store)["dispatch"]>();
