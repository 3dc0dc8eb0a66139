import { createListenerMiddleware } from "@reduxjs/toolkit";
import { api, wordsOf } from "./api.ts";
import { type DraftState, draft } from "./draft.slice.ts";
import { forgetUnsaved, keepUnsaved } from "./unsaved.ts";

const PAUSE = 500;
const AGAIN = 3000;

/** Saves a draft a moment after each change; what cannot be saved is kept and tried again. */
export const autosave = createListenerMiddleware();

autosave.startListening({
  predicate: (_action, now, before) => {
    const [a, b] = [(now as State).draft, (before as State).draft];
    return a.definition !== b.definition && (a.saving === "waiting" || a.saving === "failed");
  },
  effect: async (_action, { cancelActiveListeners, delay, dispatch, getState }) => {
    cancelActiveListeners();
    const { ref, revision, definition } = (getState() as State).draft;
    keepUnsaved(ref, { revision, definition });
    await delay(PAUSE);
    for (;;) {
      const state = (getState() as State).draft;
      if (state.ref !== ref || state.saving === "conflict" || state.saving === "saved") return;
      dispatch(draft.saveBegan());
      const sent = state.definition;
      const result = (await dispatch(
        api.endpoints.saveDraft.initiate({ ref, revision: state.revision, definition: sent }) as never,
      )) as unknown as { data?: import("@bibliotope/wire").FormDraft; error?: { status?: number } };
      if (result.data) {
        dispatch(draft.saved({ draft: result.data, sent }));
        if ((getState() as State).draft.saving === "saved") return forgetUnsaved(ref);
        continue;
      }
      const conflict = result.error?.status === 409;
      dispatch(draft.saveFailed({ words: wordsOf(result.error), conflict }));
      if (conflict || result.error?.status === 400) return;
      await delay(AGAIN);
    }
  },
});

interface State {
  draft: DraftState;
}
