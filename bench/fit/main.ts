import { Random } from "@bibliotope/islands";
import { groupsOf } from "../world/score.ts";
import { type Example, HELD_BY_HAND, holds, readExamples, writeExamples } from "./examples.ts";
import { allWeights, movedByHalf, nearby, valueNow, type WeightName, withWeights } from "./moves.ts";
import { type Known, makePool, type Told } from "./pool.ts";

const [what = "fit"] = process.argv.slice(2);
/** Countries are dealt out to so many folds; each is judged by weights fitted on the others. */
const FOLDS = 4;
const EACH = { fit: 3, examples: 10 };
/** A move that gains less of the loss than this is noise. */
const GAIN = 0.002;
/** Examples of each move of a weight. */
const EXAMPLES = 2;

/**
 * Moves each weight up and down, keeps what makes the questions of three folds come out better, and tells what that does
 * to the fourth. Nothing is written: what gains in most folds is worth a change by hand.
 */
function fitAll(): void {
  const { questions } = makePool(EACH.fit);
  const countries = [...groupsOf(questions, ({ country }) => country).keys()];
  console.log(`${questions.length.toLocaleString("en")} questions of ${countries.length} countries`);
  const kept = new Map<WeightName, number[]>();
  for (let fold = 0; fold < FOLDS; fold++) {
    const held = new Set(countries.filter((_, i) => i % FOLDS === fold));
    const learnt = questions.filter(({ country }) => !held.has(country));
    const told = questions.filter(({ country }) => held.has(country));
    const values = new Map<WeightName, number>();
    const before = { learnt: lossOf(learnt, values), told: lossOf(told, values) };
    let best = before.learnt;
    for (const name of allWeights())
      for (const value of nearby(name, valueNow(name))) {
        const tried = new Map([...values, [name, value]]);
        const loss = lossOf(learnt, tried);
        if (loss > best * (1 - GAIN)) continue;
        best = loss;
        values.set(name, value);
      }
    const after = lossOf(told, values);
    console.log(
      `\nfold ${fold + 1}, told of ${[...held].join(" ")}: loss a question ${shown(before.learnt)} → ${shown(best)} where it was fitted, ${shown(before.told)} → ${shown(after)} where it was not`,
    );
    for (const [name, value] of values) {
      console.log(`  ${name} ${valueNow(name)} → ${value.toFixed(4)}`);
      kept.set(name, [...(kept.get(name) ?? []), value]);
    }
  }
  console.log("\nmoved in most folds:");
  for (const [name, values] of kept)
    if (values.length * 2 > FOLDS)
      console.log(`  ${name} ${valueNow(name)} → ${values.map((v) => v.toFixed(4)).join(", ")}`);
}

const shown = (loss: number) => loss.toFixed(4);

/** Mean loss of a question; each country counts as much as any other. */
function lossOf(questions: readonly Known[], values: ReadonlyMap<WeightName, number>): number {
  return withWeights(values, () => {
    const means = [...groupsOf(questions, ({ country }) => country).values()].map(
      (its) => its.reduce((sum, one) => sum + one.judge().loss, 0) / its.length,
    );
    return means.reduce((sum, mean) => sum + mean, 0) / means.length;
  });
}

/**
 * For each weight questions that come out worse when it is moved by a half, or else otherwise: they hold it from then on.
 * The questions are gone through in an order of their own until enough are found. What still holds a weight is kept.
 */
function findExamples(): void {
  const { questions, engines } = makePool(EACH.examples);
  const known = readExamples();
  const mixed = new Random(8).shuffle(questions);
  // nothing but what is right as it is can hold anything
  const right = mixed.flatMap((one) => {
    const told = one.judge();
    return told.loss < 0.3 ? [{ one, told }] : [];
  });
  const examples: Partial<Record<WeightName, Example[]>> = {};
  for (const name of allWeights().filter((one) => !HELD_BY_HAND.has(one))) {
    if (known[name] && holds(name, known[name], engines)) {
      examples[name] = known[name];
      continue;
    }
    const its = movedByHalf(name).flatMap((value) => {
      const [worse, other] = withWeights(new Map([[name, value]]), () => brokenOf(right));
      console.log(`${name} ${valueNow(name)} → ${value}: ${worse.length} worse, ${other.length} otherwise`);
      return (worse.length ? worse : other).slice(0, EXAMPLES);
    });
    examples[name] = its.filter(({ q }, i) => its.findIndex((one) => one.q === q) === i);
  }
  writeExamples(examples);
}

/** Questions that come out worse than they did, as many as are needed, and such as come out otherwise. */
function brokenOf(right: readonly { one: Known; told: Told }[]): [worse: Example[], other: Example[]] {
  const [worse, other]: [Example[], Example[]] = [[], []];
  for (const { one, told } of right) {
    const now = one.judge();
    if (now.answer === told.answer) continue;
    const { of, call, q, near } = one;
    const example = { of, call, q, ...(near ? { near } : {}), answer: told.answer };
    if (now.loss > told.loss + 0.01) worse.push(example);
    else if (other.length < EXAMPLES) other.push(example);
    if (worse.length === EXAMPLES) break;
  }
  return [worse, other];
}

if (what === "examples") findExamples();
else fitAll();
