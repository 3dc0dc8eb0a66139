import { useCallback, useEffect, useState, useSyncExternalStore } from "react";
import type { LookupError } from "../client/errors.ts";
import { type Lookup, type LookupName, type LookupState, type LookupValues, lookup } from "../lookup/lookup.ts";
import { useClient } from "./service.tsx";
import { useLatest } from "./use-latest.ts";

/** A lookup in a component: the state, and what can be done about it. */
export interface UsedLookup<N extends LookupName> extends LookupState<N> {
  /** Asks once more for the same value. */
  again: () => void;
  /** Drops what is on the way. */
  cancel: () => void;
}

export interface UseLookupOptions {
  /**
   * Lets the component wait within the Suspense around it until there is a first answer, and throws what failed to the boundary of
   * errors; else both are states.
   */
  suspense?: boolean;
}

/** Candidates for an address by parts or as text; no request is made while that is undefined. */
export const useForward = (params: LookupValues["forward"] | undefined, options?: UseLookupOptions) =>
  useLookup("forward", params, options);
/** What lies at a position. */
export const useReverse = (at: LookupValues["reverse"] | undefined, options?: UseLookupOptions) =>
  useLookup("reverse", at, options);
/** One record by ref. */
export const useRecord = (ref: string | undefined, options?: UseLookupOptions) => useLookup("record", ref, options);
/** How high the ground lies, in metres above the sea. */
export const useHeight = (at: LookupValues["height"] | undefined, options?: UseLookupOptions) =>
  useLookup("height", at, options);
/** How far it is from one position to another, in metres in a straight line. */
export const useDistance = (ends: LookupValues["distance"] | undefined, options?: UseLookupOptions) =>
  useLookup("distance", ends, options);

function useLookup<N extends LookupName>(
  name: N,
  value: LookupValues[N] | undefined,
  { suspense = false }: UseLookupOptions = {},
): UsedLookup<N> {
  const client = useClient();
  const key = value === undefined ? undefined : JSON.stringify(value);
  // a component that waits is thrown away and made anew: what it waits for is kept with the client
  const [own, setOwn] = useState<{ client: unknown; handle: Lookup<N> }>(() => ({
    client,
    handle: lookup(client, name),
  }));
  const waiting = suspense && key !== undefined ? waitingFor(client, name, value!, key) : undefined;
  let { handle } = own;
  if (own.client !== client) {
    handle = lookup(client, name);
    setOwn({ client, handle });
  }
  if (waiting) handle = waiting;
  const latest = useLatest(value);
  useEffect(() => {
    // in strict mode this runs twice: the first question is dropped before it is answered
    handle.set(key === undefined ? undefined : latest.current);
  }, [handle, key]);
  useEffect(() => () => handle.cancel(), [handle]);
  const subscribe = useCallback((heard: () => void) => handle.subscribe(heard), [handle]);
  const state = useSyncExternalStore(
    subscribe,
    () => handle.state,
    () => handle.state,
  );
  if (waiting && state.status === "failed") throw state.error as LookupError;
  if (waiting && state.result === undefined && state.status === "waiting") throw ended(waiting);
  return { ...state, again: handle.again, cancel: handle.cancel };
}

const kept = new WeakMap<object, Map<string, Lookup<LookupName>>>();
/** Lookups that are kept for components that wait. */
const MOST = 50;

function waitingFor<N extends LookupName>(client: object, name: N, value: LookupValues[N], key: string): Lookup<N> {
  let all = kept.get(client);
  if (!all) {
    all = new Map();
    kept.set(client, all);
  }
  const own = `${name} ${key}`;
  let handle = all.get(own) as Lookup<N> | undefined;
  if (!handle) {
    handle = lookup(client as Parameters<typeof lookup>[0], name, value);
    all.set(own, handle as unknown as Lookup<LookupName>);
    if (all.size > MOST) all.delete([...all.keys()][0]);
  }
  return handle;
}

/** Resolves once a lookup is answered, or has failed. */
const ended = <N extends LookupName>(handle: Lookup<N>) =>
  new Promise<void>((resolve) => {
    const end = handle.subscribe(({ status }) => {
      if (status !== "done" && status !== "failed") return;
      queueMicrotask(() => end());
      resolve();
    });
  });
