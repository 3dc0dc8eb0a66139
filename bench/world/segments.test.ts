import { Engine } from "@bibliotope/core/search";
import { expect, it } from "vitest";
import { makeSegments, SMALL } from "./make.ts";
import { askedOf } from "./questions.ts";

/** `npm run test:long` asks ten thousand of a larger world, of two segments and of five. */
const isLong = process.env.BIBLIOTOPE_LONG !== undefined;
const [size, each, least, counts] = isLong
  ? [{ towns: 6, streets: 12, houses: 5 }, 12, 10_000, [2, 5]]
  : [SMALL, 1, 1000, [3]];

it.each(counts)("questions are answered by %i segments side by side as by one", { timeout: 300_000 }, (count) => {
  const { segments, addresses } = makeSegments(size, 1);
  const one = new Engine(segments);
  const several = new Engine(makeSegments(size, count).segments);
  const questions = askedOf(addresses, each).map(({ question }) => question);
  let asked = 0;
  const same = (ask: (engine: Engine) => unknown, what: unknown) => {
    asked++;
    expect(ask(several), JSON.stringify(what)).toEqual(ask(one));
  };
  for (const [i, question] of questions.entries()) {
    const { ref, at, ways, postcode } = addresses[(i * 61) % addresses.length];
    const q = question.q ?? Object.values(question.parts ?? {}).join(" ");
    const begun = q.slice(0, 1 + (i % q.length));
    switch (i % 6) {
      case 0:
        same((engine) => engine.reverse({ at, radius: 500 }), at);
        break;
      case 1:
        same((engine) => engine.suggest({ q: begun, countries: [ways.code], near: at }), begun);
        break;
      case 2:
        same((engine) => engine.postcodes({ country: ways.code, starts: postcode.slice(0, 2) }), postcode);
        same((engine) => engine.record(ref), ref);
        break;
      case 3:
        same((engine) => engine.likeliest(question), question);
        break;
      default:
        same((engine) => engine.suggest({ q: begun }), begun);
    }
    same((engine) => engine.forward(question), question);
  }
  expect(asked).toBeGreaterThan(least);
});
