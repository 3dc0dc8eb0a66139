import {
  type InjectionKey,
  inject,
  type MaybeRefOrGetter,
  onScopeDispose,
  provide,
  type ShallowRef,
  shallowRef,
  toValue,
  watch,
} from "vue";
import { Client, type ClientOptions } from "../client/client.ts";
import { type LookupName, type LookupState, type LookupValues, lookup } from "../lookup/lookup.ts";

export type { ElementComponent } from "./elements.ts";

const SERVICE: InjectionKey<Client> = Symbol("bibliotope");

/** A lookup in a component: the state, and what can be done about it. */
export interface UsedLookup<N extends LookupName> {
  state: Readonly<ShallowRef<LookupState<N>>>;
  /** Asks once more for the same value. */
  again: () => void;
  /** Drops what is on the way. */
  cancel: () => void;
}

/** Gives a client to the composables of the components below this one. @param options a client, or what one is made from */
export function provideBibliotope(options: Client | ClientOptions): Client {
  const client = options instanceof Client ? options : new Client(options);
  provide(SERVICE, client);
  return client;
}

/** The client that a component above has given. @throws {Error} without one */
export function useClient(): Client {
  const client = inject(SERVICE, undefined);
  if (!client) throw new Error("No component above this one has called provideBibliotope.");
  return client;
}

/** Candidates for an address by parts or as text; no request is made while that is undefined. */
export const useForward = (params: MaybeRefOrGetter<LookupValues["forward"] | undefined>, client?: Client) =>
  useLookup("forward", params, client);
/** What lies at a position. */
export const useReverse = (at: MaybeRefOrGetter<LookupValues["reverse"] | undefined>, client?: Client) =>
  useLookup("reverse", at, client);
/** One record by ref. */
export const useRecord = (ref: MaybeRefOrGetter<string | undefined>, client?: Client) =>
  useLookup("record", ref, client);
/** How high the ground lies, in metres above the sea. */
export const useHeight = (at: MaybeRefOrGetter<LookupValues["height"] | undefined>, client?: Client) =>
  useLookup("height", at, client);
/** How far it is from one position to another, in metres in a straight line. */
export const useDistance = (ends: MaybeRefOrGetter<LookupValues["distance"] | undefined>, client?: Client) =>
  useLookup("distance", ends, client);

function useLookup<N extends LookupName>(
  name: N,
  value: MaybeRefOrGetter<LookupValues[N] | undefined>,
  client: Client = useClient(),
): UsedLookup<N> {
  const handle = lookup(client, name);
  const state = shallowRef(handle.state) as ShallowRef<LookupState<N>>;
  const end = handle.subscribe((to) => {
    state.value = to;
  });
  watch(() => toValue(value), handle.set, { immediate: true, deep: true });
  onScopeDispose(() => {
    end();
    handle.cancel();
  });
  return { state, again: handle.again, cancel: handle.cancel };
}
