import type { ServerResponse } from "node:http";

/** The client has gone away before the answer was there. */
export class GoneAway extends Error {}

/** Ends when the client goes away before it has its answer. */
export function goneSignal(response: ServerResponse): AbortSignal {
  const gone = new AbortController();
  if (response.closed) gone.abort();
  response.once("close", () => {
    if (!response.writableFinished) gone.abort();
  });
  return gone.signal;
}

/** Waits for something, but no longer than somebody waits for it. @throws GoneAway as soon as the signal ends */
export function unlessGone<T>(made: Promise<T>, gone: AbortSignal | undefined): Promise<T> {
  if (!gone) return made;
  return new Promise<T>((resolve, reject) => {
    const leave = () => reject(new GoneAway());
    if (gone.aborted) return leave();
    gone.addEventListener("abort", leave, { once: true });
    made.then(resolve, reject).finally(() => gone.removeEventListener("abort", leave));
  });
}
