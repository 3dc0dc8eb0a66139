import type { Name } from "@bibliotope/core/place";
import type { Random } from "../random.ts";
import { latin } from "./latin.ts";
import { LORRAMERE_WORDS as L } from "./lorramere.ts";
import { OVARDE_WORDS as O } from "./ovarde.ts";
import { THALMYRA_WORDS as T } from "./thalmyra.ts";

/** Gives the names of one country; each list runs dry and then repeats with a number, never a name twice in one place. */
export interface Namer {
  country(): Name[];
  regions(): Name[][];
  county(i: number): Name[];
  town(i: number): Name[];
  district(i: number): Name[];
  /** Names for the streets of one town, the most usual first. */
  streets(count: number, random: Random): Name[][];
  block(number: number): Name[];
  water(i: number): Name[];
  park(of: Name[], i: number): Name[];
}

const greek = (name: string, abbr?: string): Name[] => [
  { lang: "qth-Grek", name, ...(abbr ? { abbr } : {}) },
  { lang: "qth-Latn", name: latin(name), ...(abbr ? { abbr: latin(abbr) } : {}) },
];
const english = (name: string, abbr?: string): Name[] => [{ lang: "en", name, ...(abbr ? { abbr } : {}) }];
const ovardic = (name: string): Name[] => [{ lang: "qov-Latn", name }];

/** Town names: the fixed ones, then combinations in an order of their own, each once. */
function townNames(
  first: readonly string[],
  starts: readonly string[],
  ends: readonly string[],
  random: Random,
): string[] {
  const made = starts.flatMap((start) => ends.map((end) => start + end));
  return [...first, ...random.shuffle(made.filter((name) => !/(.)\1\1/u.test(name)))];
}

/** Pairs of a word and a kind, usual words first, no pair twice. */
function streetNames(
  words: readonly string[],
  kinds: readonly string[],
  join: (word: string, kind: string) => string,
  count: number,
  random: Random,
): string[] {
  const names = new Set<string>();
  for (let tries = 0; names.size < count && tries < count * 60; tries++)
    names.add(join(random.pickOften(words), random.pickOften(kinds)));
  for (let i = 2; names.size < count; i++) names.add(`${join(random.pick(words), random.pick(kinds))} ${i}`);
  return [...names];
}

export function namerOf(code: "QR" | "QV" | "QY", random: Random): Namer {
  if (code === "QR") return lorramere(random);
  return code === "QV" ? ovarde(random) : thalmyra(random);
}

function lorramere(random: Random): Namer {
  const towns = townNames(L.firstTowns, L.townStarts, L.townEnds, random);
  return {
    country: () => english("Lorramere"),
    regions: () => L.regions.map((name) => english(name)),
    county: (i) => english(L.counties[i % L.counties.length]),
    town: (i) => english(towns[i]),
    district: (i) => english(L.districts[i % L.districts.length]),
    streets: (count, r) =>
      streetNames(L.streets, L.streetKinds, (word, kind) => `${word} ${kind}`, count, r).map((name) => {
        const kind = name.split(" ").at(-1)!;
        const short = L.abbreviations[kind];
        return english(name, short && name.slice(0, -kind.length) + short);
      }),
    block: (number) => english(`Block ${number}`),
    water: (i) => english(L.waters[i % L.waters.length]),
    park: (of, i) => english(`${of[0].name} ${L.parks[i % L.parks.length]}`),
  };
}

function ovarde(random: Random): Namer {
  const towns = townNames(O.firstTowns, O.townStarts, O.townEnds, random);
  return {
    country: () => [...ovardic("Ovarde")],
    regions: () => O.regions.map((name) => ovardic(name)),
    county: (i) => ovardic(O.counties[i % O.counties.length]),
    town: (i) => ovardic(towns[i]),
    district: (i) => ovardic(O.districts[i % O.districts.length]),
    streets: (count, r) =>
      streetNames(O.streets, O.streetKinds, (word, kind) => word + kind, count, r).map((name) => ovardic(name)),
    block: (number) => ovardic(`Kvarter ${number}`),
    water: (i) => ovardic(O.waters[i % O.waters.length]),
    park: (of, i) => ovardic(`${of[0].name}${O.parks[i % O.parks.length]}`),
  };
}

function thalmyra(random: Random): Namer {
  const towns = townNames(T.firstTowns, T.townStarts, T.townEnds, random);
  return {
    country: () => greek(T.country),
    regions: () => T.regions.map((name) => greek(name)),
    county: () => [],
    town: (i) => greek(towns[i]),
    district: (i) => greek(T.districts[i % T.districts.length]),
    streets: () => [],
    block: (number) => greek(`${T.block} ${number}`, `${T.blockAbbr} ${number}`),
    water: (i) => greek(T.waters[i % T.waters.length]),
    park: (of, i) => greek(`${T.parks[i % T.parks.length]} ${of[0].name}`),
  };
}
