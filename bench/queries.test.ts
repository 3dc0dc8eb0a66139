import { Engine } from "@bibliotope/core/search";
import { Random } from "@bibliotope/islands";
import { beforeAll, describe, expect, it } from "vitest";
import { type Corpus, makeCorpus, type Sample } from "./corpus.ts";
import { atLeast, atMost, percentile, timeEach } from "./measure.ts";
import { nonsense, queryClasses, UNANSWERABLE, unanswerable } from "./queries.ts";

let corpus: Corpus;
let samples: readonly Sample[];
beforeAll(() => {
  corpus = makeCorpus("demo", 300);
  samples = corpus.samples;
});
const SEED = Number(process.env.BIBLIOTOPE_SEED ?? 7);

describe("the samples", { tags: ["long"] }, () => {
  it("are addresses of all countries, each with its street and town", () => {
    expect(samples).toHaveLength(300);
    expect(new Set(samples.map(({ country }) => country))).toEqual(new Set(["QR", "QV", "QY"]));
    for (const { number, street, town } of samples)
      expect([number, street[0].name, town[0].name].every(Boolean)).toBe(true);
  });
});

describe("a slip in a short word", { tags: ["long"] }, () => {
  it.each([
    ["6 Sexton's Rod, Tidewell", "6 Sexton's Road, Tidewell"],
    ["9 Sandmouth Rod, Amberrigg", "9 Sandmouth Road, Amberrigg"],
    ["48 Kel Street, Osierholme", "48 Keel Street, Osierholme"],
  ])("is mended though other names begin like that: %s", (q, line) => {
    const engine = new Engine(corpus.segment);
    expect(engine.suggest({ q }).suggestions[0]?.line).toBe(line);
    expect(engine.forward({ q }).candidates[0]?.line).toContain(line);
  });
});

describe("a record", { tags: ["long"] }, () => {
  it("is what its own line says, with nothing that differs, whatever it is", {
    tags: ["long"],
    timeout: 120_000,
  }, () => {
    const { segment } = corpus;
    const engine = new Engine(segment);
    const wrong: string[] = [];
    const check = (ref: string) => {
      const record = engine.record(ref);
      if (!record) return;
      // a number in the name of a place would be imported for the house's
      const { place, town } = record.parts;
      const q = place && /\d/.test(place.name) ? [place.name, town?.name].filter(Boolean).join(", ") : record.line;
      const { outcome, candidates } = engine.forward({ q, limit: 50 });
      const found =
        candidates.find((one) => one.ref === ref) ??
        (record.kind === "place" ? candidates.find(({ at }) => at.lat === record.at.lat) : undefined);
      const isTold = outcome === "matched" || outcome === "ambiguous";
      if (!isTold || !found || found.differences.length)
        wrong.push(`${q} (${record.kind}): ${outcome} ${JSON.stringify(candidates[0]?.differences)}`);
    };
    const { addresses, things } = segment.meta.counts;
    for (let address = 0; address < addresses; address += 97) check(segment.addressRef(address));
    for (let thing = 0; thing < segment.firstHouse; thing += 11) check(segment.thingRef(thing));
    // houses with names, alone and with a number
    for (let house = segment.firstHouse; house < things; house += 7)
      check(segment.addressRef(segment.sections.houseAddress[house - segment.firstHouse]));
    expect(wrong).toEqual([]);
  });
});

/** What is wrong with the sureness of the suggestions for some texts, and how many are sure. */
function sureness(texts: readonly string[]): { wrong: string[]; sure: number } {
  const engine = new Engine(corpus.segment);
  const wrong: string[] = [];
  let sure = 0;
  for (const q of texts) {
    const { suggestions } = engine.suggest({ q });
    const { outcome, candidates } = engine.forward({ q });
    const wanted = outcome === "matched" && candidates[0].exactness !== "between" ? candidates[0].ref : undefined;
    const told = suggestions.filter((one) => one.sure).map(({ ref }) => ref);
    const isRight = told.length
      ? told.length === 1 && told[0] === wanted
      : !suggestions.some(({ ref }) => ref === wanted);
    if (!isRight) wrong.push(`${q}: ${told} for ${wanted}`);
    sure += told.length;
  }
  return { wrong, sure };
}

describe("a suggestion is sure exactly where a forward lookup of the same text is matched to it", () => {
  it.each([
    [
      "where a last word is begun, or whole in a town",
      ["42 Br", "Fýrmýr 8 Østerbrö", "Å 10b Ä", "Tärn gr", "Skælfjäll 6 Ø", "Γλαρίδα 6"],
    ],
    [
      "where it begins a word that was written before it",
      ["29 Salt Street, Sa", "8 Samphwick Road, Sa", "19 Bridge Ln, La", "Østerbäcke 1, Østerb", "Øst erbäcke 1, Øste"],
    ],
    [
      "where it may be another word with an error in it",
      ["8 Sandpiper Roa", "5 Eld", "6 rowa", "26-28 Lante", "13-15 Read", "Sandmouth 13 Kel"],
    ],
    ["where those that say as much are written in another order", ["Hvítmýr 5 Br", "Brænnholm 1 Gr", "Skëldvík 2 Gr"]],
    ["where a word before it has an error", ["Κοθρέα, Τετράγωνο 77, 1", "2 Pebble Rw, Pe"]],
  ])("%s", (_, texts) => {
    expect(sureness(texts).wrong).toEqual([]);
  });

  it("for all classes of questions, and for how they begin", { tags: ["long"], timeout: 300_000 }, () => {
    const random = new Random(SEED);
    const from = process.env.BIBLIOTOPE_LONG ? makeCorpus("demo", 1500).samples : samples.slice(0, 100);
    const texts = queryClasses(from).flatMap(({ queries }) =>
      queries.flatMap(({ q }) => [q, q.slice(0, random.integer(1, q.length))]),
    );
    const { wrong, sure } = sureness([...texts, ...nonsense(50)]);
    expect(wrong, `seed ${SEED}`).toEqual([]);
    expect(sure).toBeGreaterThan(texts.length / 3);
  });
});

describe("the queries", { tags: ["long"] }, () => {
  let classes: ReturnType<typeof queryClasses>;
  beforeAll(() => {
    classes = queryClasses(samples);
  });
  const of = (name: string) => classes.find((queries) => queries.name === name)!.queries;

  it("are the same each time", () => {
    const texts = (all: typeof classes) => all.map(({ queries }) => queries);
    expect(texts(queryClasses(samples))).toEqual(texts(classes));
    expect(nonsense(20)).toEqual(nonsense(20));
  });

  it("without a right answer are of every kind, and name no street that is known", () => {
    const texts = unanswerable(samples, 40);
    expect([...new Set(texts.map(({ kind }) => kind))]).toEqual(UNANSWERABLE);
    expect(texts).toHaveLength(40 * UNANSWERABLE.length);
    expect(unanswerable(samples, 40)).toEqual(texts);
    const held = samples.map(({ street }) => street[0].name).filter((name) => name.length > 4);
    for (const { q } of texts) expect(held.filter((name) => q.includes(name))).toEqual([]);
  });

  it("are what their class says", () => {
    const clean = new Map<Sample, string>(of("clean").map(({ sample, q }) => [sample, q]));
    for (const { q, sample } of of("cut after some letters")) expect(clean.get(sample)!.startsWith(q)).toBe(true);
    for (const { q, sample } of of("one typing error"))
      expect(Math.abs(q.length - clean.get(sample)!.length)).toBeLessThanOrEqual(1);
    expect(of("one typing error").filter(({ q, sample }) => q !== clean.get(sample)).length).toBeGreaterThan(200);
    for (const { q } of of("case and accents lost")) expect(q).toBe(q.toLowerCase());
    for (const { q, sample } of of("wrong postcode")) expect(q.endsWith(sample.postcode!)).toBe(false);
    for (const { q, sample } of of("town left out")) expect(q).not.toContain(sample.town[0].name);
    for (const { q } of of("other script")) expect(q).not.toMatch(/\p{Script=Greek}/u);
    for (const { isStreet } of of("number not there")) expect(isStreet).toBe(true);
  });
});

describe("the figures", { tags: ["long"] }, () => {
  it("say where a share of the values lies", () => {
    const values = Array.from({ length: 100 }, (_, i) => i);
    expect(percentile(values, 0.5)).toBe(50);
    expect(percentile(values, 0.99)).toBe(99);
    expect(percentile([3], 0.99)).toBe(3);
  });

  it("hold at most at their target", () => {
    expect(atMost("m", "c", "ms", 2, 2, "").holds).toBe(true);
    expect(atMost("m", "c", "ms", 2.1, 2, "").holds).toBe(false);
    expect(atLeast("m", "c", "%", 97, 97, "").holds).toBe(true);
    expect(atLeast("m", "c", "%", 96.9, 97, "").holds).toBe(false);
  });

  it("count each input once, whatever the rounds", () => {
    const seen: number[] = [];
    const { each, all } = timeEach([1, 2, 3], 4, (n) => seen.push(n));
    expect(each).toHaveLength(3);
    expect(all).toHaveLength(12);
    expect(seen).toHaveLength(15);
  });
});

describe("advice where several fit", { tags: ["long"] }, () => {
  it("names what parts them and was not written", () => {
    const engine = new Engine(corpus.segment);
    let told = 0;
    for (const { queries } of queryClasses(samples.slice(0, 120)))
      for (const { q } of queries) {
        const { outcome, candidates, advice } = engine.forward({ q });
        const [, ...parts] = /add the (\w+)(?: or the (\w+))?\.$/.exec(advice[0] ?? "") ?? [];
        if (outcome !== "ambiguous" || !parts.length || advice[0].startsWith("No")) continue;
        told++;
        const [first, second] = candidates;
        for (const part of parts.filter(Boolean) as (keyof typeof first.parts)[]) {
          expect(
            first.gloss.map((one) => one.part),
            q,
          ).not.toContain(part);
          const names = candidates.map((one) => one.parts[part]?.name);
          expect(new Set(names).size, `${q}: ${part} of ${first.line} and ${second.line}`).toBeGreaterThan(1);
        }
      }
    expect(told).toBeGreaterThan(20);
  });
});
