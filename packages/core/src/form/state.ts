import type { Filling } from "./binding.ts";

/** What a lookup has put into a form, and what the person has made theirs. Plain data. */
export interface FormState {
  /** Value by field, as it was filled. */
  filled: Readonly<Record<string, string>>;
  /** Fields that the person has changed since. */
  corrected: readonly string[];
}

export const EMPTY_STATE: FormState = { filled: {}, corrected: [] };

/** Values to write into fields, and the state afterwards. */
export interface Step {
  state: FormState;
  write: Filling[];
}

/**
 * A new answer replaces every field that it fills, corrected ones too, so that no old value is left behind. Fields of
 * other addresses stay as they are.
 */
export function fill({ filled, corrected }: FormState, fillings: readonly Filling[]): Step {
  const names = new Set(fillings.map(({ field }) => field));
  return {
    state: {
      filled: { ...filled, ...Object.fromEntries(fillings.map(({ field, value }) => [field, value])) },
      corrected: corrected.filter((name) => !names.has(name)),
    },
    write: [...fillings],
  };
}

/** The person has typed into a field: it is theirs from now on, unless it says again what was filled. */
export function correct(state: FormState, field: string, value: string): FormState {
  if (!Object.hasOwn(state.filled, field)) return state;
  const others = state.corrected.filter((name) => name !== field);
  return { ...state, corrected: state.filled[field] === value ? others : [...others, field] };
}

/** Gives a corrected field back to the lookup: what was filled stands in it again. */
export function giveBack(state: FormState, field: string): Step {
  if (!state.corrected.includes(field)) return { state, write: [] };
  return {
    state: { ...state, corrected: state.corrected.filter((name) => name !== field) },
    write: [{ field, value: state.filled[field] }],
  };
}

/**
 * The starting field was cleared: what it filled is cleared, what the person corrected stays.
 * @param fields those of the address; all when not given
 */
export function clearFilled({ filled, corrected }: FormState, fields: readonly string[] = Object.keys(filled)): Step {
  const its = Object.keys(filled).filter((field) => fields.includes(field));
  const write = its.filter((field) => !corrected.includes(field)).map((field) => ({ field, value: "" }));
  return {
    state: {
      filled: Object.fromEntries(Object.entries(filled).filter(([field]) => !its.includes(field))),
      corrected: corrected.filter((field) => !its.includes(field)),
    },
    write,
  };
}
