import type { FormDraft } from "@bibliotope/wire";
import { describe, expect, it } from "vitest";
import { type DraftState, draft, draftReducer } from "./draft.slice.ts";

const LOADED: FormDraft = {
  ref: "a",
  revision: 3,
  savedAt: "2026-11-01T00:00:00Z",
  publishedVersion: 1,
  changed: false,
  definition: {
    title: "A form",
    fields: [
      { name: "town", kind: "text", label: "Town", binding: "{town}" },
      { name: "street", kind: "text", label: "Street" },
    ],
  },
};
type Action = Parameters<typeof draftReducer>[1];
const after = (...actions: Action[]): DraftState => actions.reduce<DraftState | undefined>(draftReducer, undefined)!;
const opened = draft.opened({ draft: LOADED });
const bindingOf = (state: DraftState, name: string) =>
  state.definition.fields.find((field) => field.name === name)?.binding;

describe("the draft in hand", () => {
  it("opens as it was saved", () => {
    expect(after(opened)).toMatchObject({ ref: "a", revision: 3, saving: "saved", past: [] });
  });

  it("opens with what an earlier visit could not save, to be saved now", () => {
    const unsaved = { ...LOADED.definition, title: "Mine" };
    expect(after(draft.opened({ draft: LOADED, unsaved }))).toMatchObject({
      definition: { title: "Mine" },
      saving: "waiting",
      past: [LOADED.definition],
    });
  });

  it("binds a part to a field, and takes the field in hand", () => {
    const state = after(opened, draft.picked("street"), draft.bound({ field: "street", name: "street" }));
    expect(bindingOf(state, "street")).toBe("{street}");
    expect(state).toMatchObject({ selected: "street", picked: undefined, saving: "waiting" });
  });

  it("binds a second part behind the first", () => {
    const state = after(
      opened,
      draft.bound({ field: "street", name: "street" }),
      draft.bound({ field: "street", name: "house" }),
    );
    expect(bindingOf(state, "street")).toBe("{street} {house}");
  });

  it("unbinds, down to nothing", () => {
    const state = after(opened, draft.unbound({ field: "town", name: "town" }));
    expect(bindingOf(state, "town")).toBeUndefined();
    expect(state.definition.fields[0]).not.toHaveProperty("binding");
  });

  it("notes no change where there is none", () => {
    expect(after(opened, draft.bound({ field: "town", name: "town" }))).toMatchObject({ saving: "saved", past: [] });
    expect(after(opened, draft.bound({ field: "nowhere", name: "town" }))).toMatchObject({ saving: "saved", past: [] });
  });

  it("lets a picked part go when it is picked again", () => {
    expect(after(opened, draft.picked("town")).picked).toBe("town");
    expect(after(opened, draft.picked("town"), draft.picked("town")).picked).toBeUndefined();
  });

  it("undoes and redoes, step by step", () => {
    const changed = [
      opened,
      draft.bound({ field: "street", name: "street" }),
      draft.fieldChanged({ field: "town", to: { label: "Place" } }),
    ];
    const undone = after(...changed, draft.undone());
    expect(undone.definition.fields[0].label).toBe("Town");
    expect(bindingOf(undone, "street")).toBe("{street}");
    expect(after(...changed, draft.undone(), draft.undone()).definition).toEqual(LOADED.definition);
    expect(after(...changed, draft.undone(), draft.redone()).definition.fields[0].label).toBe("Place");
    expect(after(opened, draft.undone(), draft.redone()).definition).toEqual(LOADED.definition);
  });

  it("forgets what could be redone after a new change", () => {
    const state = after(
      opened,
      draft.bound({ field: "street", name: "street" }),
      draft.undone(),
      draft.fieldChanged({ field: "town", to: { label: "x" } }),
    );
    expect(state.future).toEqual([]);
  });

  it("drops a setting that was emptied", () => {
    expect(
      after(opened, draft.fieldChanged({ field: "town", to: { binding: "" } })).definition.fields[0],
    ).not.toHaveProperty("binding");
  });
});

describe("saving", () => {
  const bound = draft.bound({ field: "street", name: "street" });

  it("is done when the server has what stands here", () => {
    const before = after(opened, bound);
    const state = draftReducer(
      before,
      draft.saved({ draft: { ...LOADED, revision: 4, changed: true }, sent: before.definition }),
    );
    expect(state).toMatchObject({ saving: "saved", revision: 4, changed: true });
  });

  it("goes on when something changed meanwhile", () => {
    const before = after(opened, bound);
    const later = draftReducer(before, draft.fieldChanged({ field: "town", to: { label: "Later" } }));
    const state = draftReducer(later, draft.saved({ draft: { ...LOADED, revision: 4 }, sent: before.definition }));
    expect(state).toMatchObject({ saving: "waiting", revision: 4 });
    expect(state.definition.fields[0].label).toBe("Later");
  });

  it("knows while a save is under way, whatever changes meanwhile", () => {
    const began = after(opened, bound, draft.saveBegan(), draft.fieldChanged({ field: "town", to: { label: "x" } }));
    expect(began).toMatchObject({ inFlight: true, saving: "waiting" });
    expect(draftReducer(began, draft.saveFailed({ words: "", conflict: false })).inFlight).toBe(false);
    expect(draftReducer(began, draft.saved({ draft: LOADED, sent: LOADED.definition })).inFlight).toBe(false);
  });

  it("keeps what was typed when it fails", () => {
    const state = after(
      opened,
      bound,
      draft.saveBegan(),
      draft.saveFailed({ words: "Database unavailable.", conflict: false }),
    );
    expect(state).toMatchObject({ saving: "failed", words: "Database unavailable." });
    expect(bindingOf(state, "street")).toBe("{street}");
  });

  it("stops at a conflict until the newest is loaded", () => {
    const state = after(
      opened,
      bound,
      draft.saveFailed({ words: "Saved elsewhere.", conflict: true }),
      draft.fieldChanged({ field: "town", to: { label: "x" } }),
    );
    expect(state.saving).toBe("conflict");
  });
});
