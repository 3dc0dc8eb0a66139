import type { JobSummary } from "@bibliotope/wire";
import type { Knex } from "knex";
import type { Drain } from "../http/drain.ts";
import type { Own, OwnHandlers } from "../http/own.ts";
import { HttpProblem } from "../http/problem.ts";
import { sessionSecret } from "../http/session.ts";
import { type Job, listJobs, wantOfJob } from "../jobs/jobs.repository.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { Sessions } from "../users/sessions.ts";

/** Milliseconds between two looks for news, and after which something is said so that the line stays open. */
const [LOOK_EVERY, PING_EVERY] = [500, 15_000];
/** Milliseconds between two looks whether the person is signed in still. */
const SESSION_EVERY = 2000;

interface Needs {
  database: Knex;
  jobs: Jobs;
  drain: Drain;
  sessions: Sessions;
}

/** What a person wants of a job, by the last part of a path. */
const WANTS = ["paused", "cancelled"] as const;

/** Work that takes long; how far it is, as Server-Sent Events. */
export function jobHandlers({ database, jobs: runner, drain, sessions }: Needs) {
  return { jobs, jobEvents, steerJob } satisfies Partial<OwnHandlers>;

  async function jobs() {
    return { jobs: (await listJobs(database)).map(summaryOf) };
  }

  function jobEvents({ request, response }: Own<"jobEvents">) {
    // a compressed answer would wait until there is enough to compress, and nginx until there is enough to send
    response.writeHead(200, {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-store, no-transform",
      "X-Accel-Buffering": "no",
    });
    response.flushHeaders();
    let sent = "";
    const poll = async () => {
      const news = JSON.stringify(await jobs());
      if (news !== sent) response.write(`data: ${news}\n\n`);
      sent = news;
    };
    void poll().catch(() => undefined);
    const timers = [
      setInterval(() => void poll().catch(() => undefined), LOOK_EVERY),
      setInterval(() => response.write(": still here\n\n"), PING_EVERY),
      // whoever signed out, or was taken out, hears nothing more
      setInterval(() => void isSignedIn().then((is) => is || end()), SESSION_EVERY),
    ];
    const secret = sessionSecret(request);
    const isSignedIn = async () => Boolean(secret && (await sessions.find(secret).catch(() => undefined)));
    const end = () => response.end();
    drain.ending.addEventListener("abort", end);
    response.on("close", () => {
      for (const timer of timers) clearInterval(timer);
      drain.ending.removeEventListener("abort", end);
    });
  }

  async function steerJob({ parts: { to }, id }: Own<"steerJob">) {
    const wanted = WANTS.find((one) => one === to);
    if (!wanted && to !== "resumed") throw new HttpProblem("not-found", "A job can be paused, resumed or cancelled.");
    const isDone = wanted ? await wantOfJob(database, id("id"), wanted) : await runner.resume(id("id"));
    if (!isDone) throw ended();
  }
}

const ended = () => new HttpProblem("conflict", "There is no such job, or it has ended.");

function summaryOf(job: Job): JobSummary {
  const { id, kind, state, title, done, total, words, result, madeAt, beganAt, endedAt } = job;
  return {
    ...{ id, kind, state, title, done, total, words, result },
    madeAt: madeAt.toISOString(),
    beganAt: beganAt?.toISOString() ?? null,
    endedAt: endedAt?.toISOString() ?? null,
  };
}
