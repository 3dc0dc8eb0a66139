import { parseRef } from "@bibliotope/core/place";
import type { Engine, Suggestion } from "@bibliotope/core/search";
import { Ceilings, reachOf } from "./ceiling.ts";
import type { Corpus, Sample } from "./corpus.ts";
import { lineOf } from "./lines.ts";
import { atLeast, atMost, type Measure, median } from "./measure.ts";
import { nonsense, type Query, type QueryClass, queryClasses, UNANSWERABLE, unanswerable } from "./queries.ts";

/** Bins of as many answers each. */
const BINS = 10;
const TYPED = 200;

/** How often the right line comes, beside what could be reached; what a score says; what answers to nothing. */
export function* measureQuality(engine: Engine, { segment, samples, name }: Corpus, most: number): Iterable<Measure> {
  const ceilings = new Ceilings(segment);
  const classes = queryClasses(samples.slice(0, most));
  for (const one of classes) yield* rightLines(engine, one, ceilings, name);
  yield letters(engine, samples.slice(0, TYPED), ceilings, name);
  const lines = samples.slice(0, TYPED).map((sample) => lineOf(sample, sample.number));
  yield flicker(engine, lines, name);
  yield* scores(engine, queryClasses(samples), samples, name);
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

/** How often, while a line is typed letter by letter, the top line gives way to another and is the top again later. */
export function flicker(engine: Engine, lines: readonly string[], name: string): Measure {
  const worst: { line: string; count: number }[] = [];
  let [needless, changes] = [0, 0];
  for (const line of lines) {
    const tops = Array.from(line, (_, i) => engine.suggest({ q: line.slice(0, i + 1) }).suggestions[0]?.line);
    const isChange = (i: number) => i > 0 && tops[i] !== tops[i - 1];
    const count = tops.filter((_, i) => isChange(i) && tops.includes(tops[i - 1], i)).length;
    changes += tops.filter((_, i) => isChange(i)).length;
    needless += count;
    worst.push({ line, count });
  }
  const shown = worst
    .sort((a, b) => b.count - a.count)
    .slice(0, 3)
    .map(({ line, count }) => `${line} (${count})`)
    .join(" | ");
  const beside = `${lines.length} lines, ${(changes / lines.length).toFixed(1)} changes of the top line a text; most: ${shown}`;
  return atMost("needless changes of the top line, a text", name, "", needless / lines.length, 0.3, beside);
}

/**
 * Whether a score and an outcome say the truth: on queries of all classes, each address in one class alone so that the
 * answers are independent of each other, and on texts of which a tenth have no right answer.
 */
function* scores(engine: Engine, classes: readonly QueryClass[], samples: readonly Sample[], name: string) {
  const whole = classes.filter((one) => one.name !== "cut after some letters");
  const turns = new Map(samples.map((sample, i) => [sample, i % whole.length]));
  const told: { score: number; isRight: boolean }[] = [];
  const wrong: string[] = [];
  let [asked, none, clean, high] = [0, 0, 0, 0];
  const ask = (q: string, isRight: (ref: string) => boolean) => {
    const { outcome, candidates } = engine.forward({ q });
    const [first] = candidates;
    asked++;
    if (!first) return outcome;
    told.push({ score: first.score, isRight: isRight(first.ref) });
    if (outcome === "matched" && !isRight(first.ref)) wrong.push(q);
    return outcome;
  };
  for (const [turn, one] of whole.entries())
    for (const query of one.queries) {
      if (turns.get(query.sample) !== turn) continue;
      if (ask(query.q, (ref) => isMeant(ref, query)) === "none") none++;
      if (one.name !== "clean") continue;
      clean++;
      if ((engine.forward({ q: query.q }).candidates[0]?.score ?? 0) >= 0.9) high++;
    }
  const answerable = asked;
  const lost = unanswerable(samples, Math.round(answerable / 9 / UNANSWERABLE.length));
  const told0 = lost.filter(({ q }) => /^(none|differs)$/.test(ask(q, () => false))).length;
  const share = (count: number, of: number) => (100 * count) / of;
  told.sort((a, b) => a.score - b.score);
  const bins = Array.from({ length: BINS }, (_, i) =>
    told.slice(Math.floor((i * told.length) / BINS), Math.floor(((i + 1) * told.length) / BINS)),
  ).map((bin) => ({
    score: bin.reduce((sum, { score }) => sum + score, 0) / bin.length,
    right: bin.filter(({ isRight }) => isRight).length / bin.length,
  }));
  const brier = told.reduce((sum, { score, isRight }) => sum + (score - (isRight ? 1 : 0)) ** 2, 0) / told.length;
  const off = bins.map(({ score, right }) => Math.abs(score - right));
  const shown = bins.map(({ score, right }) => `${score.toFixed(3)}: ${right.toFixed(3)}`).join("; ");
  const beside = `${told.length} answers in ${BINS} bins, ${lost.length} of ${asked} texts without a right answer; ${shown}; Brier ${brier.toFixed(4)}`;
  yield atMost("score and share of right answers, farthest bin", name, "", Math.max(...off), 0.03, beside);
  yield atLeast(
    "texts without a right answer told none or differs",
    name,
    "%",
    share(told0, lost.length),
    97,
    `${lost.length} texts`,
  );
  yield atMost(
    "sure and wrong",
    name,
    "%",
    share(wrong.length, asked),
    0.5,
    `${asked} texts; ${wrong.slice(0, 3).join(" | ")}`,
  );
  yield atLeast("clean queries with a score of 0.9 or more", name, "%", share(high, clean), 60, `${clean} queries`);
  yield atMost(
    "answerable queries answered with none",
    name,
    "%",
    share(none, answerable),
    0.5,
    `${answerable} queries`,
  );
}

const fold = (text: string) => text.normalize("NFC").toLowerCase();

/** True when a suggestion is what was meant; of a beginning, what the beginning reaches. */
export function isRight({ line, kind }: Suggestion, query: Query, { name }: QueryClass): boolean {
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
export function isMeant(ref: string, { sample, isStreet }: Query): boolean {
  return parseRef(ref)?.identity === (isStreet ? sample.streetIdentity : sample.identity);
}
