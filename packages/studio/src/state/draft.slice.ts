import { bindName, type Field, type FormDefinition, unbindName } from "@bibliotope/core/form";
import type { FormDraft } from "@bibliotope/wire";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

/** How saving goes. `waiting`: changed, not yet sent; `failed`: kept here and tried again; `conflict`: changed elsewhere. */
type Saving = "saved" | "waiting" | "saving" | "failed" | "conflict";

export interface DraftState {
  ref: string;
  revision: number;
  savedAt: string;
  publishedVersion: number | null;
  /** True when the draft differs from what is published. */
  changed: boolean;
  definition: FormDefinition;
  past: FormDefinition[];
  future: FormDefinition[];
  saving: Saving;
  /** A save is under way; a change meanwhile is sent after it. */
  inFlight: boolean;
  /** Why saving failed. */
  words: string;
  /** Name of the field in hand. */
  selected: string | undefined;
  /** Part picked by keyboard, waiting for a field. */
  picked: string | undefined;
}

const STEPS_KEPT = 100;
const EMPTY: DraftState = {
  ref: "",
  revision: 0,
  savedAt: "",
  publishedVersion: null,
  changed: false,
  definition: { title: "", fields: [] },
  past: [],
  future: [],
  saving: "saved",
  inFlight: false,
  words: "",
  selected: undefined,
  picked: undefined,
};

const slice = createSlice({
  name: "draft",
  initialState: EMPTY,
  reducers: {
    /** A draft was loaded; `unsaved` is what an earlier visit could not save. */
    opened: (_state, { payload }: PayloadAction<{ draft: FormDraft; unsaved?: FormDefinition }>): DraftState => ({
      ...EMPTY,
      ...payload.draft,
      ...(payload.unsaved
        ? { definition: payload.unsaved, saving: "waiting" as const, past: [payload.draft.definition] }
        : {}),
    }),
    selected: (state, { payload }: PayloadAction<string | undefined>) => {
      state.selected = payload;
    },
    picked: (state, { payload }: PayloadAction<string | undefined>) => {
      state.picked = state.picked === payload ? undefined : payload;
    },
    bound: (state, { payload: { field, name } }: PayloadAction<{ field: string; name: string }>) => {
      change(state, field, (existing) => {
        existing.binding = bindName(existing.binding, name);
      });
      state.picked = undefined;
      state.selected = field;
    },
    unbound: (state, { payload: { field, name } }: PayloadAction<{ field: string; name: string }>) =>
      change(state, field, (existing) => {
        const left = unbindName(existing.binding ?? "", name);
        if (left === undefined) delete existing.binding;
        else existing.binding = left;
      }),
    fieldChanged: (state, { payload: { field, to } }: PayloadAction<{ field: string; to: Partial<Field> }>) =>
      change(state, field, (existing) => {
        Object.assign(existing, to);
        for (const name of ["autofill", "binding", "placeholder", "help"] as const)
          if (existing[name] === "") delete existing[name];
      }),
    /** The form's structure was changed: a field added, moved, renamed, taken out; a rule changed. */
    edited: (state, { payload }: PayloadAction<{ definition: FormDefinition; selected?: string }>) => {
      if (payload.selected !== undefined) state.selected = payload.selected || undefined;
      remember(state, state.definition, payload.definition);
    },
    undone: (state) => {
      const before = state.past.pop();
      if (!before) return;
      state.future.push(state.definition);
      settle(state, before);
    },
    redone: (state) => {
      const after = state.future.pop();
      if (!after) return;
      state.past.push(state.definition);
      settle(state, after);
    },
    saveBegan: (state) => {
      state.saving = "saving";
      state.inFlight = true;
    },
    saveFailed: (state, { payload }: PayloadAction<{ words: string; conflict: boolean }>) => {
      state.inFlight = false;
      state.saving = payload.conflict ? "conflict" : "failed";
      state.words = payload.words;
    },
    /** The server has it. Changes made meanwhile stay, and are sent next. */
    saved: (state, { payload: { draft, sent } }: PayloadAction<{ draft: FormDraft; sent: FormDefinition }>) => {
      // another form was opened meanwhile
      if (draft.ref !== state.ref) return;
      const { revision, savedAt, publishedVersion, changed } = draft;
      Object.assign(state, { revision, savedAt, publishedVersion, changed, words: "", inFlight: false });
      state.saving = JSON.stringify(sent) === JSON.stringify(state.definition) ? "saved" : "waiting";
    },
    published: (state, { payload }: PayloadAction<FormDraft>) =>
      void Object.assign(state, { publishedVersion: payload.publishedVersion, changed: payload.changed }),
  },
});

function change(state: DraftState, field: string, how: (field: Field) => void): void {
  const before = JSON.parse(JSON.stringify(state.definition)) as FormDefinition;
  const found = state.definition.fields.find(({ name }) => name === field);
  if (!found) return;
  how(found);
  remember(state, before, state.definition);
}

/** Takes a definition in place of the one before, which can be brought back. */
function remember(state: DraftState, before: FormDefinition, after: FormDefinition): void {
  if (JSON.stringify(before) === JSON.stringify(after)) return;
  state.past = [...state.past.slice(-STEPS_KEPT), before];
  state.future = [];
  settle(state, after);
}

function settle(state: DraftState, definition: FormDefinition): void {
  state.definition = definition;
  if (state.saving !== "conflict") state.saving = "waiting";
}

export const draftReducer = slice.reducer;
export const draft = slice.actions;
