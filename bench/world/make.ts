import { Segment, SegmentBuilder } from "@bibliotope/core/index";
import { type HouseNumber, type Name, profileOf, refOf } from "@bibliotope/core/place";
import { Random } from "@bibliotope/islands";
import { COUNTRIES, type Ways } from "./countries.ts";
import { JAPAN } from "./japan.ts";
import { KOREA } from "./korea.ts";

/** A street as its authority names it. */
interface Street {
  /** The whole name. */
  name: string;
  /** What it is called after, and the kind of street with the ways in which people shorten that. */
  word: string;
  kind: readonly [string, ...string[]];
  link: string;
}

/** An address that is known, as it was made. */
export interface Address {
  ref: string;
  streetRef: string;
  ways: Ways;
  region: { name: string; code: string };
  town: string;
  /** The nearest other town of its region. */
  neighbour: string;
  street: Street;
  house: HouseNumber;
  /** The number as the country writes it. */
  number: string;
  postcode: string;
  /** True where no other street of its country has this name. */
  isOnly: boolean;
  at: { lat: number; lon: number };
}

export interface World {
  segment: Segment;
  addresses: Address[];
}

export interface Size {
  towns: number;
  streets: number;
  houses: number;
}

/** About a hundred thousand addresses. */
export const WHOLE: Size = { towns: 14, streets: 26, houses: 12 };
/** For a test. */
export const SMALL: Size = { towns: 4, streets: 9, houses: 4 };

/** Makes towns, streets and houses of all countries, and the index over them. Same seed, same world. */
export function makeWorld(size: Size, seed = 1): World {
  const { segments, addresses } = makeSegments(size, 1, seed);
  return { segment: segments[0], addresses };
}

/** The same with the countries dealt out to several segments. */
export function makeSegments(size: Size, count: number, seed = 1): { segments: Segment[]; addresses: Address[] } {
  const builders = Array.from({ length: count }, () => new SegmentBuilder());
  const addresses: Address[] = [];
  const numbers = { identity: 0 };
  [...COUNTRIES, JAPAN, KOREA].forEach((ways, i) => {
    new Maker(builders[i % count], addresses, ways, size, new Random(`${seed} ${ways.code}`), numbers).make();
  });
  const segments = builders.map((builder) => new Segment(builder.finish({ name: "world", sources: [] })));
  return { segments, addresses };
}

/** Half the side of a town, and of a house's plot, in degrees. */
const TOWN = 0.03;

class Maker {
  readonly #used = new Set<string>();
  readonly #named = new Map<string, number>();

  constructor(
    private readonly builder: SegmentBuilder,
    private readonly addresses: Address[],
    private readonly ways: Ways,
    private readonly size: Size,
    private readonly random: Random,
    private readonly numbers: { identity: number },
  ) {}

  make(): void {
    const { ways, builder, random } = this;
    const [west, south, east, north] = ways.box;
    const first = this.addresses.length;
    const country = this.#next();
    builder.addArea({
      ...this.#thing(country, this.#names(ways.names[0]), { lat: (south + north) / 2, lon: (west + east) / 2 }, 0.9),
      kind: "country",
      parent: null,
      code: ways.code,
      rings: [square(west, south, east, north)],
    });
    const width = (east - west) / ways.regions.length;
    ways.regions.forEach(([name, code], r) => {
      const region = this.#next();
      const [left, right] = [west + r * width, west + (r + 1) * width];
      const { levels } = profileOf(ways.code);
      builder.addArea({
        ...this.#thing(region, this.#names(name), { lat: (south + north) / 2, lon: (left + right) / 2 }, 0.5),
        kind: levels.includes("county") && !levels.includes("region") ? "county" : "region",
        parent: country,
        code,
        rings: [square(left, south, right, north)],
      });
      const { beginnings, ends } = ways.towns;
      const most = Math.floor((beginnings.length * ends.length) / ways.regions.length);
      const towns = Array.from({ length: Math.min(this.size.towns, most) }, (_, t) => ({
        name: this.#town(),
        number: r * this.size.towns + t,
        at: {
          lat: south + ((north - south) * (t + 0.5)) / this.size.towns,
          lon: random.between(left + 2 * TOWN, right - 2 * TOWN),
        },
      }));
      towns.forEach((town, t) => {
        const neighbour = (towns[t + 1] ?? towns[t - 1]).name;
        this.#makeTown(town, neighbour, { identity: region, name, code });
      });
    });
    for (const address of this.addresses.slice(first)) address.isOnly = this.#named.get(address.street.name) === 1;
  }

  #makeTown(
    { name, number, at }: { name: string; number: number; at: { lat: number; lon: number } },
    neighbour: string,
    region: { identity: number; name: string; code: string },
  ): void {
    const { ways, builder, random } = this;
    const town = this.#next();
    builder.addArea({
      ...this.#thing(town, this.#names(name), at, random.between(0.1, 0.6)),
      kind: "town",
      parent: region.identity,
      rings: [square(at.lon - TOWN, at.lat - TOWN, at.lon + TOWN, at.lat + TOWN)],
    });
    const here = new Set<string>();
    for (let s = 0; s < this.size.streets; s++) {
      const street = this.#street(here, s === 0 && ways.streets.kind !== "glued" ? name : undefined);
      if (!street) continue;
      this.#named.set(street.name, (this.#named.get(street.name) ?? 0) + 1);
      const identity = this.#next();
      const middle = {
        lat: at.lat + random.between(-TOWN, TOWN) * 0.9,
        lon: at.lon + random.between(-TOWN, TOWN) * 0.9,
      };
      builder.addStreet({
        ...this.#thing(identity, this.#names(street.name), middle, 0.1),
        kind: "street",
        area: town,
      });
      const code = ways.postcode(number, random);
      const postcode = this.#next();
      builder.addPostcode({ identity: postcode, code, area: town, at: middle, importance: 0.1 });
      let next = random.integer(1, 9);
      for (let h = 0; h < this.size.houses; h++) {
        const written = random.chance(0.2) ? random.pick(ways.suffixes) : "";
        const house = { number: next, suffix: written.trim().toLowerCase() };
        next += random.integer(1, 6);
        const own = this.#next();
        const at = { lat: middle.lat + h * 2e-4, lon: middle.lon + h * 1e-4 };
        builder.addAddress({ identity: own, street: identity, ...house, postcode, at });
        this.addresses.push({
          ref: refOf(ways.code, own),
          streetRef: refOf(ways.code, identity),
          ways,
          region,
          town: name,
          neighbour,
          street,
          house,
          number: `${house.number}${written}`,
          postcode: code,
          isOnly: true,
          at,
        });
      }
    }
  }

  #town(): string {
    const { beginnings, ends } = this.ways.towns;
    for (;;) {
      const name = this.random.pick(beginnings) + this.random.pick(ends);
      if (this.#used.has(name)) continue;
      this.#used.add(name);
      return name;
    }
  }

  /** @param called the word that it is called by, where that is not left to chance */
  #street(here: Set<string>, called?: string): Street | undefined {
    const { words, kinds, kind: stands, links = [""] } = this.ways.streets;
    for (let tries = 0; tries < 40; tries++) {
      const word = called ?? this.random.pick(words);
      const kind = this.random.pickOften(kinds);
      const link = this.random.pick(links);
      const name = nameOf(stands, word, kind[0], link);
      if (here.has(name)) continue;
      here.add(name);
      return { name, word, kind, link };
    }
    return undefined;
  }

  #names(name: string): Name[] {
    const { lang, latin } = this.ways;
    return latin?.[name]
      ? [
          { lang, name },
          { lang: `${lang}-Latn`, name: latin[name] },
        ]
      : [{ lang, name }];
  }

  #thing(identity: number, names: Name[], at: { lat: number; lon: number }, importance: number) {
    return { identity, names, at, importance };
  }

  #next(): number {
    this.numbers.identity++;
    return this.numbers.identity;
  }
}

/** A street's name with its kind where the country has it. */
export function nameOf(stands: Ways["streets"]["kind"], word: string, kind: string, link: string): string {
  if (stands === "glued") return word + kind;
  if (stands === "behind") return `${word} ${kind}`.trim();
  const linked = link.endsWith("'") ? `${link}${word}` : `${link} ${word}`.trim();
  return `${kind} ${linked}`;
}

const square = (west: number, south: number, east: number, north: number): [number, number][] => [
  [west, south],
  [east, south],
  [east, north],
  [west, north],
];
