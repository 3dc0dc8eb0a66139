import { Segment } from "@bibliotope/core/index";
import { Engine } from "@bibliotope/core/search";
import { generateIslands, Random, segmentOfWorld } from "@bibliotope/islands";
import { atMost, type Measure, median, percentile, timeEach } from "./measure.ts";
import { queryClasses } from "./queries.ts";

const QUERIES = 2000;
const ROUNDS = 5;

/** Suggest and reverse, from text in to formatted answer out, in this process. */
export function measureEngine(): Measure[] {
  const world = generateIslands();
  const buffer = segmentOfWorld(world);
  const engine = new Engine(new Segment(buffer));
  const corpus = `the islands, ${world.addresses.length.toLocaleString("en")} addresses`;
  const measures = queryClasses(world, QUERIES).map(({ name, queries }) => {
    const { each, all } = timeEach(queries, ROUNDS, (q) => engine.suggest({ q }));
    const beside = `${QUERIES} queries, ${ROUNDS} rounds; median ${median(each).toFixed(3)} ms; p99 of every single call ${percentile(all, 0.99).toFixed(3)} ms`;
    return atMost(`suggest, ${name}, p99`, corpus, "ms", percentile(each, 0.99), 2, beside);
  });
  const random = new Random(7);
  const spots = Array.from({ length: QUERIES }, () => {
    const { at } = random.pick(world.addresses);
    return { lat: at.lat + random.between(-0.0005, 0.0005), lon: at.lon + random.between(-0.0005, 0.0005) };
  });
  const { each, all } = timeEach(spots, ROUNDS, (at) => engine.reverse({ at }));
  const beside = `${QUERIES} positions, ${ROUNDS} rounds; median ${median(each).toFixed(3)} ms; p99 of every single call ${percentile(all, 0.99).toFixed(3)} ms`;
  return [...measures, atMost("reverse, formatted, p99", corpus, "ms", percentile(each, 0.99), 0.2, beside)];
}
