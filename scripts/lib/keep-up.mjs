import { setTimeout as wait } from "node:timers/promises";

/** Milliseconds before what ended is started again: the first time, for whoever is asking now; the second; and at most. */
const PAUSES = { first: 50, second: 1000, most: 15_000 };
/** A server that was ready for so many milliseconds begins again with the first pause: it does not fail by itself as soon as it is there. */
const STEADY = 10_000;
/** What a server ends with that cannot start, and has said why. */
const CANNOT_START = 2;
/** What a server ends with that wants to begin anew: the database was put back from a backup. */
const BEGINS_ANEW = 75;
/** Starts that may fail before the first one is ready. */
const FIRST_TRIES = 5;

/**
 * Keeps a server running: when it ends by itself it is started again, with growing pauses.
 *
 * @param options.start starts it; gives `ended` (a promise of its exit code) and `ready`
 * @param options.stop a signal that says that it is to stop
 * @param options.say hears what happens, in words for a person
 * @returns the exit code of the command
 */
export async function keepUp({ start, stop, say, pauses = PAUSES, steady = STEADY }) {
  let pause = pauses.first;
  let wasReady = false;
  for (let tries = 1; !stop.aborted; tries++) {
    const server = await start();
    let readySince = 0;
    server.ready.then(
      () => {
        readySince = Date.now();
        wasReady = true;
      },
      () => undefined,
    );
    const code = await server.ended;
    if (stop.aborted) break;
    if (code === BEGINS_ANEW) continue;
    if (!wasReady && (code === CANNOT_START || tries === FIRST_TRIES)) return code || 1;
    if (readySince && Date.now() - readySince > steady) pause = pauses.first;
    say(`The server ended by itself (${wordsOf(code)}). Starting it again in ${secondsOf(pause)}`);
    await wait(pause, undefined, { signal: stop }).catch(() => undefined);
    pause = Math.min(Math.max(pause * 2, pauses.second), pauses.most);
  }
  return 0;
}

/** What an exit code tells. */
function wordsOf(code) {
  if (code === 70) return "code 70: an error that nobody expected, which its log has";
  if (code === 134) return "code 134: it was out of memory, or Node itself failed";
  if (code === 137) return "it was killed, as the system does when memory runs out";
  return `code ${code}`;
}

const secondsOf = (milliseconds) => `${milliseconds / 1000} s`;
