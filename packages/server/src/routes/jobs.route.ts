import type { JobSummary } from "@bibliotope/wire";
import type { Router } from "express";
import type { Knex } from "knex";
import { idOf } from "../http/asking.ts";
import type { Drain } from "../http/drain.ts";
import { HttpProblem } from "../http/problem.ts";
import { exactRouter } from "../http/router.ts";
import { needs } from "../http/session.ts";
import { type Job, listJobs, wantOfJob } from "../jobs/jobs.repository.ts";
import type { Jobs } from "../jobs/jobs.ts";

/** Milliseconds between two looks for news, and after which something is said so that the line stays open. */
const [LOOK_EVERY, PING_EVERY] = [500, 15_000];

/** `/api/jobs`: work that takes long; how far it is, as Server-Sent Events. */
export function jobRoutes({ database, jobs, drain }: { database: Knex; jobs: Jobs; drain: Drain }): Router {
  const router = exactRouter();
  router.use("/jobs", needs("edit", { reading: true }));
  router.get("/jobs", async (_request, response) => {
    response.json({ jobs: (await listJobs(database)).map(summaryOf) });
  });
  router.get("/jobs/events", (_request, response) => {
    // a compressed answer would wait until there is enough to compress
    response.writeHead(200, { "Content-Type": "text/event-stream", "Cache-Control": "no-store, no-transform" });
    let told = "";
    const look = async () => {
      const news = JSON.stringify({ jobs: (await listJobs(database)).map(summaryOf) });
      if (news !== told) response.write(`data: ${news}\n\n`);
      told = news;
    };
    void look().catch(() => undefined);
    const timers = [
      setInterval(() => void look().catch(() => undefined), LOOK_EVERY),
      setInterval(() => response.write(": still here\n\n"), PING_EVERY),
    ];
    const end = () => response.end();
    drain.ending.addEventListener("abort", end);
    response.on("close", () => {
      for (const timer of timers) clearInterval(timer);
      drain.ending.removeEventListener("abort", end);
    });
  });
  for (const wanted of ["paused", "cancelled"] as const)
    router.post(`/jobs/:id/${wanted}`, async (request, response) => {
      if (!(await wantOfJob(database, idOf(request.params.id), wanted))) throw ended();
      response.status(204).end();
    });
  router.post("/jobs/:id/resumed", async (request, response) => {
    if (!(await jobs.resume(idOf(request.params.id)))) throw ended();
    response.status(204).end();
  });
  return router;
}

const ended = () => new HttpProblem("conflict", "This work is not there, or it has ended meanwhile.");

function summaryOf(job: Job): JobSummary {
  const { id, kind, state, title, done, total, words, result, madeAt, beganAt, endedAt } = job;
  return {
    ...{ id, kind, state, title, done, total, words, result },
    madeAt: madeAt.toISOString(),
    beganAt: beganAt?.toISOString() ?? null,
    endedAt: endedAt?.toISOString() ?? null,
  };
}
