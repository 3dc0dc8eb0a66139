import { closeSync, mkdtempSync, openSync, readSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Segment } from "@bibliotope/core/index";
import { Engine } from "@bibliotope/core/search";
import { Random } from "@bibliotope/islands";
import { flatbushNearest, postgisNearest } from "./beside-points.ts";
import { type Finder, miniSearch, withTrigrams } from "./beside-text.ts";
import type { Corpus } from "./corpus.ts";
import { measureFuzz } from "./fuzz.ts";
import { atLeast, atMost, type Measure, median, percentile, timeEach, timeEachAsync } from "./measure.ts";
import { measureQuality } from "./quality.ts";
import { type QueryClass, queryClasses } from "./queries.ts";

const ROUNDS = 3;
/** Addresses that the timed queries are made from. */
const TIMED = 2000;
/** Queries of each class that the others are asked: they are slower. */
const ASKED_BESIDE = 12;

export interface About {
  /** The corpus is one that the others fit beside. */
  isSmall: boolean;
  /** It is the largest. */
  isLarge: boolean;
  database: string;
}

/** Index, suggest, forward and reverse of a corpus, from text in to formatted answer out, in this process. */
export async function* measureEngine(corpus: Corpus, about: About): AsyncIterable<Measure> {
  const { segment, name, samples } = corpus;
  yield* indexing(corpus, about);
  const engine = new Engine(segment);
  const classes = queryClasses(samples.slice(0, TIMED));
  const p99s = new Map<string, number>();
  for (const one of classes) {
    const { each, all } = timeEach(one.queries, ROUNDS, ({ q }) => engine.suggest({ q }));
    if (!each.length) continue;
    const how = `${each.length} queries, ${ROUNDS} rounds; p99 of every single call ${percentile(all, 0.99).toFixed(2)} ms`;
    p99s.set(one.name, percentile(each, 0.99));
    yield atMost(`suggest, ${one.name}, median`, name, "ms", median(each), about.isLarge ? 0.3 : 0.15, how);
    yield atMost(`suggest, ${one.name}, p99`, name, "ms", percentile(each, 0.99), about.isLarge ? 2 : 1, how);
  }
  for (const { name: kind, queries } of classes) {
    const { each } = timeEach(queries, ROUNDS, ({ q }) => engine.forward({ q }));
    if (!each.length) continue;
    const how = `${each.length} queries, ${ROUNDS} rounds; median ${median(each).toFixed(3)} ms`;
    yield atMost(`forward, ${kind}, p99`, name, "ms", percentile(each, 0.99), 2, how);
  }
  const names = samples.slice(0, TIMED).flatMap(({ street, town }) => [...street, ...town].map((one) => one.name));
  yield measureFuzz(engine, names, name);
  yield* await reversing(engine, corpus, about);
  if (about.isSmall) yield* await besideOthers(corpus, about, classes, p99s);
  yield* measureQuality(engine, corpus, about.isLarge ? 200 : 1000);
}

function* indexing(
  { segment, name, addresses, builtIn, bytes, buildPeak }: Corpus,
  { isLarge }: About,
): Iterable<Measure> {
  const words = segment.sections.termLength.length.toLocaleString("en");
  const size = `${(bytes / 1e6).toFixed(1)} MB, ${words} words`;
  if (isLarge) yield atMost("index, bytes an address", name, "bytes", bytes / addresses, 40, size);
  const how = `${(builtIn / 1000).toFixed(1)} s in all; the process held ${(buildPeak / 1e9).toFixed(1)} GB at most`;
  yield atMost("build, an address", name, "µs", (builtIn * 1000) / addresses, 8, how);
  yield opening(segment, name);
}

/** Opening from a file, with the checksum, beside reading the same bytes. */
function opening(segment: Segment, name: string): Measure {
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-bench-"));
  try {
    const file = join(folder, "segment");
    writeFileSync(file, new Uint8Array(segment.sections.posting.buffer));
    const bytes = segment.sections.posting.buffer.byteLength;
    const read = () => {
      const buffer = new SharedArrayBuffer(bytes);
      const handle = openSync(file, "r");
      const view = new Uint8Array(buffer);
      for (let at = 0; at < bytes; ) at += readSync(handle, view, at, Math.min(2 ** 30, bytes - at), at);
      closeSync(handle);
      return buffer;
    };
    const opened = timeEach([0, 1, 2], 1, () => new Segment(read()));
    const beside = timeEach([0, 1, 2], 1, read);
    const how = `from a file in the cache, 3 runs; reading the same bytes: ${median(beside.each).toFixed(1)} ms`;
    return atMost("open, reading and checksum included", name, "ms", median(opened.each), 1000, how);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

async function reversing(engine: Engine, { segment, name, samples }: Corpus, about: About): Promise<Measure[]> {
  const random = new Random(7);
  const spots = samples.slice(0, TIMED).map(({ at }) => ({
    lat: at.lat + random.between(-0.0005, 0.0005),
    lon: at.lon + random.between(-0.0005, 0.0005),
  }));
  const bare = timeEach(spots, ROUNDS, (at) => [segment.nearestAddresses(at, 250, 8), segment.areasAt(at)]);
  const whole = timeEach(spots, ROUNDS, (at) => engine.reverse({ at }));
  const flatbush = flatbushNearest(segment, spots, ROUNDS);
  const postgis = about.isSmall
    ? await postgisNearest(about.database, segment, spots.slice(0, 500), ROUNDS)
    : undefined;
  const others = [
    `Flatbush, one nearest of bare points, ${flatbush.toFixed(4)} ms`,
    ...(postgis ? [`PostGIS, one nearest, ${postgis.toFixed(3)} ms`] : []),
  ].join("; ");
  const how = (each: readonly number[]) =>
    `${spots.length} spots, ${ROUNDS} rounds; p99 ${percentile(each, 0.99).toFixed(3)} ms; ${others}`;
  return [
    atMost("reverse, nearest and areas, median", name, "ms", median(bare.each), 0.02, how(bare.each)),
    atMost("reverse, formatted, median", name, "ms", median(whole.each), 0.1, how(whole.each)),
  ];
}

/** The same queries to PostgreSQL and to MiniSearch, and how much quicker ours is at the 99th percentile. */
async function besideOthers(
  { segment, name }: Corpus,
  { database }: About,
  classes: readonly QueryClass[],
  ours: ReadonlyMap<string, number>,
): Promise<Measure[]> {
  const times = async (finder: Finder) => {
    const byClass = new Map<string, number[]>();
    for (const { name: kind, queries } of classes) {
      const asked = queries.slice(0, ASKED_BESIDE);
      byClass.set(kind, await timeEachAsync(asked, 1, ({ q }) => finder.find(q), false));
    }
    return byClass;
  };
  const trigrams = await withTrigrams(database, segment, times);
  const mini = await times(miniSearch(segment));
  return [...ours].map(([kind, p99]) => {
    const [a, b] = [trigrams.get(kind)!, mini.get(kind)!].map((each) => percentile(each, 0.99));
    const figures = [
      `pg_trgm p99 ${a.toFixed(1)} ms (median ${median(trigrams.get(kind)!).toFixed(1)})`,
      `MiniSearch p99 ${b.toFixed(1)} ms (median ${median(mini.get(kind)!).toFixed(1)})`,
      `${trigrams.get(kind)!.length} queries each`,
    ].join("; ");
    return atLeast(`suggest, ${kind}, quicker at p99`, name, "×", Math.min(a, b) / p99, 30, figures);
  });
}
