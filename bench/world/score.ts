import type { Engine } from "@bibliotope/core/search";
import type { Address } from "./make.ts";
import type { askedOf, Question } from "./questions.ts";

/** What came of one question. */
export interface Judged {
  kind: string;
  country: string;
  asked: string;
  /** What was meant, and what was answered. */
  meant: string;
  answered: string;
  /** Whether there is a right first answer at all. */
  isAnswerable: boolean;
  isFirst: boolean;
  isInFive: boolean;
  isVerdict: boolean;
  /** Said to be the one, and is not. */
  isSureAndWrong: boolean;
  /** Of what was put first; undefined where there is none. */
  score: number | undefined;
}

/** Judges answers by the addresses that the questions were made from, without anything of the search. */
export class Judge {
  readonly #byName: ReadonlyMap<string, Address[]>;

  constructor(
    private readonly engine: Engine,
    addresses: readonly Address[],
  ) {
    this.#byName = groupsOf(addresses, keyOf);
  }

  judge({ kind, address, question }: ReturnType<typeof askedOf>[number]): Judged {
    const asked =
      question.q ??
      Object.entries(question.parts ?? {})
        .map(([part, value]) => `${part}=${value}`)
        .join(" ");
    const common = { kind, country: address.ways.code, asked, meant: lineOf(address) };
    return question.isTyped
      ? { ...common, ...this.#judgeTyped(question, address) }
      : { ...common, ...this.#judgeAnswer(question, address) };
  }

  /** All that is written like an address as far as the question tells. */
  #equals(address: Address, { told }: Question): Set<string> {
    const its = this.#byName.get(keyOf(address)) ?? [];
    return new Set(
      its.flatMap(({ ref, town, postcode }) =>
        (!told.town || town === address.town) && (!told.postcode || postcode === address.postcode) ? [ref] : [],
      ),
    );
  }

  #judgeAnswer(question: Question, address: Address) {
    const { q, parts, expect } = question;
    const { outcome, candidates } = this.engine.forward({ ...(q === undefined ? { parts } : { q }), limit: 5 });
    const equal = this.#equals(address, question);
    const isIt = (one: (typeof candidates)[number] | undefined): boolean => {
      if (!one) return false;
      if (expect === "street differs")
        return one.ref === address.streetRef || (one.parts.street ?? one.parts.block)?.name === address.street.name;
      return equal.has(one.ref);
    };
    const [first] = candidates;
    const isAnswerable = expect !== "nothing";
    const isFirst = isAnswerable && isIt(first);
    // several that fit equally well may be offered, if each says what is not so in it
    const isNotSo =
      outcome === "differs" ||
      outcome === "none" ||
      (outcome === "ambiguous" && candidates.every(({ differences }) => differences.length));
    const isVerdict = expect === "same" ? isFirst && outcome === (equal.size > 1 ? "ambiguous" : "matched") : isNotSo;
    return {
      answered: `${outcome}: ${first?.line ?? "–"}`,
      isAnswerable,
      isFirst,
      isInFive: isAnswerable && candidates.some(isIt),
      isVerdict,
      isSureAndWrong: outcome === "matched" && (expect !== "same" || !isFirst),
      score: first?.score,
    };
  }

  #judgeTyped(question: Question, address: Address) {
    const { suggestions } = this.engine.suggest({ q: question.q! });
    const equal = this.#equals(address, question);
    const isIt = ({ ref, line }: (typeof suggestions)[number]) => equal.has(ref) || line.includes(address.street.name);
    const isFirst = suggestions.slice(0, 1).some(isIt);
    const isInFive = suggestions.slice(0, 5).some(isIt);
    const answered = suggestions[0]?.line ?? "–";
    return {
      answered,
      isAnswerable: true,
      isFirst,
      isInFive,
      isVerdict: isInFive,
      isSureAndWrong: false,
      score: undefined,
    };
  }
}

const keyOf = ({ street, number }: Address) => `${street.name}|${number}`;
const lineOf = ({ street, number, postcode, town, ways }: Address) =>
  `${street.name} ${number}, ${postcode} ${town} (${ways.code})`;

/** Percentages of some answers. */
export interface Shares {
  count: number;
  first: number;
  inFive: number;
  verdict: number;
  sureAndWrong: number;
}

export function sharesOf(judged: readonly Judged[]): Shares {
  const share = (of: readonly Judged[], is: (one: Judged) => boolean) =>
    of.length ? (100 * of.filter(is).length) / of.length : Number.NaN;
  const answerable = judged.filter(({ isAnswerable }) => isAnswerable);
  return {
    count: judged.length,
    first: share(answerable, ({ isFirst }) => isFirst),
    inFive: share(answerable, ({ isInFive }) => isInFive),
    verdict: share(judged, ({ isVerdict }) => isVerdict),
    sureAndWrong: share(judged, ({ isSureAndWrong }) => isSureAndWrong),
  };
}

/** Ten bins of as many answers by what they are scored: the score told, and how many are right, both 0 to 1. */
export function calibrationOf(judged: readonly Judged[]): { told: number; right: number }[] {
  const scored = judged
    .filter((one): one is Judged & { score: number } => one.score !== undefined)
    .sort((a, b) => a.score - b.score);
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  return Array.from({ length: 10 }, (_, bin) => {
    const its = scored.slice((bin * scored.length) / 10, ((bin + 1) * scored.length) / 10);
    return { told: mean(its.map(({ score }) => score)), right: mean(its.map(({ isFirst }) => Number(isFirst))) };
  });
}

/** A list in parts by what they have in common, in the order in which each is first met. */
export function groupsOf<T>(list: readonly T[], by: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of list) {
    const key = by(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}
