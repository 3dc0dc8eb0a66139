import { once } from "node:events";
import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { setTimeout as wait } from "node:timers/promises";
import { rowOf } from "@bibliotope/core/formats";
import type { Position } from "@bibliotope/core/geo";
import type { AreaInput, RecordSink, StreetInput } from "@bibliotope/core/index";
import { countryBox, type Name } from "@bibliotope/core/place";
import { Engine } from "@bibliotope/core/search";
import { Random, STREAMED_BOXES, streamIslands } from "@bibliotope/islands";
import pg from "pg";
import { from as copyFrom } from "pg-copy-streams";
import { type Corpus, makeCorpus } from "./corpus.ts";
import { load, suggestLoad } from "./http.ts";
import { atLeast, atMost, type Measure } from "./measure.ts";

const ADDRESSES = 1_000_000;
const ASKED = 2000;
const BATCH = 100_000;
/** Milliseconds between two looks at a batch, as the command line has it: each counts all of its rows. */
const LOOK_EVERY = 400;
/** Lookups a second at which the quiet server and the loading one are known side by side. */
const RATE = { connections: 8, overallRate: 200, duration: 10 };

export interface Ready {
  url: string;
  signIn: string;
  pid: number;
  keys: { srv: string };
}

/**
 * A million addresses of one's own: from a file to published, the same answers, and batches, by way of the server; beside it
 * the same bytes by a plain COPY into the same database.
 */
export async function* measureImport(ready: Ready, database: string): AsyncIterable<Measure> {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-bring-"));
  try {
    const file = join(folder, "islands.csv");
    const rows = await writeIslands(file);
    const corpus = makeCorpus("1m", ASKED);
    const name = `${rows.toLocaleString("en")} made-up addresses and places, ${Math.round(statSync(file).size / 1e6)} MB of CSV`;
    const bench = await Workbench.open(ready);
    const lookups = suggestLoad(ready.url, ready.keys.srv);
    // the first lookups of a server are slower: its code is compiled while they run
    await load(lookups, RATE);
    const quiet = (await load(lookups, RATE)).latency.p99;
    const copied = await plainCopy(database, file);

    const began = performance.now();
    const loading = bench.load(file);
    await wait(4000);
    const busy = load(lookups, RATE);
    const version = await loading;
    const loaded = performance.now();
    await bench.publish([version]);
    const published = performance.now();
    const p99 = (await busy).latency.p99;
    const seconds = (from: number, to: number) => (to - from) / 1000;
    yield atLeast(
      "import: rows a second, from the file to published",
      name,
      "",
      Math.round(rows / seconds(began, published)),
      25_000,
      `${seconds(began, loaded).toFixed(1)} s until a draft, ${seconds(loaded, published).toFixed(1)} s until published`,
    );
    yield atMost(
      "import: from the file to published, next to a plain COPY of the file",
      name,
      "×",
      seconds(began, published) / copied,
      4,
      `COPY into columns of text, without an index: ${copied.toFixed(1)} s`,
    );
    yield atMost(
      "memory of the server at its most, loading and publishing",
      name,
      "×",
      peakOf(ready.pid) / 2 ** 30,
      4,
      "GiB, two indexes open at once",
    );
    yield atMost(
      "p99 of lookups while a file is loaded",
      name,
      "×",
      p99 / quiet,
      2,
      `at 200 a second: ${p99} ms, quiet ${quiet} ms`,
    );
    yield await sameAnswers(ready, corpus, name);
    yield await batchSpeed(ready, corpus, folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Seconds that PostgreSQL takes for the file alone: each cell as a text, in a table that is written like any other. */
async function plainCopy(database: string, file: string): Promise<number> {
  const client = new pg.Client({ connectionString: database });
  await client.connect();
  try {
    await client.query(`create table plain_copy (${HEAD.map((_, i) => `c${i} text`).join(", ")})`);
    const began = performance.now();
    await pipeline(createReadStream(file), client.query(copyFrom("copy plain_copy from stdin (format csv, header)")));
    return (performance.now() - began) / 1000;
  } finally {
    await client.query("drop table if exists plain_copy");
    await client.end();
  }
}

/** The most memory that a process has held, in bytes. */
const peakOf = (pid: number) =>
  Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1]) * 1024;

/**
 * Where the streamed islands' addresses go in the file: into the box that their country has. They are spread wider, and
 * a position outside its country is noted; a file that is mostly outside is refused.
 */
function withinCountry(country: string, { lat, lon }: Position): Position {
  const [west, south, east, north] = STREAMED_BOXES[country as keyof typeof STREAMED_BOXES];
  const own = countryBox(country)!;
  return {
    lat: own[1] + ((lat - south) / (north - south)) * (own[3] - own[1]),
    lon: own[0] + ((lon - west) / (east - west)) * (own[2] - own[0]),
  };
}

const lineOf = ({ number, street, town }: Corpus["samples"][number], country: string) =>
  country === "QR" ? `${number} ${street[0].name}, ${town[0].name}` : `${street[0].name} ${number}, ${town[0].name}`;

/** Lines of the corpus asked of the server, and of an index built without it. */
async function sameAnswers(ready: Ready, { segment, samples }: Corpus, name: string): Promise<Measure> {
  const engine = new Engine(segment);
  let same = 0;
  for (const sample of samples) {
    const q = lineOf(sample, sample.country);
    const [ours] = engine.forward({ q, langs: [] }).candidates;
    const response = await fetch(`${ready.url}/v1/forward?${new URLSearchParams({ q })}`, {
      headers: { authorization: `Bearer ${ready.keys.srv}` },
    });
    const { features } = (await response.json()) as {
      features: { properties: { line: string; at: { lat: number; lon: number } } }[];
    };
    const theirs = features[0]?.properties;
    const at = withinCountry(sample.country, ours.at);
    const isNear = theirs && Math.abs(theirs.at.lat - at.lat) + Math.abs(theirs.at.lon - at.lon) < 2e-6;
    if (isNear && theirs.line === ours.line) same++;
  }
  return atLeast(
    "answers that are the same after the way through a file",
    name,
    "%",
    (100 * same) / samples.length,
    99.5,
    `${same} of ${samples.length} lines: the same address at the same place`,
  );
}

async function batchSpeed(ready: Ready, { samples }: Corpus, folder: string): Promise<Measure> {
  const random = new Random(77);
  const file = join(folder, "batch.csv");
  const out = createWriteStream(file);
  out.write("text\n");
  for (let i = 0; i < BATCH; i++) out.write(rowOf([lineOf(random.pick(samples), random.pick(samples).country)]));
  out.end();
  await once(out, "finish");
  const headers = { authorization: `Bearer ${ready.keys.srv}`, "content-type": "text/csv" };
  const began = performance.now();
  const made = await fetch(`${ready.url}/v1/batches`, { ...bodyOf(file), headers });
  const { id } = (await made.json()) as { id: string };
  for (;;) {
    const { state } = (await (await fetch(`${ready.url}/v1/batches/${id}`, { headers })).json()) as { state: string };
    if (state === "done") break;
    if (state === "failed") throw new Error("the batch failed");
    await wait(LOOK_EVERY);
  }
  const rate = BATCH / ((performance.now() - began) / 1000);
  return atLeast(
    "batch: rows a second, on one worker",
    "1 M",
    "",
    Math.round(rate),
    6000,
    `${BATCH} rows, from handing in to the last result stored`,
  );
}

function bodyOf(file: string): RequestInit & { duplex: "half" } {
  return {
    method: "POST",
    body: Readable.toWeb(createReadStream(file)) as unknown as RequestInit["body"],
    duplex: "half",
  };
}

/** The workbench's calls that a load needs. */
export class Workbench {
  private constructor(
    private readonly url: string,
    private readonly headers: Record<string, string>,
  ) {}

  static async open({ url, signIn }: Ready): Promise<Workbench> {
    const response = await fetch(signIn, { redirect: "manual" });
    const cookie = response.headers.get("set-cookie")!.split(";")[0];
    const { csrf } = (await (await fetch(`${url}/api/session`, { headers: { cookie } })).json()) as { csrf: string };
    return new Workbench(url, { cookie, "x-csrf-token": csrf });
  }

  async #send<T>(path: string, body: unknown): Promise<T> {
    const headers = { ...this.headers, "content-type": "application/json" };
    const response = await fetch(`${this.url}/api${path}`, { method: "POST", headers, body: JSON.stringify(body) });
    return (await response.json()) as T;
  }

  async #ended<T>(id: number): Promise<T> {
    for (;;) {
      const response = await fetch(`${this.url}/api/jobs`, { headers: this.headers });
      const { jobs } = (await response.json()) as { jobs: { id: number; state: string; words: string; result: T }[] };
      const job = jobs.find((one) => one.id === id);
      if (job?.state === "done") return job.result;
      if (job?.state === "failed") throw new Error(job.words);
      await wait(100);
    }
  }

  /** @returns the version that it became */
  async load(file: string): Promise<number> {
    const headers = { ...this.headers, "content-type": "application/octet-stream" };
    const handed = await fetch(`${this.url}/api/files?name=islands.csv`, { ...bodyOf(file), headers });
    const { id } = (await handed.json()) as { id: string };
    const start = await this.#send<{ format: object; heads: string[]; reading: object }>(`/files/${id}/look`, {});
    const { format, heads, reading } = start;
    const dataSet = { name: `Own ${Date.now()}`, licence: "CC0-1.0", source: "" };
    const { job } = await this.#send<{ job: number }>("/loads", {
      file: id,
      format,
      heads,
      reading,
      dataSet,
      day: "2026-11-01",
    });
    return (await this.#ended<{ version: number }>(job)).version;
  }

  async deleteVersion(id: number): Promise<void> {
    const response = await fetch(`${this.url}/api/versions/${id}`, { method: "DELETE", headers: this.headers });
    if (!response.ok) throw new Error(`version ${id} was not deleted: ${await response.text()}`);
  }

  async publish(versions: number[]): Promise<void> {
    await this.#ended((await this.#send<{ job: number }>("/publications", { versions, why: "bench" })).job);
  }
}

const KINDS = ["district", "town", "county", "region"] as const;
const LANG = "qth-Latn";
const HEAD = [
  ...["street", `street:${LANG}`, "street:abbr", "block", `block:${LANG}`, "house", "name", "unit"],
  ...["place", `place:${LANG}`, "postcode"],
  ...KINDS.flatMap((kind) => [kind, `${kind}:${LANG}`, `${kind}:code`, `${kind}:id`, `${kind}:importance`]),
  ...["country", "lat", "lon", "importance"],
];

/** Writes the streamed islands as a developer would bring them. @returns rows */
async function writeIslands(file: string): Promise<number> {
  const out = createWriteStream(file, { highWaterMark: 1 << 24 });
  const areas = new Map<number, AreaInput>();
  const postcodes = new Map<number, string>();
  const streets = new Map<number, StreetInput>();
  let piece = rowOf(HEAD);
  let rows = 0;
  const pair = (names: readonly Name[] | undefined) => [names?.[0].name, names?.[1]?.name];
  const around = (area: number) => {
    const of = new Map<string, AreaInput>();
    for (let at: number | null = area; at !== null; at = areas.get(at)!.parent)
      of.set(areas.get(at)!.kind, areas.get(at)!);
    const named = KINDS.flatMap((kind) => {
      const its = of.get(kind);
      return [...pair(its?.names), its?.code, its?.identity, its?.importance];
    });
    return [...named, of.get("country")!.code];
  };
  const put = (cells: (string | number | undefined)[]) => {
    piece += rowOf(cells);
    rows++;
    if (piece.length < 1 << 20) return;
    out.write(piece);
    piece = "";
  };
  let country = "";
  const place = (at: Position) => {
    const { lat, lon } = withinCountry(country, at);
    return [lat.toFixed(7), lon.toFixed(7)];
  };
  const sink: RecordSink = {
    addArea: (area) => {
      areas.set(area.identity, area);
      if (area.kind === "country") country = area.code!;
    },
    addPostcode: (postcode) => void postcodes.set(postcode.identity, postcode.code),
    addStreet: (street) => void streets.set(street.identity, street),
    addPlace: ({ names, area, at, importance }) =>
      put([...Array<undefined>(8), ...pair(names), undefined, ...around(area), ...place(at), importance]),
    addAddress: ({ street, number, suffix, name, unit, postcode, at }) => {
      const { kind, names, area, importance } = streets.get(street)!;
      const [own, none] = [pair(names), [undefined, undefined]];
      const code = postcode === null ? undefined : postcodes.get(postcode);
      put([
        ...(kind === "block" ? [...none, undefined, ...own] : [...own, names[0].abbr, ...none]),
        ...[number === null ? "" : `${number}${suffix}`, name, unit, undefined, undefined, code],
        ...around(area),
        ...place(at),
        importance,
      ]);
    },
  };
  streamIslands(ADDRESSES, sink);
  out.end(piece);
  await once(out, "finish");
  return rows;
}
