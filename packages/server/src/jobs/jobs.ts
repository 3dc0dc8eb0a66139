import type { JobKind } from "@bibliotope/wire";
import type { Knex } from "knex";
import { Client } from "pg";
import PgBoss from "pg-boss";
import { isDatabaseAway, LOCKS, STEADY } from "../database/connect.ts";
import { inSpan } from "../traces/traces.ts";
import { beginJob, endJob, type Job, makeJob, noteProgress, resumeJob, unfinishedJobs } from "./jobs.repository.ts";

/** What a job tells while it runs. */
export interface Running {
  job: Job;
  /** Reports progress; stored a few times a second. */
  progress: (done: number, words: string) => void;
  /** Ends when somebody pauses or cancels the job, with which of the two. */
  stop: AbortSignal;
}

/** Does a job. @returns what it came to; throws to say that it failed, with words for a person */
export type Runner = (running: Running) => Promise<{ words: string; result?: unknown }>;

/** Raised by a runner that was stopped. */
export class Stopped extends Error {
  constructor(readonly how: "paused" | "cancelled") {
    super(how);
  }
}

const QUEUE = "work";
/** Milliseconds between two notes of progress, and after which it is looked for jobs whose process is gone. */
const [NOTE_EVERY, LOOK_EVERY] = [400, 15_000];

/** Times that a job may lose the database before it has failed. */
const MOST_LOST = 20;

/**
 * Work that takes long, one piece at a time in each process. pg-boss hands it out, so that several processes share it;
 * the state is in our own table. A running job is stored by an advisory lock: when its process is gone, so is the
 * lock, and the job is begun again.
 */
export class Jobs {
  readonly #boss: PgBoss;
  #locks: Promise<Client> | undefined;
  #timer: NodeJS.Timeout | undefined;
  #worker: string | undefined;
  readonly #stopping = new AbortController();
  readonly #running = new Set<number>();
  /** How often jobs lost the database while they ran. */
  readonly #lost = new Map<number, number>();

  /** @param runners none where jobs are only handed in, for another thread to do */
  constructor(
    private readonly database: Knex,
    private readonly url: string,
    private readonly runners: Readonly<Record<JobKind, Runner>> | undefined,
    private readonly log: { warn(details: object, words: string): void },
  ) {
    const role = runners ? {} : { migrate: false, supervise: false, schedule: false };
    this.#boss = new PgBoss({ connectionString: url, max: 2, application_name: "bibliotope jobs", ...role });
    this.#boss.on("error", (error) => log.warn({ error: String(error) }, "jobs"));
  }

  async start(): Promise<void> {
    await this.#boss.start();
    const { runners } = this;
    if (!runners) return;
    await this.#boss.createQueue(QUEUE);
    this.#worker = await this.#boss.work<{ id: number }>(QUEUE, { pollingIntervalSeconds: 0.5 }, async ([{ data }]) => {
      await this.#run(data.id, runners);
    });
    await this.#poll();
    this.#timer = setInterval(() => void this.#poll().catch(() => undefined), LOOK_EVERY);
  }

  /** Stops what runs here; another process, or the next start, goes on with it. */
  async stop(): Promise<void> {
    clearInterval(this.#timer);
    this.#stopping.abort();
    await this.#boss.stop({ graceful: false, wait: false }).catch(() => undefined);
    await this.#locks?.then((client) => client.end()).catch(() => undefined);
  }

  /** @param before done before the job can begin, with the number */
  async make(job: Parameters<typeof makeJob>[1], before?: (id: number) => Promise<void>): Promise<number> {
    const id = await makeJob(this.database, job);
    await before?.(id);
    await this.#send(id);
    return id;
  }

  async resume(id: number): Promise<boolean> {
    const isThere = await resumeJob(this.database, id);
    if (isThere) await this.#send(id);
    return isThere;
  }

  async #send(id: number): Promise<void> {
    await this.#boss.send(QUEUE, { id });
    // a worker of ours that is idle begins at once; those of other processes poll twice a second
    if (this.#worker) this.#boss.notifyWorker(this.#worker);
  }

  /** Hands out again what nobody holds. */
  async #poll(): Promise<void> {
    for (const id of await unfinishedJobs(this.database)) {
      if (this.#running.has(id) || !(await this.#take(id))) continue;
      await this.#letGo(id);
      await this.#boss.send(QUEUE, { id }, { singletonKey: String(id), singletonSeconds: 10 });
    }
  }

  async #run(id: number, runners: Readonly<Record<JobKind, Runner>>): Promise<void> {
    if (this.#stopping.signal.aborted || !(await this.#take(id))) return;
    this.#running.add(id);
    try {
      const job = await beginJob(this.database, id);
      if (job) await this.#do(job, runners[job.kind]);
    } finally {
      this.#running.delete(id);
      await this.#letGo(id);
    }
  }

  async #do(job: Job, runner: Runner): Promise<void> {
    const stop = new AbortController();
    let latest = { done: job.done, words: job.words };
    const note = async () => {
      const wanted = await noteProgress(this.database, job.id, latest);
      if (wanted) stop.abort(wanted);
    };
    const timer = setInterval(() => void note().catch(() => undefined), NOTE_EVERY);
    const end = () => stop.abort("stopping");
    this.#stopping.signal.addEventListener("abort", end);
    try {
      const progress = (done: number, words: string) => {
        latest = { done: done < 0 ? latest.done : done, words };
      };
      const { words, result } = await inSpan(`job ${job.kind}`, { "bibliotope.job": job.id }, () =>
        runner({ job, progress, stop: stop.signal }),
      );
      await endJob(this.database, job.id, { state: "done", words, result });
    } catch (error) {
      // a process that ends leaves its jobs as they are: the next one goes on with them
      if (this.#stopping.signal.aborted) return;
      const wantsMore = !stop.signal.aborted && isDatabaseAway(error) && this.#isBegunAgain(job.id);
      if (wantsMore) {
        this.log.warn({ job: job.id, error: String(error) }, "the database went away: this job is begun again");
        return;
      }
      const wanted = stop.signal.aborted ? (stop.signal.reason as "paused" | "cancelled") : undefined;
      if (!wanted)
        this.log.warn({ job: job.id, error: error instanceof Error ? error.stack : String(error) }, "job failed");
      await endJob(this.database, job.id, {
        state: wanted ?? "failed",
        words: wanted ? "" : error instanceof Error ? error.message : String(error),
      });
    } finally {
      clearInterval(timer);
      this.#stopping.signal.removeEventListener("abort", end);
    }
  }

  /** Whether a job that lost the database is handed out again; at the next poll, and not for ever. */
  #isBegunAgain(id: number): boolean {
    const times = (this.#lost.get(id) ?? 0) + 1;
    this.#lost.set(id, times);
    return times <= MOST_LOST;
  }

  /** Holds a job, unless another process does. */
  async #take(id: number): Promise<boolean> {
    const client = await this.#lockClient();
    try {
      const { rows } = await client.query("select pg_try_advisory_lock($1, $2) as taken", [LOCKS.jobs, id]);
      return rows[0].taken;
    } catch (error) {
      // it may be open at this end alone: the next one is asked over another connection
      this.#locks = undefined;
      void client.end().catch(() => undefined);
      throw error;
    }
  }

  async #letGo(id: number): Promise<void> {
    const client = await this.#locks?.catch(() => undefined);
    await client?.query("select pg_advisory_unlock($1, $2)", [LOCKS.jobs, id]).catch(() => undefined);
  }

  /** The one connection that holds all locks of this process: a lock can be let go only where it was taken. */
  #lockClient(): Promise<Client> {
    this.#locks ??= this.#connectLocks();
    return this.#locks;
  }

  async #connectLocks(): Promise<Client> {
    const client = new Client({ connectionString: this.url, application_name: "bibliotope job locks", ...STEADY });
    const lost = () => {
      this.#locks = undefined;
    };
    client.on("error", lost);
    client.on("end", lost);
    try {
      await client.connect();
    } catch (error) {
      lost();
      throw error;
    }
    return client;
  }
}
