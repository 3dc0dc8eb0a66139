import { Engine } from "@bibliotope/core/search";
import { atLeast, atMost, type Measure } from "../measure.ts";
import { flicker } from "../quality.ts";
import { makeWorld, WHOLE } from "./make.ts";
import { askedOf, CLASSES } from "./questions.ts";
import { calibrationOf, groupsOf, Judge, type Judged, type Shares, sharesOf } from "./score.ts";

/** Questions of each class that each country is asked. */
const EACH = 40;
/** Classes with fewer right are shown with some of what was missed. */
const LOW = 90;
const SHOWN = 5;

/** Everything that is asked of the whole world, judged. */
function judgedWorld() {
  const { segment, addresses } = makeWorld(WHOLE);
  const engine = new Engine(segment);
  const judge = new Judge(engine, addresses);
  const asked = askedOf(addresses, EACH);
  const judged: Judged[] = asked.map((one) => judge.judge(one));
  const written = asked.filter(({ kind, question }) => kind === "as written" && question.q !== undefined);
  const lines = written.map(({ question }) => question.q!).filter((_, i) => i % 3 === 0);
  return { judged, addresses: addresses.length, engine, lines };
}

/** Its figures against their targets, for the table of all benchmarks. */
export function measureWorld(): Measure[] {
  const { judged, addresses, engine, lines } = judgedWorld();
  const corpus = `the world, ${addresses.toLocaleString("en")} addresses`;
  const how = `${judged.length.toLocaleString("en")} questions of ${CLASSES.length} classes`;
  const { first, verdict, sureAndWrong } = sharesOf(judged);
  return [
    atLeast("right one first", corpus, "%", first, 97, how),
    atLeast("verdict right", corpus, "%", verdict, 94, how),
    atMost("sure and wrong", corpus, "%", sureAndWrong, 1, how),
    flicker(engine, lines, corpus),
  ];
}

/** Asks everything of the whole world, and prints how much is right: by class, by country, and what was missed. */
export function printWorld(write: (line: string) => void): void {
  const { judged, addresses, engine, lines } = judgedWorld();
  write(
    `${addresses.toLocaleString("en")} addresses, ${judged.length.toLocaleString("en")} questions of ${CLASSES.length} classes`,
  );
  write(rowOf("", ["asked", "first", "in five", "verdict", "sure and wrong"]));
  for (const by of ["kind", "country"] as const) {
    write("");
    for (const [name, its] of groupsOf(judged, (one) => one[by])) write(rowOf(name, figuresOf(sharesOf(its))));
  }
  write("");
  write(rowOf("all", figuresOf(sharesOf(judged))));
  write("");
  const { value, beside } = flicker(engine, lines, "the world");
  write(`needless changes of the top line, a text: ${value} (${beside})`);
  write("");
  write("score told and share of right ones, ten bins of as many answers:");
  write(
    calibrationOf(judged)
      .map(({ told, right }) => `${told.toFixed(3)} ${right.toFixed(3)}`)
      .join(" · "),
  );
  for (const [kind, its] of groupsOf(judged, (one) => one.kind)) {
    const { first, verdict, sureAndWrong } = sharesOf(its);
    if (!(first < LOW || verdict < LOW || sureAndWrong > 1)) continue;
    write("");
    write(kind);
    const missed = its.filter((one) => !one.isVerdict || (one.isAnswerable && !one.isFirst));
    // from everywhere in the list: its countries follow each other
    const step = Math.max(1, Math.floor(missed.length / SHOWN));
    for (let i = 0; i < missed.length && i < step * SHOWN; i += step)
      write(`  ${missed[i].asked.replaceAll("\n", " / ")} → ${missed[i].answered}   (${missed[i].meant})`);
  }
}

const figuresOf = ({ count, first, inFive, verdict, sureAndWrong }: Shares) => [
  count.toLocaleString("en"),
  ...[first, inFive, verdict, sureAndWrong].map((share) => (Number.isNaN(share) ? "–" : share.toFixed(1))),
];

const rowOf = (name: string, cells: readonly string[]) =>
  name.padEnd(46) + cells.map((cell) => cell.padStart(15)).join("");
