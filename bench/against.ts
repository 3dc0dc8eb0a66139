import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { SIZES, type SizeName } from "./corpus.ts";
import { median, percentile } from "./measure.ts";

/** Addresses that the questions are made of, and rounds in which each is asked: the quickest of them counts. */
const [SAMPLES, TIMED, ROUNDS] = [10_000, 600, 4];
/** Questions that one engine is asked before it is the other's turn. */
const TURN = 50;

const [former, size = "demo"] = process.argv.slice(2);
if (!(size in SIZES)) throw new Error(`--size is one of ${Object.keys(SIZES).join(", ")}, not ${size}`);

/** An engine with a corpus that its own build made, and the questions of its own benchmarks. */
async function builtAt(folder: string) {
  const load = <T>(path: string): Promise<T> => import(join(folder, path));
  const { makeCorpus } = await load<typeof import("./corpus.ts")>("bench/dist/corpus.js");
  const { queryClasses } = await load<typeof import("./queries.ts")>("bench/dist/queries.js");
  const { Engine } = await load<typeof import("@bibliotope/core/search")>("packages/core/dist/search/index.js");
  const corpus = makeCorpus(size as SizeName, SAMPLES);
  const { addresses, builtIn, bytes, segment, samples } = corpus;
  console.log(
    `  ${((builtIn * 1000) / addresses).toFixed(2)} µs and ${(bytes / addresses).toFixed(1)} bytes an address`,
  );
  const timed = samples.slice(0, TIMED);
  return { engine: new Engine(segment), classes: queryClasses(timed), points: timed.map(({ at }) => at) };
}

console.log(`\n  before: ${former}`);
const before = await builtAt(former);
console.log("  now");
const now = await builtAt(fileURLToPath(new URL("../..", import.meta.url)));
const sides = [before, now] as const;
if (JSON.stringify(before.classes) !== JSON.stringify(now.classes))
  throw new Error("the two builds ask different questions: nothing can be compared");

/** Asks both the same, by turns. @returns for each the quickest time of each question, in milliseconds */
function timeBoth<T>(questions: readonly T[], ask: (side: typeof now, question: T) => unknown): [number[], number[]] {
  const best = sides.map(() => questions.map(() => Number.POSITIVE_INFINITY));
  for (let round = 0; round < ROUNDS; round++)
    for (let from = 0; from < questions.length; from += TURN)
      for (const i of round % 2 ? [1, 0] : [0, 1])
        for (let q = from; q < Math.min(from + TURN, questions.length); q++) {
          const began = performance.now();
          ask(sides[i], questions[q]);
          best[i][q] = Math.min(best[i][q], performance.now() - began);
        }
  return [best[0], best[1]];
}

console.log("\n| milliseconds | median before | now | | p99 before | now | |");
console.log("| --- | --- | --- | --- | --- | --- | --- |");
function row<T>(name: string, questions: readonly T[], ask: (side: typeof now, question: T) => unknown): void {
  if (!questions.length) return;
  const times = timeBoth(questions, ask);
  const cells = [median, (values: readonly number[]) => percentile(values, 0.99)].flatMap((of) => {
    const [earlier, later] = times.map(of);
    return [earlier.toFixed(3), later.toFixed(3), `${(later / earlier).toFixed(2)} ×`];
  });
  console.log(`| ${name} | ${cells.join(" | ")} |`);
}
for (const call of ["suggest", "forward"] as const)
  for (const { name, queries } of now.classes)
    row(`${call}, ${name}`, queries, ({ engine }, { q }) => engine[call]({ q }));
row("reverse", now.points, ({ engine }, at) => engine.reverse({ at }));
