import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { rowOf } from "@bibliotope/core/formats";
import { Random } from "@bibliotope/islands";
import { type Ready, Workbench } from "./import.ts";
import { atLeast, type Measure } from "./measure.ts";

export interface Town {
  name: string;
  population: number;
  lat: number;
  lon: number;
}

const TOWNS = 100_000;
const ASKED = 1500;
/** Of ten towns so many have another one's name. */
const NAMESAKES = 1;

/** How many syllables names have before their ending: short names are few. */
const SYLLABLES = [1, 2, 2, 2, 2, 2, 3, 3, 3, 3];

/** How people of some land make names of towns. */
const MANNERS = [
  {
    starts: "br k l m st gr w h t d f b r p sch n",
    vowels: "a e i o u ei au ü",
    ends: "berg dorf heim bach burg au ingen feld",
  },
  {
    starts: "b ch l m s r v f p t gr d n c tr",
    vowels: "a e i o ou eau é u",
    ends: "ville court ac mont igny euil ay on",
  },
  { starts: "k s t n m h y r sh ch g j", vowels: "a i u e o ai ō", ends: "gawa yama shima da moto saki no ta" },
  { starts: "p b t k m n s ph th r l ch", vowels: "a i o u ae aya ua", ends: "buri ya thani nakhon tani lai rat na" },
  { starts: "br kr pr l m n z s t v d w st cz", vowels: "a e i o u y ie", ends: "ów ice no sk ec any in owo" },
  {
    starts: "w h st b br c l m n r s t th ash",
    vowels: "a e i o u ea oo ay",
    ends: "ton ham ford ley wick by mouth field",
  },
].map(({ starts, vowels, ends }) => ({
  starts: starts.split(" "),
  vowels: vowels.split(" "),
  ends: ends.split(" "),
}));

/** A list of invented towns of all sizes: few are large, one in ten is called like another. */
export function makeTowns(count: number, seed = 5): Town[] {
  const random = new Random(seed);
  const towns: Town[] = [];
  const used = new Set<string>();
  const newName = () => {
    for (;;) {
      const { starts, vowels, ends } = random.pick(MANNERS);
      const syllables = random.pick(SYLLABLES);
      const middle = Array.from({ length: syllables }, () => random.pick(starts) + random.pick(vowels)).join("");
      const name = middle[0].toUpperCase() + middle.slice(1) + random.pick(ends);
      if (used.has(name)) continue;
      used.add(name);
      return name;
    }
  };
  for (let i = 0; i < count; i++) {
    const isNamesake = i > 0 && random.integer(1, 10) <= NAMESAKES;
    towns.push({
      name: isNamesake ? towns[random.integer(0, i - 1)].name : newName(),
      population: Math.min(2e7, Math.round(300 * random.next() ** -1.1)),
      // the inside of a large country
      lat: Number((40 + random.next() * 7).toFixed(5)),
      lon: Number((-100 + random.next() * 16).toFixed(5)),
    });
  }
  return towns;
}

/** One letter replaced, left out, doubled or swapped with its neighbour, not the first one. */
function misspelt(name: string, random: Random): string {
  const letters = [...name];
  const at = random.integer(1, letters.length - 2);
  const kinds = [
    () => letters.with(at, String.fromCharCode(97 + random.integer(0, 25))),
    () => letters.toSpliced(at, 1),
    () => letters.toSpliced(at, 0, letters[at]),
    () => letters.with(at, letters[at + 1]).with(at + 1, letters[at]),
  ];
  for (;;) {
    const text = random.pick(kinds)().join("");
    if (text !== name) return text;
  }
}

const plain = (name: string) => name.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** True when one letter more, less, another or changed over with its neighbour at most parts two words. */
export function isWithinOne(one: string, other: string): boolean {
  let at = 0;
  while (at < one.length && at < other.length && one[at] === other[at]) at++;
  const [a, b] = [one.slice(at), other.slice(at)];
  if (!a && !b) return true;
  if (a.length !== b.length) return a.slice(1) === b || a === b.slice(1);
  return a.slice(1) === b.slice(1) || (a[0] === b[1] && a[1] === b[0] && a.slice(2) === b.slice(2));
}

interface Placed {
  at: { lat: number; lon: number };
}

interface Manner {
  name: string;
  target: number;
  call: "suggest" | "forward";
  text(town: Town, random: Random): string;
  /** Whether a matcher that knows what was meant may still take another town for it. */
  isRival(other: Town, town: Town, text: string): boolean;
}

const isNamesake = (other: Town, town: Town) => other.name === town.name;
const FULL: Pick<Manner, "target" | "text" | "isRival"> = { target: 99, text: ({ name }) => name, isRival: isNamesake };
/** A larger town that is as near to the text is what anybody would take it for. */
const ERROR: typeof FULL = {
  target: 95,
  text: ({ name }, random) => misspelt(name, random),
  isRival: (other, town, text) => isNamesake(other, town) || isWithinOne(plain(other.name), plain(text)),
};
const ASKING: readonly Manner[] = [
  { name: "suggest, whole names", call: "suggest", ...FULL },
  { name: "forward, whole names", call: "forward", ...FULL },
  {
    name: "suggest, 60 % of the letters",
    call: "suggest",
    target: 97,
    text: ({ name }) => name.slice(0, Math.ceil(name.length * 0.6)),
    isRival: (other, _, text) => other.name.startsWith(text),
  },
  { name: "suggest, one error", call: "suggest", ...ERROR },
  { name: "forward, one error", call: "forward", ...ERROR },
];

/** Share of right first lines, of what a matcher reaches that knows which name was meant. @param firstOf where an answer lies */
export async function* measureFound(
  towns: readonly Town[],
  asked: number,
  firstOf: (call: Manner["call"], q: string) => Promise<{ lat: number; lon: number } | undefined>,
): AsyncIterable<Measure> {
  for (const { name, target, call, text, isRival } of ASKING) {
    const random = new Random(6);
    let [ceiling, first] = [0, 0];
    const missed: string[] = [];
    for (let i = 0; i < asked; i++) {
      const town = random.pick([...towns]);
      const q = text(town, random);
      const known = towns.every((other) => other.population <= town.population || !isRival(other, town, q));
      if (known) ceiling++;
      const at = await firstOf(call, q);
      const isIt = at !== undefined && Math.abs(at.lat - town.lat) + Math.abs(at.lon - town.lon) < 1e-4;
      if (isIt) first++;
      else if (known && missed.length < 4) missed.push(`${q} (${town.name}, ${town.population})`);
    }
    const how = `${asked} texts; missed: ${missed.join(" | ") || "none"}`;
    const corpus = `${towns.length.toLocaleString("en")} invented towns`;
    yield atLeast(`right town first, of the ceiling: ${name}`, corpus, "%", (100 * first) / ceiling, target, how);
  }
}

/** A plain list of towns with how many live there, brought as it is: how well it is found. */
export async function* measureTowns(ready: Ready): AsyncIterable<Measure> {
  const towns = makeTowns(TOWNS);
  const folder = mkdtempSync(join(tmpdir(), "bibliotope-towns-"));
  try {
    const file = join(folder, "towns.csv");
    const rows = towns.map(({ name, population, lat, lon }) => rowOf([name, population, lat, lon]));
    writeFileSync(file, rowOf(["name", "population", "latitude", "longitude"]) + rows.join(""));
    const bench = await Workbench.open(ready);
    await bench.publish([await bench.load(file)]);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  yield* measureFound(towns, ASKED, async (call, q) => {
    const response = await fetch(`${ready.url}/v1/${call}?${new URLSearchParams({ q, kinds: "town" })}`, {
      headers: { authorization: `Bearer ${ready.keys.srv}` },
    });
    const { features, suggestions } = (await response.json()) as {
      features?: { properties: Placed }[];
      suggestions?: Placed[];
    };
    return (suggestions?.[0] ?? features?.[0]?.properties)?.at;
  });
}
