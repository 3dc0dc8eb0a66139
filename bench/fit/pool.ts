import type { Position } from "@bibliotope/core/geo";
import { Engine } from "@bibliotope/core/search";
import { makeCorpus } from "../corpus.ts";
import { isMeant, isRight } from "../quality.ts";
import { type Query, type QueryClass, queryClasses, unanswerable } from "../queries.ts";
import { makeWorld, type Size } from "../world/make.ts";
import { askedOf } from "../world/questions.ts";
import { Judge } from "../world/score.ts";

/** A question whose answer is known. */
export interface Known {
  /** Where it is asked: an index of its own for each. */
  of: "world" | "islands";
  country: string;
  kind: string;
  call: "forward" | "suggest";
  q: string;
  near?: Position;
  judge(): Told;
}

/** What came of it. */
export interface Told {
  /** 0 for all that could be wished for; a wrong first line and a wrong verdict cost 1 each, sure and wrong 5. */
  loss: number;
  /** Outcome, first line and score as they were told: what an example holds. */
  answer: string;
}

export interface Pool {
  questions: Known[];
  engines: Record<Known["of"], Engine>;
}

/** The middle size of the world: some seconds for all questions. */
const MIDDLE: Size = { towns: 8, streets: 16, houses: 6 };

/** Questions of the islands and of the world, the same each time. @param each of a class and country */
export function makePool(each: number): Pool {
  const { segment, addresses } = makeWorld(MIDDLE);
  const world = new Engine(segment);
  const corpus = makeCorpus("demo", each * 12);
  const islands = new Engine(corpus.segment);
  const judge = new Judge(world, addresses);
  const questions: Known[] = askedOf(addresses, each).flatMap((asked) => {
    const { kind, address, question } = asked;
    // parts apart are asked by the forms' tests; an example is one text
    if (question.q === undefined) return [];
    const { q } = question;
    const call = question.isTyped ? "suggest" : "forward";
    return {
      of: "world",
      country: address.ways.code,
      kind,
      call,
      q,
      judge: () => {
        const { isAnswerable, isFirst, isVerdict, isSureAndWrong, score = 0 } = judge.judge(asked);
        const wrong = Number(isAnswerable && !isFirst) + Number(!isVerdict) + 5 * Number(isSureAndWrong);
        const isScored = call === "forward";
        return {
          loss: wrong + (isScored ? (score - Number(isFirst)) ** 2 : 0),
          answer: answerOf(world, { call, q }),
        };
      },
    };
  });
  for (const one of queryClasses(corpus.samples))
    for (const query of one.queries) questions.push(...islandQuestions(islands, one, query));
  for (const { kind, q } of unanswerable(corpus.samples, each * 6))
    questions.push({
      of: "islands",
      country: "none",
      kind,
      call: "forward",
      q,
      judge: () => {
        const { outcome, candidates } = islands.forward({ q });
        const wrong = Number(outcome !== "none" && outcome !== "differs") + 5 * Number(outcome === "matched");
        return { loss: wrong + (candidates[0]?.score ?? 0) ** 2, answer: answerOf(islands, { call: "forward", q }) };
      },
    });
  return { questions, engines: { world, islands } };
}

function islandQuestions(engine: Engine, one: QueryClass, query: Query): Known[] {
  const { q, sample } = query;
  const common = { of: "islands" as const, country: sample.country, kind: one.name, q };
  const typed = (near?: Position): Known => ({
    ...common,
    call: "suggest",
    ...(near ? { near } : {}),
    judge: () => {
      const { suggestions } = engine.suggest({ q, ...(near ? { near } : {}) });
      const place = suggestions.findIndex((line) => isRight(line, query, one));
      const loss = place === 0 ? 0 : place > 0 && place < 5 ? 1 : 2;
      return { loss, answer: answerOf(engine, { call: "suggest", q, near }) };
    },
  });
  if (one.name === "cut after some letters") return [typed()];
  const asked: Known = {
    ...common,
    call: "forward",
    judge: () => {
      const { outcome, candidates } = engine.forward({ q });
      const isFirst = candidates.length > 0 && isMeant(candidates[0].ref, query);
      const sure = outcome === "matched" && !isFirst ? 5 : 0;
      return {
        loss: Number(!isFirst) + sure + ((candidates[0]?.score ?? 0) - Number(isFirst)) ** 2,
        answer: answerOf(engine, { call: "forward", q }),
      };
    },
  };
  // somebody who is there leaves the town out
  return one.name === "town left out" ? [typed(), typed(sample.at), asked] : [typed(), asked];
}

/** What is told of a text, in short: the outcome, the first lines, and scores. */
export function answerOf(engine: Engine, { call, q, near }: Pick<Known, "call" | "q" | "near">): string {
  const asked = { q, limit: 3, ...(near ? { near } : {}) };
  if (call === "suggest")
    return engine
      .suggest(asked)
      .suggestions.map(({ line }) => line)
      .join(" | ");
  const { outcome, candidates } = engine.forward(asked);
  return [outcome, ...candidates.map(({ score, line }) => `${score.toFixed(3)} ${line}`)].join(" | ");
}
