/**
 * Work that looks at what is there now. Whoever asks for it gets a run that began after they asked, since one that was
 * under way may have looked before; all who ask meanwhile share the next one. Never two at a time.
 */
export function onceMore(work: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | undefined;
  let next: Promise<void> | undefined;
  const run = () => {
    next = undefined;
    running = work().finally(() => {
      running = undefined;
    });
    return running;
  };
  return () => {
    if (!running) return run();
    next ??= running.then(run, run);
    return next;
  };
}
