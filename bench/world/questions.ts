import { Random } from "@bibliotope/islands";
import type { Ways } from "./countries.ts";
import { type Address, nameOf } from "./make.ts";
import { groupsOf } from "./score.ts";

/** What is requested, and what has to come of it. */
export interface Question {
  q?: string;
  parts?: Readonly<Record<string, string>>;
  /** While it is being typed: a line must be offered. */
  isTyped?: boolean;
  /**
   * What an answer must be: the address (`matched`; `ambiguous` where others are written the same), the address with what
   * differs, its street with what differs, or no address without a difference.
   */
  expect: "same" | "differs" | "street differs" | "nothing";
  /** What of the address was said besides street and number. */
  told: { town?: boolean; postcode?: boolean };
}

export interface QuestionClass {
  name: string;
  /** Undefined for an address that has no such question. */
  make: (address: Address, random: Random) => Question | undefined;
}

const BOTH = { town: true, postcode: true };

/** An address as somebody writes it, piece by piece. */
interface Pieces {
  street: string;
  number: string;
  town: string;
  postcode: string;
}

const piecesOf = ({ street, number, town, postcode }: Address): Pieces => ({
  street: street.name,
  number,
  town,
  postcode,
});

function coreOf(ways: Ways, { street, number }: Pieces): string {
  if (ways.latin) return `${street}${number}`;
  if (ways.number === "before") return `${number} ${street}`;
  return ways.number === "after" ? `${street} ${number}` : `${street}, ${number}`;
}

function tailOf({ ways, region }: Address, { town, postcode }: Pieces): string {
  const values: Record<string, string> = { town, postcode, region: region.name, code: region.code };
  return ways.tail.replace(/\{(\w+)\}/g, (_, name: string) => values[name]);
}

/** An address as its country writes it in a line. */
export function lineOf(address: Address, change: Partial<Pieces> = {}): string {
  const pieces = { ...piecesOf(address), ...change };
  const { ways, region } = address;
  if (ways.latin) return `〒${pieces.postcode} ${region.name}${pieces.town}${coreOf(ways, pieces)}`;
  if (ways.isBroadestFirst) return `${region.name} ${pieces.town} ${coreOf(ways, pieces)}, ${pieces.postcode}`;
  return `${coreOf(ways, pieces)}, ${tailOf(address, pieces)}`;
}

const same = (q: string | undefined, told: Question["told"] = BOTH): Question | undefined =>
  q === undefined ? undefined : { q, expect: "same", told };

/** One slip of the hand: a letter left out, put in, taken for another, or two exchanged; never the first letter. */
function slip(text: string, random: Random): string | undefined {
  const places = [...text].flatMap((letter, i) => (i > 0 && /\p{L}/u.test(letter) ? [i] : []));
  if (places.length < 4) return undefined;
  const at = random.pick(places);
  // in another script a letter that stands in the word as well
  const other = /[a-z]/i.test(text) ? "abcdefghilmnoprstuv"[random.integer(0, 18)] : text[random.pick(places)];
  const kind = random.integer(0, 3);
  if (kind === 0) return text.slice(0, at) + text.slice(at + 1);
  if (kind === 1) return text.slice(0, at) + other + text.slice(at);
  if (kind === 2) return text.slice(0, at) + other + text.slice(at + 1);
  return text.slice(0, at - 1) + text[at] + text[at - 1] + text.slice(at + 1);
}

const plain = (text: string) =>
  text
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .replaceAll("ß", "ss")
    .replaceAll("ł", "l")
    .replaceAll("Ł", "L")
    .replaceAll("ø", "o");

/** The street's name with its kind in some other way. */
const withKind = ({ street: { word, link }, ways }: Address, kind: string) =>
  nameOf(ways.streets.kind, word, kind, link);
const shortKind = (address: Address, random: Random) => {
  const shorts = address.street.kind.slice(1).filter(Boolean);
  return shorts.length ? random.pick(shorts) : undefined;
};
const filled = (pattern: string, random: Random) =>
  pattern.replaceAll("{n}", String(random.integer(1, 9))).replaceAll("{l}", "ABCD"[random.integer(0, 3)]);

/** With something said beside the core. */
const beside =
  (how: (core: string, extra: string) => string, extras: (ways: Ways) => string[]): QuestionClass["make"] =>
  (address, random) => {
    const { ways } = address;
    const pieces = piecesOf(address);
    if (ways.latin) return undefined;
    const extra = filled(random.pick(extras(ways)), random);
    return same(`${how(coreOf(ways, pieces), extra)}, ${tailOf(address, pieces)}`);
  };

const PEOPLE = ["Mara Quellin", "J. Ostrova", "Familie Vandorn", "Dr. Ines Palaro", "T. Wrenfield"];
const FIRMS = ["Quellin & Sons Ltd", "Ostrova GmbH", "Vandorn Bakery", "Palaro S.A.", "Wrenfield Books"];
const MADE_UP = ["Zwiebrann", "Quornath", "Plimvex", "Drosquell", "Urvandel"];

/** All ways of asking, by what is done to an address; they share nothing with the search that is judged. */
export const CLASSES: readonly QuestionClass[] = [
  { name: "as written", make: (a) => same(lineOf(a)) },
  {
    name: "no postcode",
    make: (a) => same(`${coreOf(a.ways, piecesOf(a))}${a.ways.latin ? " " : ", "}${a.town}`, { town: true }),
  },
  {
    name: "no town",
    make: (a) => same(`${coreOf(a.ways, piecesOf(a))}, ${a.postcode}`, { postcode: true }),
  },
  { name: "street and number alone", make: (a) => same(coreOf(a.ways, piecesOf(a)), {}) },
  { name: "town first", make: (a) => same(`${a.town}, ${coreOf(a.ways, piecesOf(a))}`, { town: true }) },
  { name: "postcode and town first", make: (a) => same(`${a.postcode} ${a.town}, ${coreOf(a.ways, piecesOf(a))}`) },
  { name: "small letters", make: (a) => same(lineOf(a).toLowerCase()) },
  { name: "capitals", make: (a) => same(lineOf(a).toUpperCase()) },
  {
    name: "accents lost",
    make: (a) => (a.ways.latin || plain(lineOf(a)) === lineOf(a) ? undefined : same(plain(lineOf(a)))),
  },
  { name: "no commas", make: (a) => (a.ways.latin ? undefined : same(lineOf(a).replaceAll(",", ""))) },
  { name: "semicolons", make: (a) => (a.ways.latin ? undefined : same(lineOf(a).replaceAll(",", ";"))) },
  {
    name: "no spaces",
    make: (a) =>
      same(`${coreOf(a.ways, piecesOf(a))}${a.ways.latin ? "" : ","}${a.town}`.replaceAll(" ", ""), { town: true }),
  },
  { name: "one slip in the street", make: (a, r) => inStreet(a, (text) => slip(text, r)) },
  { name: "one slip in the town", make: (a, r) => inTown(a, (text) => slip(text, r)) },
  {
    name: "a slip in street and town",
    make: (a, r) => {
      const [street, town] = [slip(a.street.name, r), slip(a.town, r)];
      return street && town && !a.ways.latin ? same(lineOf(a, { street, town })) : undefined;
    },
  },
  {
    name: "two slips in the street",
    make: (a, r) => inStreet(a, (text) => (text.length > 8 ? slip(slip(text, r) ?? text, r) : undefined)),
  },
  { name: "kind of street shortened", make: (a, r) => inStreet(a, () => shortened(a, r)) },
  {
    name: "kind shortened, small letters, no commas",
    make: (a, r) =>
      inStreet(
        a,
        () => shortened(a, r)?.toLowerCase(),
        (line) => line.toLowerCase().replaceAll(",", ""),
      ),
  },
  {
    name: "kind shortened and the word misspelt",
    make: (a, r) => {
      const kind = shortKind(a, r);
      const word = slip(a.street.word, r);
      return kind && word ? inStreet(a, () => nameOf(a.ways.streets.kind, word, kind, a.street.link)) : undefined;
    },
  },
  {
    name: "kind of street left out",
    make: (a) =>
      a.ways.streets.kind === "before"
        ? inStreet(a, () => (a.street.link ? undefined : a.street.word))
        : a.ways.streets.kind === "behind" && a.street.kind[0]
          ? inStreet(a, () => a.street.word)
          : undefined,
  },
  {
    name: "compound in two words",
    make: (a) =>
      a.ways.streets.kind === "glued" && !a.ways.latin
        ? inStreet(a, () => `${a.street.word} ${a.street.kind[0]}`)
        : undefined,
  },
  {
    name: "link left out",
    make: (a) =>
      a.street.link ? inStreet(a, () => nameOf(a.ways.streets.kind, a.street.word, a.street.kind[0], "")) : undefined,
  },
  {
    name: "number glued to the street",
    make: (a) => {
      const { street, number } = piecesOf(a);
      if (a.ways.latin) return undefined;
      const core = a.ways.number === "before" ? `${number}${street}` : `${street}${number}`;
      return same(`${core.replace(/ (?=\d)/, "")}, ${tailOf(a, piecesOf(a))}`);
    },
  },
  {
    name: "number on the other side",
    make: (a) => {
      const { street, number } = piecesOf(a);
      if (a.ways.latin || /^\d/.test(street)) return undefined;
      return same(
        `${a.ways.number === "before" ? `${street} ${number}` : `${number} ${street}`}, ${tailOf(a, piecesOf(a))}`,
      );
    },
  },
  {
    name: "a word before the number",
    make: (a) => (a.ways.numberWord ? same(lineOf(a, { number: `${a.ways.numberWord}${a.number}` })) : undefined),
  },
  {
    name: "suffix with a space, in capitals",
    make: (a) =>
      /^[a-z]$/.test(a.house.suffix)
        ? same(lineOf(a, { number: `${a.house.number} ${a.house.suffix.toUpperCase()}` }))
        : undefined,
  },
  {
    name: "suffix set to the number",
    make: (a) =>
      /^[a-z]$/.test(a.house.suffix) ? same(lineOf(a, { number: `${a.house.number}${a.house.suffix}` })) : undefined,
  },
  { name: "postcode put otherwise", make: (a) => same(lineOf(a, { postcode: a.ways.loosely(a.postcode) })) },
  {
    name: "postcode put otherwise, no town",
    make: (a) => same(`${coreOf(a.ways, piecesOf(a))}, ${a.ways.loosely(a.postcode)}`, { postcode: true }),
  },
  {
    name: "country behind, its own language",
    make: (a) => same(a.ways.latin ? `${a.ways.names[0]} ${lineOf(a)}` : `${lineOf(a)}, ${a.ways.names[0]}`),
  },
  { name: "country behind, in English", make: (a) => same(`${lineOf(a)}, ${a.ways.names[1]}`) },
  {
    name: "country's code at the postcode",
    make: (a) => (a.ways.latin ? undefined : same(lineOf(a, { postcode: `${a.ways.code}-${a.postcode}` }))),
  },
  {
    name: "unit behind the number",
    make: beside(
      (core, unit) => `${core}, ${unit}`,
      (ways) => ways.units,
    ),
  },
  {
    name: "unit in front",
    make: beside(
      (core, unit) => `${unit}, ${core}`,
      (ways) => ways.units,
    ),
  },
  {
    name: "floor behind the number",
    make: beside(
      (core, floor) => `${core}, ${floor}`,
      (ways) => ways.floors,
    ),
  },
  {
    name: "floor and unit",
    make: (a, r) =>
      beside(
        (core, extra) => `${core}, ${filled(a.ways.floors[0], r)}, ${extra}`,
        (ways) => ways.units,
      )(a, r),
  },
  {
    name: "box in front",
    make: beside(
      (core, box) => `${box}71, ${core}`,
      (ways) => [ways.poBox],
    ),
  },
  {
    name: "box behind",
    make: beside(
      (core, box) => `${core}, ${box}34`,
      (ways) => [ways.poBox],
    ),
  },
  {
    name: "somebody's name in front",
    make: beside(
      (core, name) => `${name}, ${core}`,
      () => PEOPLE,
    ),
  },
  {
    name: "c/o in front",
    make: beside(
      (core, name) => `c/o ${name}, ${core}`,
      () => PEOPLE,
    ),
  },
  {
    name: "a firm in front",
    make: beside(
      (core, name) => `${name}, ${core}`,
      () => FIRMS,
    ),
  },
  {
    name: "telephone behind",
    make: (a, r) =>
      a.ways.latin
        ? undefined
        : same(`${lineOf(a)}, Tel. +${r.integer(30, 99)} ${r.integer(100, 999)} ${r.integer(10000, 99999)}`),
  },
  { name: "e-mail behind", make: (a) => (a.ways.latin ? undefined : same(`${lineOf(a)}, mara@quellin.example`)) },
  {
    name: "an envelope's lines",
    make: (a, r) =>
      a.ways.latin
        ? undefined
        : same(
            [r.pick(PEOPLE), coreOf(a.ways, piecesOf(a)), tailOf(a, piecesOf(a)), a.ways.names[0].toUpperCase()].join(
              "\n",
            ),
          ),
  },
  {
    name: "an envelope's lines, mixed",
    make: (a, r) =>
      a.ways.latin
        ? undefined
        : same(r.shuffle([coreOf(a.ways, piecesOf(a)), tailOf(a, piecesOf(a)), r.pick(FIRMS)]).join("\n")),
  },
  { name: "town said twice", make: (a) => (a.ways.latin ? undefined : same(`${lineOf(a)}, ${a.town}`)) },
  {
    name: "in Latin letters",
    make: (a) => {
      const { latin } = a.ways;
      if (!latin) return undefined;
      const [quarter, chome] = (latin[a.street.name] ?? "").split(" ");
      return same(`${chome?.[0]}-${a.number} ${quarter}, ${latin[a.town]}`, { town: true });
    },
  },
  {
    name: "numbers with their words",
    make: (a) => {
      if (!a.ways.latin) return undefined;
      const [block, house] = a.number.split("-");
      return same(`${a.region.name}${a.town}${a.street.name}${block}番${house ? `${house}号` : "地"}`, { town: true });
    },
  },
  {
    name: "parts apart",
    make: (a) => ({
      parts: {
        street: a.street.name,
        [a.ways.latin ? "building" : "house"]: a.number,
        town: a.town,
        postcode: a.postcode,
      },
      expect: "same",
      told: BOTH,
    }),
  },
  {
    name: "parts apart, number with the street",
    make: (a) => ({
      parts: { street: coreOf(a.ways, piecesOf(a)), town: a.town, postcode: a.postcode },
      expect: "same",
      told: BOTH,
    }),
  },
  {
    name: "parts apart, kind shortened",
    make: (a, r) => {
      const street = shortened(a, r);
      return street && !a.ways.latin
        ? { parts: { street, house: a.number, town: a.town }, expect: "same", told: { town: true } }
        : undefined;
    },
  },
  { name: "typed, 60 % of the letters", make: (a) => typed(a, 0.6) },
  { name: "typed, all but the last word", make: (a) => typed(a, 0.85) },
  {
    name: "street called after its town",
    make: (a) =>
      a.street.word === a.town ? same(`${coreOf(a.ways, piecesOf(a))}, ${a.town}`, { town: true }) : undefined,
  },
  {
    name: "a date behind",
    make: (a, r) => (a.ways.latin ? undefined : same(`${lineOf(a)}, ${r.integer(1, 28)}.${r.integer(1, 12)}.2026`)),
  },
  {
    name: "telephone in front",
    make: (a, r) =>
      a.ways.latin ? undefined : same(`Tel. 0${r.integer(100, 999)} ${r.integer(10000, 99999)}, ${lineOf(a)}`),
  },
  // what is not so
  {
    name: "the neighbour town",
    make: (a) =>
      a.isOnly && !a.ways.latin
        ? { q: `${coreOf(a.ways, piecesOf(a))}, ${a.neighbour}`, expect: "differs", told: {} }
        : undefined,
  },
  {
    name: "the neighbour town, its own postcode",
    make: (a) =>
      a.ways.latin ? undefined : { q: lineOf(a, { town: a.neighbour }), expect: "differs", told: { postcode: true } },
  },
  {
    name: "another postcode",
    make: (a, random) => ({
      q: lineOf(a, { postcode: otherDigits(a.postcode, random) }),
      expect: "differs",
      told: { town: true },
    }),
  },
  {
    name: "no such number",
    make: (a, r) => ({ q: lineOf(a, { number: String(r.integer(700, 990)) }), expect: "street differs", told: BOTH }),
  },
  {
    name: "no such number, no postcode",
    make: (a, r) => ({
      q: `${coreOf(a.ways, { ...piecesOf(a), number: String(r.integer(700, 990)) })}${a.ways.latin ? " " : ", "}${a.town}`,
      expect: "street differs",
      told: { town: true },
    }),
  },
  {
    name: "no such number, parts apart",
    make: (a, r) => ({
      parts: {
        [a.ways.latin ? "block" : "street"]: a.street.name,
        [a.ways.latin ? "building" : "house"]: String(r.integer(700, 990)),
        town: a.town,
      },
      expect: "street differs",
      told: { town: true },
    }),
  },
  {
    name: "no such street",
    make: (a, r) => ({ q: lineOf(a, { street: madeUpStreet(a, r) }), expect: "nothing", told: BOTH }),
  },
  {
    name: "no such street, no postcode",
    make: (a, r) => ({
      q: `${coreOf(a.ways, { ...piecesOf(a), street: madeUpStreet(a, r) })}, ${a.town}`,
      expect: "nothing",
      told: BOTH,
    }),
  },
  {
    name: "no such street, small letters, no commas",
    make: (a, r) => {
      const street = madeUpStreet(a, r);
      if (a.ways.latin) return undefined;
      return { q: lineOf(a, { street }).replaceAll(",", "").toLowerCase(), expect: "nothing", told: BOTH };
    },
  },
  {
    name: "no such street, kind shortened, no postcode",
    make: (a, r) => {
      const kind = shortKind(a, r);
      if (kind === undefined || a.ways.latin) return undefined;
      const street = nameOf(a.ways.streets.kind, r.pick(MADE_UP), kind, a.street.link);
      return { q: `${coreOf(a.ways, { ...piecesOf(a), street })}, ${a.town}`, expect: "nothing", told: { town: true } };
    },
  },
  {
    name: "a box alone",
    make: (a, r) =>
      a.ways.latin
        ? undefined
        : { q: `${filled(a.ways.poBox, r)}71, ${tailOf(a, piecesOf(a))}`, expect: "nothing", told: {} },
  },
  {
    name: "no such town",
    make: (a, r) =>
      a.ways.latin
        ? undefined
        : { q: `${coreOf(a.ways, piecesOf(a))}, ${r.pick(MADE_UP)}`, expect: "nothing", told: {} },
  },
  {
    name: "nothing of it",
    make: (a, r) => ({
      q: `${coreOf(a.ways, { ...piecesOf(a), street: madeUpStreet(a, r) })}, ${r.pick(MADE_UP)}`,
      expect: "nothing",
      told: {},
    }),
  },
];

function inStreet(
  a: Address,
  change: (street: string) => string | undefined,
  whole: (line: string) => string = (line) => line,
) {
  const street = a.ways.latin ? undefined : change(a.street.name);
  return street === undefined ? undefined : same(whole(lineOf(a, { street })));
}

function inTown(a: Address, change: (town: string) => string | undefined) {
  const town = a.ways.latin ? undefined : change(a.town);
  return town === undefined ? undefined : same(lineOf(a, { town }));
}

function shortened(a: Address, random: Random): string | undefined {
  const kind = shortKind(a, random);
  return kind === undefined ? undefined : withKind(a, kind);
}

function madeUpStreet(a: Address, random: Random): string {
  return a.ways.latin
    ? "架空町9丁目"
    : withKind({ ...a, street: { ...a.street, word: random.pick(MADE_UP) } }, a.street.kind[0]);
}

function typed(a: Address, share: number): Question {
  const line = `${coreOf(a.ways, piecesOf(a))}${a.ways.latin ? "" : ", "}${a.town}`;
  return { q: line.slice(0, Math.ceil(line.length * share)), isTyped: true, expect: "same", told: {} };
}

function otherDigits(postcode: string, random: Random): string {
  const changed = postcode.replace(/\d(?=\D*$)/, (digit) => String((Number(digit) + random.integer(1, 9)) % 10));
  return changed.replace(/\d/, (digit) => String((Number(digit) + 3) % 10));
}

/** The same questions for the same world and seed: of each class some for each country. */
export function askedOf(
  addresses: readonly Address[],
  each: number,
  seed = 1,
): { kind: string; address: Address; question: Question }[] {
  const byCountry = groupsOf(addresses, ({ ways }) => ways.code);
  return CLASSES.flatMap(({ name, make }) =>
    [...byCountry].flatMap(([code, its]) => {
      const random = new Random(`${seed} ${name} ${code}`);
      const asked: { kind: string; address: Address; question: Question }[] = [];
      for (let tries = 0; tries < each * 12 && asked.length < each; tries++) {
        const address = random.pick(its);
        const question = make(address, random);
        if (question) asked.push({ kind: name, address, question });
      }
      return asked;
    }),
  );
}
