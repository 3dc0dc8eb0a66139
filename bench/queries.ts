import { Random } from "@bibliotope/islands";
import type { Sample } from "./corpus.ts";
import { type LineParts, lineOf } from "./lines.ts";

/** A query whose answer is known: the address it was made from, or its street where the number was made up. */
export interface Query {
  q: string;
  sample: Sample;
  /** True when the right line is the street: it has no such number. */
  isStreet?: boolean;
}

/** What the typed text would be for a line if no error were made; undefined where the class has none. */
type Form = (parts: LineParts, number: string, postcode?: string) => string | undefined;

/** Queries by class, made from the corpus's own addresses by rules of this file alone. */
export interface QueryClass {
  name: string;
  queries: Query[];
  form: Form;
  /** What is not told apart in this class: both the typed and the right text are taken through it. */
  normal: (text: string) => string;
  /** Edits that part a typed text from its form, at most. */
  edits: number;
}

interface Rule {
  name: string;
  form: Form;
  /** What is done to the form. */
  spoil?: (text: string, sample: Sample) => string | undefined;
  normal?: (text: string) => string;
  edits?: number;
  isStreet?: boolean;
}

/** Same corpus and seed, same queries. */
export function queryClasses(samples: readonly Sample[], seed = 42): QueryClass[] {
  const random = new Random(seed);
  const clean: Form = (parts, number) => lineOf(parts, number);
  const withCode: Form = (parts, number, postcode) => postcode && `${lineOf(parts, number)}, ${postcode}`;
  const rules: Rule[] = [
    { name: "clean", form: clean },
    { name: "cut after some letters", form: clean, spoil: (line) => line.slice(0, random.integer(2, line.length)) },
    { name: "one typing error", form: clean, spoil: (line) => misspell(line, random, 1), edits: 1 },
    { name: "two typing errors", form: clean, spoil: (line) => misspell(line, random, 2), edits: 2 },
    {
      name: "abbreviated",
      form: (parts, number) => parts.street[0].abbr && lineOf(parts, number, parts.street[0].abbr),
    },
    {
      name: "town left out",
      form: ({ country, street: [{ name }] }, number) =>
        (country === "QR" ? [number, name] : [name, number]).filter(Boolean).join(" "),
    },
    { name: "other order", form: ({ street, town }, number) => `${town[0].name} ${number} ${street[0].name}` },
    { name: "case and accents lost", form: (parts, number) => plain(lineOf(parts, number)) },
    {
      name: "other script",
      form: (parts, number) => parts.street[1] && lineOf(parts, number, parts.street[1].name, parts.town[1]?.name),
    },
    {
      name: "compound in two words",
      form: clean,
      spoil: (_, sample) => {
        const [{ name }] = sample.street;
        if (sample.country !== "QV" || name.length <= 6) return undefined;
        const at = random.integer(3, name.length - 3);
        return lineOf(sample, sample.number, `${name.slice(0, at)} ${name.slice(at)}`);
      },
      normal: (text) => text.replaceAll(" ", ""),
    },
    {
      name: "two words in one",
      form: clean,
      spoil: (_, sample) =>
        sample.country === "QR" ? lineOf(sample, sample.number, sample.street[0].name.replace(" ", "")) : undefined,
      normal: (text) => text.replaceAll(" ", ""),
    },
    {
      name: "wrong postcode",
      form: withCode,
      spoil: (_, sample) => withCode(sample, sample.number, sample.postcode && otherDigits(sample.postcode, random)),
      edits: 4,
    },
    {
      name: "number not there",
      form: clean,
      spoil: (_, sample) => lineOf(sample, String(random.integer(2000, 9000))),
      isStreet: true,
    },
  ];
  return rules.map(({ name, form, spoil, normal = (text) => text, edits = 0, isStreet }) => ({
    name,
    form,
    normal,
    edits,
    queries: samples.flatMap((sample): Query[] => {
      const text = form(sample, sample.number, sample.postcode);
      const q = text && spoil ? spoil(text, sample) : text;
      return q ? [{ q, sample, ...(isStreet ? { isStreet } : {}) }] : [];
    }),
  }));
}

/** Texts that answer to nothing: words of made-up letters, and sentences of other matters. */
export function nonsense(count: number, seed = 43): string[] {
  const random = new Random(seed);
  const word = () => Array.from({ length: random.integer(5, 10) }, () => "qxzjkvwpfg"[random.integer(0, 9)]).join("");
  return Array.from({ length: count }, () => Array.from({ length: random.integer(1, 4) }, word).join(" "));
}

/** What a text without a right answer is made of. */
export const UNANSWERABLE = [
  "no such street",
  "no such street nor town",
  "no such street, no town",
  "words",
  "sentence",
];

/** Texts in the manner of addresses that nothing held answers to, as many of each kind: names are put together from syllables. */
export function unanswerable(samples: readonly Sample[], count: number, seed = 44): { kind: string; q: string }[] {
  const random = new Random(seed);
  const name = () => {
    const text = Array.from({ length: random.integer(2, 3) }, () => random.pick(SYLLABLES)).join("");
    return text[0].toUpperCase() + text.slice(1);
  };
  const street = ({ country, street: [{ name: own }] }: Sample) =>
    country === "QV" ? `${name()}gate` : country === "QR" ? `${name()} ${own.split(" ").at(-1)}` : name();
  const made = (kind: string, text: (sample: Sample) => string) =>
    Array.from({ length: count }, () => ({ kind, q: text(random.pick([...samples])) }));
  const line = (sample: Sample, town = sample.town) =>
    lineOf({ ...sample, street: [{ ...sample.street[0], name: street(sample) }], town }, sample.number);
  return [
    ...made("no such street", (sample) => line(sample)),
    ...made("no such street nor town", (sample) => line(sample, [{ ...sample.town[0], name: name() }])),
    ...made("no such street, no town", (sample) => `${sample.number} ${street(sample)}`),
    ...nonsense(count, seed).map((q) => ({ kind: "words", q })),
    ...made("sentence", ({ number }) => `${name()} ${name()} ${number} ${name()}, ${name()}`),
  ];
}

const SYLLABLES = ["ba", "ko", "ri", "mel", "sto", "wen", "dra", "fil", "nu", "tor", "gath", "lis"];

/** Letters without case and marks, the way people type them on any keyboard. */
function plain(text: string): string {
  return text.toLowerCase().normalize("NFD").replace(/\p{M}/gu, "").replaceAll("ø", "o").replaceAll("æ", "ae");
}

function otherDigits(postcode: string, random: Random): string {
  return postcode.replace(/\d/g, (digit) => String((Number(digit) + random.integer(1, 9)) % 10));
}

/** Letters replaced, left out, doubled, or swapped with their neighbour, each in a word of its own. */
function misspell(line: string, random: Random, errors: number): string {
  const words = random.shuffle(
    [...line.matchAll(/\p{L}{4,}/gu)].map((match) => ({ from: match.index, length: match[0].length })),
  );
  const chosen = words.slice(0, errors).sort((a, b) => b.from - a.from);
  for (const word of chosen) {
    const at = word.from + random.integer(1, word.length - 2);
    const kinds = [
      () => line.slice(0, at) + String.fromCharCode(97 + random.integer(0, 25)) + line.slice(at + 1),
      () => line.slice(0, at) + line.slice(at + 1),
      () => line.slice(0, at) + line[at] + line.slice(at),
      () => line.slice(0, at) + line[at + 1] + line[at] + line.slice(at + 2),
    ];
    line = random.pick(kinds)();
  }
  return line;
}
