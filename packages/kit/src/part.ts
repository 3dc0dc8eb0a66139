/**
 * Loads a part of the kit that only some people need.
 *
 * After a failure, the next call requests the module again. Many browsers keep a module that failed to load as failed, so that call
 * has a fragment of its own behind the address that the browser's error names; the server and every cache see the same address.
 * Where an error names none, the call imports the module as before, which is enough for the other browsers and for bundlers that
 * load by scripts.
 * @param load imports the part
 */
export function part<T>(load: () => Promise<T>): () => Promise<T> {
  let next = load;
  let failures = 0;
  return () =>
    next().catch((error: unknown) => {
      const address = /module: ([^\s#]+)/.exec(`${error}`)?.[1];
      if (address) {
        const again = `${address}#${++failures}`;
        next = () => import(/* webpackIgnore: true */ /* @vite-ignore */ again) as Promise<T>;
      }
      throw error;
    });
}
