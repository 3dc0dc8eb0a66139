import { Random } from "@bibliotope/islands";
import type { Sample } from "./corpus.ts";

/** A query whose answer is known: the address it was made from, or its street where the number was made up. */
export interface Query {
  q: string;
  sample: Sample;
  /** True when the right line is the street: it has no such number. */
  isStreet?: boolean;
}

/** Queries by class, made from the corpus's own addresses by rules of this file alone. */
export interface QueryClass {
  name: string;
  queries: Query[];
}

/** The line as a person of the country would type it. */
function lineOf({ country, number, street, town }: Sample, name = street[0].name, townName = town[0].name): string {
  if (country === "QR") return `${number} ${name}, ${townName}`;
  return country === "QV" ? `${name} ${number}, ${townName}` : `${townName}, ${name}, ${number}`;
}

/** Same corpus and seed, same queries. */
export function queryClasses(samples: readonly Sample[], seed = 42): QueryClass[] {
  const random = new Random(seed);
  const make = (name: string, of: (sample: Sample) => string | undefined, isStreet = false): QueryClass => ({
    name,
    queries: samples.flatMap((sample) => {
      const q = of(sample);
      return q === undefined ? [] : [{ q, sample, ...(isStreet ? { isStreet } : {}) }];
    }),
  });
  return [
    make("clean", (sample) => lineOf(sample)),
    make("cut after some letters", (sample) => {
      const line = lineOf(sample);
      return line.slice(0, random.whole(2, line.length));
    }),
    make("one typing error", (sample) => misspell(lineOf(sample), random, 1)),
    make("two typing errors", (sample) => misspell(lineOf(sample), random, 2)),
    make("abbreviated", (sample) => sample.street[0].abbr && lineOf(sample, sample.street[0].abbr)),
    make("town left out", ({ country, number, street: [{ name }] }) =>
      country === "QR" ? `${number} ${name}` : `${name} ${number}`,
    ),
    make("other order", ({ number, street, town }) => `${town[0].name} ${number} ${street[0].name}`),
    make("case and accents lost", (sample) => plain(lineOf(sample))),
    make("other script", (sample) => sample.street[1] && lineOf(sample, sample.street[1].name, sample.town[1]?.name)),
    make("compound in two words", (sample) => {
      if (sample.country !== "QV") return undefined;
      const [{ name }] = sample.street;
      const at = random.whole(3, Math.max(3, name.length - 3));
      return name.length > 6 ? lineOf(sample, `${name.slice(0, at)} ${name.slice(at)}`) : undefined;
    }),
    make("two words in one", (sample) =>
      sample.country === "QR" ? lineOf(sample, sample.street[0].name.replace(" ", "")) : undefined,
    ),
    make("wrong postcode", (sample) => {
      const wrong = sample.postcode?.replace(/\d/g, (digit) => String((Number(digit) + random.whole(1, 9)) % 10));
      return wrong && `${lineOf(sample)}, ${wrong}`;
    }),
    make("number not there", (sample) => lineOf({ ...sample, number: String(random.whole(2000, 9000)) }), true),
  ];
}

/** Texts that answer to nothing: words of made-up letters. */
export function nonsense(count: number, seed = 43): string[] {
  const random = new Random(seed);
  const word = () => Array.from({ length: random.whole(5, 10) }, () => "qxzjkvwpfg"[random.whole(0, 9)]).join("");
  return Array.from({ length: count }, () => Array.from({ length: random.whole(1, 4) }, word).join(" "));
}

/** Letters without case and marks, the way people type them on any keyboard. */
function plain(text: string): string {
  return text.toLowerCase().normalize("NFD").replace(/\p{M}/gu, "").replaceAll("ø", "o").replaceAll("æ", "ae");
}

/** Letters replaced, left out, doubled, or swapped with their neighbour, each in a word of its own. */
function misspell(line: string, random: Random, errors: number): string {
  const words = random.shuffle(
    [...line.matchAll(/\p{L}{4,}/gu)].map((match) => ({ from: match.index, length: match[0].length })),
  );
  const chosen = words.slice(0, errors).sort((a, b) => b.from - a.from);
  for (const word of chosen) {
    const at = word.from + random.whole(1, word.length - 2);
    const kinds = [
      () => line.slice(0, at) + String.fromCharCode(97 + random.whole(0, 25)) + line.slice(at + 1),
      () => line.slice(0, at) + line.slice(at + 1),
      () => line.slice(0, at) + line[at] + line.slice(at),
      () => line.slice(0, at) + line[at + 1] + line[at] + line.slice(at + 2),
    ];
    line = random.pick(kinds)();
  }
  return line;
}
