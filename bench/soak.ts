import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { setTimeout as wait } from "node:timers/promises";
import type { Result } from "autocannon";
import { load, suggestLoad } from "./http.ts";
import { Workbench } from "./import.ts";
import { atMost, type Measure, median } from "./measure.ts";
import { lineCharts } from "./soak-chart.ts";
import { publishAgain, takeSegmentsAway } from "./swap.ts";

/** Share of what the server can answer that is asked of it all the time. */
const SHARE = 0.6;
const CONNECTIONS = 16;
/** Minutes at the start that a trend does not count: code is compiled, caches fill. */
const WARM_UP = 10;
/** Seconds between publications, imports and batches, and rows of each import and batch. */
const EVERY = { publication: 300, import: 120, batch: 90 };
const IMPORT_ROWS = 2000;
const BATCH_ROWS = 5000;

/** One minute of the run. */
export interface Minute {
  answered: number;
  lost: number;
  /** Milliseconds. */
  p99: number;
  slowest: number;
  /** Megabytes and open file descriptors of the server's process at its end. */
  memory: number;
  descriptors: number;
}

/**
 * Lookups at 60 % of capacity for an hour, with a publication every five minutes, imports and batches beside: what is
 * lost, and whether response time, memory or open files grow. Writes `bench-results/soak.json` and `soak.svg`.
 * @param ready of the server
 * @param readyFile its ready.json, beside which its segments lie
 */
export async function* measureSoak(
  ready: { url: string; signIn: string; pid: number; keys: { srv: string } },
  readyFile: string,
  database: string,
  minutes: number,
): AsyncGenerator<Measure> {
  const lookups = suggestLoad(ready.url, ready.keys.srv);
  await load(lookups, { connections: CONNECTIONS, duration: 10 });
  const capacity = rateOf(await load(lookups, { connections: CONNECTIONS, duration: 20 }));
  const rate = Math.round(capacity * SHARE);
  const beside = await Beside.start(ready, readyFile, database);
  const run: Minute[] = [];
  try {
    for (let minute = 1; minute <= minutes; minute++) {
      const result = await load(lookups, { connections: CONNECTIONS, overallRate: rate, duration: 60 });
      const of = {
        answered: result["2xx"],
        lost: result.non2xx + result.errors + result.timeouts,
        p99: result.latency.p99,
        slowest: result.latency.max,
        ...sizeOf(ready.pid),
      };
      run.push(of);
      console.log(
        `  minute ${String(minute).padStart(3)}: ${of.answered} answered, ${of.lost} lost, p99 ${of.p99} ms, slowest ${of.slowest} ms, ${Math.round(of.memory)} MB, ${of.descriptors} descriptors; ${beside}`,
      );
    }
  } finally {
    await beside.stop();
  }
  mkdirSync("bench-results", { recursive: true });
  writeFileSync("bench-results/soak.json", JSON.stringify({ capacity, rate, ...beside.counts, minutes: run }, null, 2));
  writeFileSync("bench-results/soak.svg", lineCharts(run));
  const what = `${minutes} minutes at ${rate} lookups/s of ${Math.round(capacity)} that can be answered`;
  const total = run.reduce((sum, { answered }) => sum + answered, 0);
  const lost = run.reduce((sum, one) => sum + one.lost, 0);
  yield atMost("lookups lost", what, "", lost, 0, `${total} answered; ${beside}`);
  for (const [name, unit, of] of [
    ["p99", "ms", ({ p99 }: Minute) => p99],
    ["memory", "", ({ memory }: Minute) => memory],
    ["descriptors", "", ({ descriptors }: Minute) => descriptors],
  ] as const) {
    const values = run.slice(Math.min(WARM_UP, run.length >> 1)).map(of);
    const middle = median(values);
    const grown = (trendOf(values) * 60) / middle;
    const range = `median ${middle.toFixed(1)}, from ${Math.min(...values).toFixed(1)} to ${Math.max(...values).toFixed(1)} ${unit}`;
    yield atMost(`${name} grows in an hour, of its median`, what, "%", 100 * Math.max(0, grown), 10, range);
  }
}

const rateOf = (result: Result) => result["2xx"] / result.duration;

/** Growth from one value to the next: the median over all pairs (Theil and Sen), which single bad minutes do not move. */
export function trendOf(values: readonly number[]): number {
  const slopes = values.flatMap((from, i) => values.slice(i + 1).map((to, j) => (to - from) / (j + 1)));
  return slopes.length ? median(slopes) : 0;
}

const sizeOf = (pid: number) => ({
  memory: Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1]) / 1024,
  descriptors: readdirSync(`/proc/${pid}/fd`).length,
});

/** Publications, imports and batches, again and again until they are stopped. */
class Beside {
  readonly counts = { publications: 0, imports: 0, batches: 0 };
  readonly #folder = mkdtempSync(join(tmpdir(), "bibliotope-soak-"));
  readonly #ending = new AbortController();
  #underWay: Promise<void>[] = [];
  #error: unknown;

  private constructor(
    private readonly ready: Parameters<typeof measureSoak>[0],
    private readonly readyFile: string,
    private readonly database: string,
    private readonly workbench: Workbench,
  ) {}

  static async start(...[ready, readyFile, database]: [Parameters<typeof measureSoak>[0], string, string]) {
    const beside = new Beside(ready, readyFile, database, await Workbench.open(ready));
    beside.#underWay = [
      beside.#again(EVERY.publication, () => beside.#publish()),
      beside.#again(EVERY.import, () => beside.#import()),
      beside.#again(EVERY.batch, () => beside.#batch()),
    ];
    return beside;
  }

  toString(): string {
    const { publications, imports, batches } = this.counts;
    return `${publications} publications, ${imports} imports, ${batches} batches`;
  }

  /** @throws what went wrong beside the lookups */
  async stop(): Promise<void> {
    this.#ending.abort();
    await Promise.all(this.#underWay);
    rmSync(this.#folder, { recursive: true, force: true });
    if (this.#error) throw this.#error;
  }

  async #again(seconds: number, does: () => Promise<void>): Promise<void> {
    const { signal } = this.#ending;
    try {
      for (;;) {
        await wait(seconds * 1000, undefined, { signal });
        await does();
      }
    } catch (error) {
      if (!signal.aborted) this.#error ??= error;
    }
  }

  async #publish(): Promise<void> {
    const isBuilt = takeSegmentsAway(this.readyFile);
    await publishAgain(this.database);
    while (!isBuilt()) await wait(100);
    this.counts.publications++;
  }

  /** What was imported is deleted again: a run that keeps everything would grow by that. */
  async #import(): Promise<void> {
    const file = join(this.#folder, "soak.csv");
    const rows = Array.from(
      { length: IMPORT_ROWS },
      (_, i) => `${i + 1},Soak Lane,Soakwick,QR,${-35.2 - i / 1e5},-21.4`,
    );
    writeFileSync(file, ["house,street,town,country,lat,lon", ...rows].join("\n"));
    await this.workbench.deleteVersion(await this.workbench.load(file));
    this.counts.imports++;
  }

  async #batch(): Promise<void> {
    const headers = { authorization: `Bearer ${this.ready.keys.srv}` };
    const rows = Array.from({ length: BATCH_ROWS }, (_, i) => `"${1 + (i % 60)} Harbour Row, Tidewell"`);
    const made = await fetch(`${this.ready.url}/v1/batches?name=soak.csv`, {
      method: "POST",
      headers: { ...headers, "content-type": "text/csv" },
      body: ["address", ...rows].join("\n"),
    });
    if (made.status !== 202) throw new Error(`a batch was refused: ${await made.text()}`);
    const { id } = (await made.json()) as { id: string };
    for (let state = ""; state !== "done"; await wait(500)) {
      ({ state } = (await (await fetch(`${this.ready.url}/v1/batches/${id}`, { headers })).json()) as {
        state: string;
      });
      if (state === "failed") throw new Error("a batch failed");
    }
    this.counts.batches++;
  }
}
