import { parseRef } from "@bibliotope/core/place";
import type { Engine, Suggestion } from "@bibliotope/core/search";
import { Ceilings, reachOf } from "./ceiling.ts";
import type { Corpus, Sample } from "./corpus.ts";
import { lineOf } from "./lines.ts";
import { atLeast, atMost, type Measure, median } from "./measure.ts";
import { nonsense, type Query, type QueryClass, queryClasses } from "./queries.ts";

/** Answers below this many do not make a bin: their share is not known to within the target. */
const FEWEST_IN_BIN = 300;
const TYPED = 200;

/** How often the right line comes, beside what could be reached; what a score says; what answers to nothing. */
export function* measureQuality(engine: Engine, { segment, samples, name }: Corpus, most: number): Iterable<Measure> {
  const ceilings = new Ceilings(segment);
  const classes = queryClasses(samples.slice(0, most));
  for (const one of classes) yield* rightLines(engine, one, ceilings, name);
  yield letters(engine, samples.slice(0, TYPED), ceilings, name);
  yield* scores(engine, queryClasses(samples), name);
  const texts = nonsense(1000);
  const lost = texts.filter((q) => engine.forward({ q }).outcome !== "none");
  const shown = lost.slice(0, 3).join(" | ") || "none was answered";
  yield atLeast("nonsense answered with none", name, "%", 100 - lost.length / 10, 99, `1000 texts; ${shown}`);
}

function* rightLines(engine: Engine, one: QueryClass, ceilings: Ceilings, name: string): Iterable<Measure> {
  const chances = ceilings.of(one);
  const ceiling = chances.reduce((sum, chance) => sum + chance, 0);
  if (!ceiling) return;
  let first = 0;
  let five = 0;
  const misses: string[] = [];
  one.queries.forEach((query, i) => {
    const place = engine.suggest({ q: query.q }).suggestions.findIndex((suggestion) => isRight(suggestion, query, one));
    if (place === 0) first++;
    else if (chances[i] > 0.9 && misses.length < 3) misses.push(query.q);
    if (place >= 0 && place < 5) five++;
  });
  const share = (count: number) => (100 * count) / one.queries.length;
  const isTyping = one.name.includes("typing");
  const target = one.name === "clean" ? 99.5 : isTyping ? 96 : 97;
  const beside = [
    `${one.queries.length} queries: right line first ${share(first).toFixed(1)} %, ceiling ${share(ceiling).toFixed(1)} %`,
    `among the first five ${share(five).toFixed(1)} %`,
    `missed: ${misses.join(" | ") || "none that could be known"}`,
  ].join("; ");
  yield atLeast(`right line first, of the ceiling, ${one.name}`, name, "%", (100 * first) / ceiling, target, beside);
  if (isTyping)
    yield atLeast(
      `right line in the first five, of the ceiling, ${one.name}`,
      name,
      "%",
      (100 * five) / ceiling,
      99,
      beside,
    );
}

/** How much of a line has to be typed until it is among the first five. */
function letters(engine: Engine, samples: readonly Sample[], ceilings: Ceilings, name: string): Measure {
  const ours: number[] = [];
  const literal: number[] = [];
  for (const sample of samples) {
    const line = lineOf(sample, sample.number);
    let length = 1;
    for (; length < line.length; length++) {
      const { suggestions } = engine.suggest({ q: line.slice(0, length) });
      if (suggestions.slice(0, 5).some((one) => one.kind === "address" && isLine(fold(one.line), { q: "", sample })))
        break;
    }
    ours.push(length);
    literal.push(ceilings.lettersToFive(sample));
  }
  const sum = (list: number[]) => list.reduce((a, b) => a + b, 0);
  const mean = (list: number[]) => (sum(list) / list.length).toFixed(1);
  const beside = `${samples.length} lines: ${mean(ours)} letters (median ${median(ours)}), a literal prefix matcher ${mean(literal)} (${median(literal)})`;
  return atMost("letters typed until in the first five", name, "×", sum(ours) / sum(literal), 1.15, beside);
}

/** Whether a score says the truth, and what clean queries score. */
function* scores(engine: Engine, classes: readonly QueryClass[], name: string): Iterable<Measure> {
  const bins = Array.from({ length: 10 }, () => ({ count: 0, score: 0, right: 0 }));
  let asked = 0;
  let none = 0;
  let high = 0;
  let clean = 0;
  const whole = classes.filter((one) => one.name !== "cut after some letters");
  const turns = new Map<Sample, number>();
  for (const one of whole) for (const { sample } of one.queries) turns.set(sample, 0);
  for (const [i, sample] of [...turns.keys()].entries()) turns.set(sample, i % whole.length);
  for (const [turn, one] of whole.entries()) {
    for (const query of one.queries) {
      // each address in one class alone: the answers are to be independent of each other
      if (turns.get(query.sample) !== turn) continue;
      const { candidates } = engine.forward({ q: query.q });
      asked++;
      if (!candidates.length) {
        none++;
        continue;
      }
      const [{ score, ref }] = candidates;
      if (one.name === "clean" && score >= 0.9) high++;
      if (one.name === "clean") clean++;
      const bin = bins[Math.min(9, Math.floor(score * 10))];
      bin.count++;
      bin.score += score;
      if (isMeant(ref, query)) bin.right++;
    }
  }
  const filled = bins.filter(({ count }) => count >= FEWEST_IN_BIN);
  const off = filled.map(({ count, score, right }) => Math.abs(score - right) / count);
  const shown = filled.map(
    ({ count, score, right }) => `${(score / count).toFixed(2)}: ${(right / count).toFixed(2)} of ${count}`,
  );
  yield atMost("score and share of right answers, farthest bin", name, "", Math.max(...off), 0.05, shown.join("; "));
  yield atLeast("clean queries with a score of 0.9 or more", name, "%", (100 * high) / clean, 60, `${clean} queries`);
  yield atMost("answerable queries answered with none", name, "%", (100 * none) / asked, 0.5, `${asked} queries`);
}

const fold = (text: string) => text.normalize("NFC").toLowerCase();

/** True when a suggestion is what was meant; of a beginning, what the beginning reaches. */
function isRight({ line, kind }: Suggestion, query: Query, { name }: QueryClass): boolean {
  if (name !== "cut after some letters") return isLine(fold(line), query);
  const reach = reachOf(query.q, query.sample);
  if (reach === "town") return kind === "town" && query.sample.town.some((town) => fold(town.name) === fold(line));
  return isLine(fold(line), { ...query, isStreet: reach === "street" });
}

/** True when a line names the street and the town, in either script, and the number where there is one. */
function isLine(line: string, { sample: { number, street, town }, isStreet }: Query): boolean {
  const words = line.split(/[\s,]+/);
  const joined = number.replace(/(\d)(\p{L})$/u, "$1 $2").split(" ");
  const hasNumber = words.includes(number) || joined.every((piece) => words.includes(piece));
  const names = (list: Query["sample"]["street"]) => list.some(({ name }) => line.includes(fold(name)));
  return names(street) && names(town) && (isStreet ? !hasNumber : hasNumber);
}

/** True when a record is the very one that the query was made from, not one that reads the same. */
function isMeant(ref: string, { sample, isStreet }: Query): boolean {
  return parseRef(ref)?.identity === (isStreet ? sample.streetIdentity : sample.identity);
}
