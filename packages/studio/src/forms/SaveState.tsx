import { useEffect } from "react";
import { useSessionQuery } from "../state/api.ts";
import { draft } from "../state/draft.slice.ts";
import { useStudio, useStudioDispatch } from "../state/store.ts";
import { forgetUnsaved } from "../state/unsaved.ts";
import { Button } from "../ui/Button.tsx";
import { moment } from "../ui/moment.ts";

/** Shows whether the draft is saved, and why not; undo and redo are beside it. */
export function SaveState({ reload }: { reload: () => void }) {
  const state = useStudio(({ draft }) => draft);
  const dispatch = useStudioDispatch();
  const mayOnlyLook = useSessionQuery().data?.role === "look";
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const inText = (event.target as HTMLElement).closest("input, textarea");
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "z" || inText) return;
      event.preventDefault();
      dispatch(event.shiftKey ? draft.redone() : draft.undone());
    };
    document.addEventListener("keydown", pressed);
    return () => document.removeEventListener("keydown", pressed);
  }, [dispatch]);
  const loadNewest = () => {
    forgetUnsaved(state.ref);
    reload();
  };
  return (
    <>
      <span
        role="status"
        className={state.saving === "failed" || state.saving === "conflict" ? "text-ochre" : "text-quiet"}
      >
        {mayOnlyLook
          ? `draft ${state.revision} · read-only: your changes are not saved`
          : wordsFor(state.saving, state.revision, state.savedAt, state.words)}
      </span>
      {state.saving === "conflict" ? <Button onClick={loadNewest}>Load the newest version</Button> : null}
      {state.past.length ? <Button onClick={() => dispatch(draft.undone())}>Undo</Button> : null}
      {state.future.length ? <Button onClick={() => dispatch(draft.redone())}>Redo</Button> : null}
    </>
  );
}

function wordsFor(saving: string, revision: number, savedAt: string, words: string): string {
  if (saving === "saved") return `draft ${revision} · saved ${moment(savedAt)}`;
  if (saving === "failed") return `Not saved: ${words} Your changes are still here.`;
  return saving === "conflict" ? words : `draft ${revision} · saving`;
}
