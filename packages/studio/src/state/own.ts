import { type OwnAnswer, type OwnCallName, type OwnRequest, ownRequest } from "@bibliotope/wire";
import { BASE_PATH } from "./service-url.ts";

/** An endpoint of RTK Query, as far as a call makes it. */
interface Endpoint<N extends OwnCallName, Arg, Shown> {
  query: (arg: Arg) => { url: string; method: string; body?: object; timeout?: number };
  transformResponse: (answer: OwnAnswer<N>) => Shown;
}
/** Milliseconds after which what goes over all data is given up, rather than after the usual time. */
const TIMEOUTS: Partial<Record<OwnCallName, number>> = { coverage: 120_000, difference: 120_000 };

/** Calls that ask nothing. */
type BareCall = { [N in OwnCallName]: unknown extends OwnRequest<N> ? N : never }[OwnCallName];

/**
 * How a call of the workbench is made: with it come the types of requests and responses.
 * @param request the parameters, from what a component has; nothing for a call that asks nothing
 * @param shown what of the answer components get; all of it when not given
 */
export function own<N extends BareCall, Shown = OwnAnswer<N>>(
  name: N,
  request?: undefined,
  shown?: (answer: OwnAnswer<N>) => Shown,
): Endpoint<N, void, NoInfer<Shown>>;
export function own<N extends OwnCallName, Arg, Shown = OwnAnswer<N>>(
  name: N,
  request: (arg: Arg) => OwnRequest<N>,
  shown?: (answer: OwnAnswer<N>) => Shown,
): Endpoint<N, Arg, NoInfer<Shown>>;
export function own<N extends OwnCallName, Arg, Shown>(
  name: N,
  request?: (arg: Arg) => OwnRequest<N>,
  shown = (answer: OwnAnswer<N>) => answer as Shown,
): Endpoint<N, Arg, Shown> {
  return {
    // the base query puts /api in front
    query: (arg) => ({
      ...ownRequest(name, request?.(arg) ?? ({} as OwnRequest<N>), ""),
      timeout: TIMEOUTS[name],
    }),
    transformResponse: shown,
  };
}

/** The address of a call of the workbench, for links and for what does not go through the store. */
export const callUrl = <N extends OwnCallName>(name: N, request: OwnRequest<N>): string =>
  ownRequest(name, request, `${BASE_PATH}/api`).url;
