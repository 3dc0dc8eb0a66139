import type { FormDraft } from "@bibliotope/wire";
import { createListenerMiddleware, type ThunkDispatch, type UnknownAction } from "@reduxjs/toolkit";
import { api, wordsOf } from "./api.ts";
import { type DraftState, draft } from "./draft.slice.ts";
import { forgetUnsaved, keepUnsaved } from "./unsaved.ts";

const PAUSE = 500;
const AGAIN = 3000;

interface State {
  draft: DraftState;
}

/** Saves a draft a moment after each change; what cannot be saved is kept and tried again. */
export const autosave = createListenerMiddleware<State, ThunkDispatch<State, unknown, UnknownAction>>();

autosave.startListening({
  predicate: (_action, now, before) =>
    now.draft.definition !== before.draft.definition &&
    (now.draft.saving === "waiting" || now.draft.saving === "failed"),
  effect: async (_action, { cancelActiveListeners, delay, dispatch, getState }) => {
    const { ref, revision, definition, inFlight } = getState().draft;
    keepUnsaved(ref, { revision, definition });
    // what is being sent goes on by itself with the newest change
    if (inFlight) return;
    cancelActiveListeners();
    await delay(PAUSE);
    for (;;) {
      const state = getState().draft;
      if (state.ref !== ref || state.saving === "conflict" || state.saving === "saved") return;
      dispatch(draft.saveBegan());
      const { saved, problem, status } = await send(dispatch, state);
      if (saved) {
        dispatch(draft.saved({ draft: saved, sent: state.definition }));
        if (getState().draft.saving === "saved") return forgetUnsaved(ref);
        continue;
      }
      const conflict = status === 409;
      dispatch(draft.saveFailed({ words: problem, conflict }));
      if (conflict || status === 400) return;
      await delay(AGAIN);
    }
  },
});

/** Sends a draft. @returns what the server has now, or why it has not */
async function send(
  dispatch: ThunkDispatch<State, unknown, UnknownAction>,
  { ref, revision, definition }: DraftState,
): Promise<{ saved?: FormDraft; problem: string; status?: number | string }> {
  const save = api.endpoints.saveDraft.initiate({ ref, revision, definition });
  const { data, error } = (await dispatch(save)) as { data?: FormDraft; error?: { status?: number | string } };
  return { saved: data, problem: error ? wordsOf(error) : "", status: error?.status };
}
