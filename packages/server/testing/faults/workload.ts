import { setTimeout as wait } from "node:timers/promises";
import type { DataAnswer, FileStart, JobSummary } from "@bibliotope/wire";
import type { Rig } from "./rig.ts";

/** What was requested and answered, by what. */
interface Count {
  asked: number;
  acknowledged: number;
}

/** Milliseconds that an answer may take before nobody waits for it. */
const PATIENCE = 8000;
const LOAD_ROWS = 200;
const BATCH_ROWS = 3000;

type Job = Pick<JobSummary, "id" | "state" | "words" | "title">;
/** What a job that failed may say: its thread was ended, or there was no room; whoever asked is told, and can let it go on. */
const SAID_WHY = /ended early|no space left|ENOSPC/i;

/** A form whose draft is saved again and again. */
interface Saved {
  ref: string;
  revision: number;
  definition: Record<string, unknown>;
  acknowledged: number;
  tried: number;
}

/**
 * People and programs that use the server while it is ill-treated, and a model of what it acknowledged. The model
 * knows nothing of how the server keeps it: numbers that were promised, and no more.
 */
export class Workload {
  readonly counts: Record<string, Count> = {};
  readonly wrong: string[] = [];
  longestGap = 0;
  #answeredAt = performance.now();
  readonly #forms: Saved[] = [];
  readonly #keys = new Map<string, "acknowledged" | "unknown">();
  readonly #loads = new Map<number, string>();
  readonly #batches = new Set<string>();
  readonly #publications: { job: number; why: string }[] = [];
  /** Numbers that make names: one that nobody acknowledged may be there, and is not given twice. */
  #named = 0;
  #cookie = "";
  #csrf = "";
  #isEnding = false;
  #underWay: Promise<void>[] = [];
  /** Where the server answered last: it takes the next port when its own is taken meanwhile. */
  #url = "";
  readonly #key: string;

  private constructor(private readonly rig: Rig) {
    this.#key = rig.now()!.keys.srv;
  }

  static async begin(rig: Rig): Promise<Workload> {
    const load = new Workload(rig);
    await load.#signIn();
    for (let i = 0; i < 3; i++) await load.#makeForm();
    const every = (milliseconds: number, does: () => Promise<void>) =>
      load.#underWay.push(load.#again(milliseconds, does));
    every(40, () => load.#lookUp());
    for (const form of load.#forms) every(150, () => load.#save(form));
    every(700, () => load.#makeKey());
    // what takes long is requested by people who see what is under way
    const unlessBusy = (does: () => Promise<void>) => async () => {
      if (!(await load.#isBusy())) await does();
    };
    every(
      3000,
      unlessBusy(() => load.#import()),
    );
    every(
      4000,
      unlessBusy(() => load.#hand()),
    );
    every(
      5000,
      unlessBusy(() => load.#publish()),
    );
    return load;
  }

  /** More than three pieces of work wait or run, or nobody knows. */
  async #isBusy(): Promise<boolean> {
    const answer = await this.#own("GET", "/api/jobs");
    if (answer?.status !== 200) return true;
    const { jobs } = answer.body as { jobs: JobSummary[] };
    return jobs.filter(({ state }) => state === "waiting" || state === "running").length > 3;
  }

  async end(): Promise<void> {
    this.#isEnding = true;
    await Promise.all(this.#underWay);
  }

  async #again(milliseconds: number, does: () => Promise<void>): Promise<void> {
    while (!this.#isEnding) {
      await does().catch((error: unknown) => this.wrong.push(`the workload itself: ${String(error)}`));
      await wait(milliseconds);
    }
  }

  async #signIn(): Promise<void> {
    const response = await fetch(this.rig.now()!.signIn, { redirect: "manual" });
    this.#cookie = response.headers.get("set-cookie")?.split(";")[0] ?? "";
    this.#csrf = ((await this.#own("GET", "/api/session"))!.body as { csrf: string }).csrf;
  }

  /** @returns undefined where nobody knows whether it was done */
  async #own(method: string, path: string, body?: unknown): Promise<{ status: number; body: unknown } | undefined> {
    return this.#ask(path, {
      method,
      headers: {
        cookie: this.#cookie,
        "x-csrf-token": this.#csrf,
        ...(body === undefined ? {} : { "content-type": "application/json" }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  }

  async #ask(path: string, init: RequestInit): Promise<{ status: number; body: unknown } | undefined> {
    this.#url = this.rig.now()?.url.replace("localhost", "127.0.0.1") ?? this.#url;
    try {
      const response = await fetch(`${this.#url}${path}`, { ...init, signal: AbortSignal.timeout(PATIENCE) });
      const text = await response.text();
      return { status: response.status, body: text.startsWith("{") ? JSON.parse(text) : text };
    } catch {
      return undefined;
    }
  }

  #count(what: string, isAcknowledged: boolean): void {
    this.counts[what] ??= { asked: 0, acknowledged: 0 };
    this.counts[what].asked++;
    if (isAcknowledged) this.counts[what].acknowledged++;
  }

  async #lookUp(): Promise<void> {
    const answer = await this.#ask("/v1/suggest?q=12+harbour+row+tide", {
      headers: { authorization: `Bearer ${this.#key}` },
    });
    const isAnswered = answer?.status === 200;
    this.#count("lookups", isAnswered);
    const now = performance.now();
    if (!isAnswered) return;
    this.longestGap = Math.max(this.longestGap, now - this.#answeredAt);
    this.#answeredAt = now;
    const first = (answer.body as { suggestions: { text: string }[] }).suggestions[0];
    if (!JSON.stringify(first ?? "").includes("Harbour Row"))
      this.wrong.push(`a lookup answered ${JSON.stringify(first)}`);
  }

  async #makeForm(): Promise<void> {
    const known = (await this.#own("GET", "/api/forms/become-a-reader"))!.body as {
      definition: Record<string, unknown>;
    };
    const definition = { ...known.definition, title: "Save 0" };
    const made = await this.#own("POST", "/api/forms", { definition });
    if (made?.status !== 201) throw new Error(`no form could be made: ${JSON.stringify(made)}`);
    const { ref, revision } = made.body as { ref: string; revision: number };
    this.#forms.push({ ref, revision, definition, acknowledged: 0, tried: 0 });
  }

  async #save(form: Saved): Promise<void> {
    const number = ++form.tried;
    const definition = { ...form.definition, title: `Save ${number}` };
    const saved = await this.#own("PUT", `/api/forms/${form.ref}/draft`, { revision: form.revision, definition });
    this.#count("saves", saved?.status === 200);
    if (saved?.status === 200) {
      form.acknowledged = number;
      form.revision = (saved.body as { revision: number }).revision;
    }
    // one that nobody acknowledged may have been kept all the same
    if (saved?.status === 409) {
      const now = await this.#own("GET", `/api/forms/${form.ref}`);
      if (now?.status === 200) form.revision = (now.body as { revision: number }).revision;
    }
  }

  async #makeKey(): Promise<void> {
    const name = `Fault key ${++this.#named}`;
    const made = await this.#own("POST", "/api/keys", { kind: "srv", name });
    this.#count("keys", made?.status === 201);
    this.#keys.set(name, made?.status === 201 ? "acknowledged" : "unknown");
  }

  /** Brings a small file as a new version of a data set of its own. */
  async #import(): Promise<void> {
    const rows = Array.from(
      { length: LOAD_ROWS },
      (_, i) => `${i + 1},Fault Lane,Faultwick,QR,${-35.2 - i / 1e5},-21.4`,
    );
    const file = await this.#ask("/api/files?name=faults.csv", {
      method: "POST",
      headers: { cookie: this.#cookie, "x-csrf-token": this.#csrf, "content-type": "application/octet-stream" },
      body: ["house,street,town,country,lat,lon", ...rows].join("\n"),
    });
    if (file?.status !== 201) return;
    const { id } = file.body as { id: string };
    const seen = await this.#own("POST", `/api/files/${id}/look`, {});
    if (seen?.status !== 200) return;
    const { format, heads, reading } = seen.body as FileStart;
    const name = `Faults ${++this.#named}`;
    const made = await this.#own("POST", "/api/loads", {
      ...{ file: id, format, heads, reading, day: "2026-11-01" },
      dataSet: { name, licence: "CC0-1.0", source: "" },
    });
    this.#count("loads", made?.status === 202);
    if (made?.status === 202) this.#loads.set((made.body as { job: number }).job, name);
  }

  async #hand(): Promise<void> {
    const rows = Array.from({ length: BATCH_ROWS }, (_, i) => `"${1 + (i % 60)} Harbour Row, Tidewell"`);
    const made = await this.#ask("/v1/batches?name=faults.csv", {
      method: "POST",
      headers: { authorization: `Bearer ${this.#key}`, "content-type": "text/csv" },
      body: ["address", ...rows].join("\n"),
    });
    this.#count("batches", made?.status === 202);
    if (made?.status === 202) this.#batches.add((made.body as { id: string }).id);
  }

  async #publish(): Promise<void> {
    const data = await this.#own("GET", "/api/data");
    if (data?.status !== 200) return;
    const { dataSets, publications } = data.body as DataAnswer;
    const imported = dataSets.filter(({ name }) => name.startsWith("Faults ")).flatMap(({ versions }) => versions);
    const newest = imported.at(-1);
    const islands = dataSets.find(({ name }) => name === "The islands")?.versions.at(-1);
    if (!newest || !islands || publications[0]?.versions.includes(newest.id)) return;
    const why = `Fault publication ${++this.#named}`;
    const made = await this.#own("POST", "/api/publications", { versions: [newest.id, islands.id], why });
    this.#count("publications", made?.status === 202);
    if (made?.status === 202) this.#publications.push({ job: (made.body as { job: number }).job, why });
  }

  /** Waits until every job has ended, then compares what there is with what was acknowledged. */
  async check(within = 180_000): Promise<string[]> {
    const jobs = await this.#endedJobs(within);
    const failed = (job: Job | undefined) => job?.state === "failed" && !SAID_WHY.test(job.words);
    for (const form of this.#forms) {
      const known = await this.#sure(`/api/forms/${form.ref}`);
      const number = Number(/^Save (\d+)$/.exec((known.definition as { title: string }).title)?.[1]);
      if (!(number >= form.acknowledged && number <= form.tried))
        this.wrong.push(`${form.ref}: save ${form.acknowledged} was acknowledged, ${number} is there`);
    }
    const { keys } = (await this.#sure("/api/keys")) as unknown as { keys: { name: string }[] };
    for (const [name, state] of this.#keys) {
      const times = keys.filter((key) => key.name === name).length;
      if (times > 1 || (state === "acknowledged" && times !== 1))
        this.wrong.push(`${name}, ${state}, is there ${times} times`);
    }
    const { dataSets, publications } = (await this.#sure("/api/data")) as unknown as DataAnswer;
    for (const [id, name] of this.#loads) {
      const job = jobs.find((one) => one.id === id);
      if (failed(job) || !job) this.wrong.push(`the load of ${name} came to ${job?.state}: ${job?.words}`);
      const versions = dataSets.filter((set) => set.name === name).flatMap((set) => set.versions);
      const rows = versions.map(({ counts }) => counts?.addresses);
      if (job?.state === "done" && (rows.length !== 1 || rows[0] !== LOAD_ROWS))
        this.wrong.push(`${name} has ${rows.length} versions, of ${rows} addresses`);
      if (job?.state !== "done" && rows.length) this.wrong.push(`${name} is ${job?.state}, and is there`);
    }
    for (const { job: id, why } of this.#publications) {
      const job = jobs.find((one) => one.id === id);
      if (failed(job) || !job) this.wrong.push(`${why} came to ${job?.state}: ${job?.words}`);
      const times = publications.filter((one) => one.why === why).length;
      if (times !== (job?.state === "done" ? 1 : 0)) this.wrong.push(`${why}, ${job?.state}, is there ${times} times`);
    }
    for (const id of this.#batches) await this.#checkBatch(id);
    return this.wrong;
  }

  async #checkBatch(id: string): Promise<void> {
    const headers = { authorization: `Bearer ${this.#key}` };
    const batch = (await this.#ask(`/v1/batches/${id}`, { headers }))?.body as Record<string, unknown> | undefined;
    if (batch?.state === "failed" && SAID_WHY.test(String(batch.words))) return;
    if (batch?.state !== "done" || batch.done !== BATCH_ROWS) {
      this.wrong.push(`batch ${id} came to ${JSON.stringify(batch)}`);
      return;
    }
    const out = String((await this.#ask(`/v1/batches/${id}/rows`, { headers }))?.body)
      .trim()
      .split("\n");
    if (out.length !== BATCH_ROWS + 1) this.wrong.push(`batch ${id} has ${out.length - 1} rows`);
  }

  /** All of them, as they lie in the database: the workbench lists the newest. */
  async #endedJobs(within: number): Promise<Job[]> {
    for (const end = Date.now() + within; ; await wait(500)) {
      const jobs: Job[] = await this.rig.own.database("jobs").select("id", "state", "words", "title");
      const waiting = jobs.filter(({ state }) => state === "waiting" || state === "running");
      if (!waiting.length) return jobs;
      if (Date.now() > end) {
        this.wrong.push(`${waiting.length} jobs never ended: ${waiting.map(({ title }) => title).join(", ")}`);
        return jobs;
      }
    }
  }

  /** Asks until it is answered: nothing is ill-treated any more. */
  async #sure(path: string): Promise<Record<string, unknown>> {
    let answer: { status: number; body: unknown } | undefined;
    for (let tries = 0; tries < 100; tries++) {
      answer = await this.#own("GET", path);
      if (answer?.status === 200) return answer.body as Record<string, unknown>;
      if (answer?.status === 401) throw new Error("the session was lost");
      await wait(200);
    }
    throw new Error(`${path} is not answered any more, but with ${JSON.stringify(answer)?.slice(0, 300)}`);
  }
}
