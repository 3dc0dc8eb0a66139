import { type Position, sphereDistance } from "@bibliotope/core/geo";
import type { ForwardAnswer, RecordAnswer, ReverseAnswer } from "@bibliotope/wire";
import type { Client, Params } from "../client/client.ts";
import { LookupError, unreachable } from "../client/errors.ts";
import { metresBetween } from "../form/metres.ts";

/** A position, and what a lookup there is narrowed to. */
export interface ReverseParams {
  at: Position;
  /** Such as `address,street`. */
  kinds?: string;
  /** Such as `QR,QV`. */
  countries?: string;
  /** Metres. */
  radius?: number;
  limit?: number;
  lang?: string;
}

/** The parameters of each lookup: a value goes in, and an answer comes out. */
export interface LookupValues {
  forward: Params;
  reverse: Position | ReverseParams;
  record: string;
  height: Position;
  distance: readonly [from: Position, to: Position];
}

/** What each lookup answers: records, metres above the sea (null outside the data), metres in a straight line. */
export interface LookupResults {
  forward: ForwardAnswer;
  reverse: ReverseAnswer;
  record: RecordAnswer;
  height: number | null;
  distance: number;
}
/** Lookups that need no search box. */
export type LookupName = keyof LookupValues;

/**
 * The state of a lookup: no request yet, on the way, answered, failed. While another value is on the way, what was answered last stays
 * there, marked as that of the value before.
 */
export interface LookupState<N extends LookupName> {
  status: "idle" | "waiting" | "done" | "failed";
  /** The answer to the value that is requested now; with `isOld`, to the one before. */
  result: LookupResults[N] | undefined;
  isOld: boolean;
  /** Why there is no answer. Its message is for the person. */
  error: LookupError | undefined;
}

/** A lookup without a search box: a value goes in, and the state comes out. */
export interface Lookup<N extends LookupName> {
  readonly state: LookupState<N>;
  /** Asks for another value; the same one is not requested again. With undefined no request is made. */
  set(value: LookupValues[N] | undefined): void;
  /** Asks once more for the same value. */
  again(): void;
  /** Drops what is on the way; what was answered stays. */
  cancel(): void;
  /** Hears the state, at once and whenever that changes. @returns what ends it */
  subscribe(heard: (state: LookupState<N>) => void): () => void;
}

type Ask<N extends LookupName> = (
  client: Client,
  value: LookupValues[N],
  signal: AbortSignal,
) => Promise<LookupResults[N]>;

const ASKS: { [N in LookupName]: Ask<N> } = {
  forward: (client, params, signal) => client.forward(params, signal),
  reverse: (client, value, signal) => {
    if (!("at" in value)) return client.reverse(value, {}, signal);
    const { at, ...params } = value;
    return client.reverse(at, params, signal);
  },
  record: (client, ref, signal) => client.record(ref, {}, signal),
  height: async (client, at, signal) => (await client.height(at, signal)).metres,
  distance: async (_client, [from, to]) => (sphereDistance(from, to) === 0 ? 0 : metresBetween(from, to)),
};

/** In place of a value that was dropped: no JSON is this. */
const DROPPED = "dropped";

const IDLE = { status: "idle", result: undefined, isOld: false, error: undefined } as const;

/**
 * A lookup as a value that can be observed: requested again when its value changes, and an answer to an earlier value is dropped. For
 * pages without a framework, and for whatever is to be made of it in one.
 *
 * @example
 * const where = lookup(client, "reverse");
 * where.subscribe(({ status, result, error }) => show(status, result?.features[0], error?.message));
 * where.set({ lat: -35.1841, lon: -21.6253 });
 */
export function lookup<N extends LookupName>(client: Client, name: N, value?: LookupValues[N]): Lookup<N> {
  let state: LookupState<N> = IDLE;
  let last: LookupValues[N] | undefined;
  let key: string | undefined;
  let underWay: AbortController | undefined;
  const listeners = new Set<(state: LookupState<N>) => void>();
  const change = (to: Partial<LookupState<N>>) => {
    state = { ...state, ...to };
    for (const heard of listeners) heard(state);
  };
  const drop = () => {
    underWay?.abort();
    underWay = undefined;
  };
  const ask = async (wanted: LookupValues[N]) => {
    drop();
    const mine = new AbortController();
    underWay = mine;
    change({ status: "waiting", isOld: state.result !== undefined, error: undefined });
    try {
      const result = await ASKS[name](client, wanted, mine.signal);
      // an answer that comes although nobody wants it any more is to an earlier value
      if (underWay !== mine) return;
      underWay = undefined;
      change({ status: "done", result, isOld: false });
    } catch (error) {
      if (underWay !== mine) return;
      underWay = undefined;
      // what is thrown by the way in which it is asked is a fault of ours, and no answer all the same
      const failed = error instanceof LookupError ? error : unreachable("offline");
      change({ status: "failed", result: undefined, isOld: false, error: failed });
    }
  };
  const made: Lookup<N> = {
    get state() {
      return state;
    },
    set(next) {
      const wanted = next === undefined ? undefined : JSON.stringify(next);
      if (wanted === key) return;
      key = wanted;
      last = next;
      if (next !== undefined) return void ask(next);
      drop();
      change(IDLE);
    },
    again() {
      if (last !== undefined) void ask(last);
    },
    cancel() {
      if (!underWay) return;
      drop();
      change({ status: state.result === undefined ? "idle" : "done" });
      // the same value may be called anew
      key = DROPPED;
    },
    subscribe(heard) {
      listeners.add(heard);
      heard(state);
      return () => {
        listeners.delete(heard);
      };
    },
  };
  made.set(value);
  return made;
}
