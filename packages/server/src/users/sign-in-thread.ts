import { Worker } from "node:worker_threads";
import { InTurn } from "../jobs/in-turn.ts";
import type { SignInCall, SignInResult, SignInTask, SignInWork } from "./sign-in.worker.ts";

interface Waiting {
  resolve: (result: never) => void;
  reject: (error: Error) => void;
}

/** The thread, and what was handed to it and is not done yet. */
interface Thread {
  worker: Worker;
  waiting: Map<number, Waiting>;
}

/** Anybody may ask for its work, without a session: what would wait behind many others is refused. */
const turns = new InTurn(8, 200);

let thread: Thread | undefined;
let count = 0;

/**
 * Does a piece of the work of signing in in a thread of its own. What it needs takes some tenths of a second to load,
 * for which lookups do not wait; the thread is started when it is first needed, and again if it ended.
 * @throws Error with the words of what was thrown there
 * @throws Busy where too many wait
 */
export function inSignInThread<C extends SignInCall>(
  call: C,
  options: Parameters<SignInWork[C]>[0],
): Promise<Awaited<ReturnType<SignInWork[C]>>> {
  return turns.run(() => handOver(call, options));
}

function handOver<C extends SignInCall>(
  call: C,
  options: Parameters<SignInWork[C]>[0],
): Promise<Awaited<ReturnType<SignInWork[C]>>> {
  thread ??= start();
  const { worker, waiting } = thread;
  const id = ++count;
  return new Promise((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    // while somebody waits for it the process goes on
    worker.ref();
    worker.postMessage({ id, call, options } satisfies SignInTask);
  });
}

function start(): Thread {
  const worker = new Worker(new URL("./sign-in.worker.js", import.meta.url));
  const started: Thread = { worker, waiting: new Map() };
  const { waiting } = started;
  worker.on("message", (answer: SignInResult) => {
    const waited = waiting.get(answer.id);
    waiting.delete(answer.id);
    if (waiting.size === 0) worker.unref();
    if ("failed" in answer) waited?.reject(new Error(answer.failed));
    else waited?.resolve(answer.result as never);
  });
  worker.on("error", end);
  worker.on("exit", () => end(new Error("the thread of sign-ins ended")));
  return started;

  function end(error: Error): void {
    if (thread === started) thread = undefined;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  }
}
