import type { Position, Ring } from "@bibliotope/core/geo";
import type { AddressInput, AreaInput, RecordSink } from "@bibliotope/core/index";
import type { Name } from "@bibliotope/core/place";
import { latin } from "../names/latin.ts";
import { LORRAMERE_WORDS } from "../names/lorramere.ts";
import { OVARDE_WORDS } from "../names/ovarde.ts";
import { THALMYRA_WORDS } from "../names/thalmyra.ts";
import { Random } from "../random.ts";
import { makeWords, SOUNDS, Zipf } from "./vocabulary.ts";

type Box = [west: number, south: number, east: number, north: number];
type Country = "QR" | "QV" | "QY";

const ADDRESSES_IN_TOWN = 3000;
const ADDRESSES_IN_STREET = 12;
/** Addresses to one named place. */
const ADDRESSES_TO_PLACE = 50;
const TOWNS_IN_COUNTY = 12;
const COUNTIES_IN_REGION = 8;
const SHARES: Readonly<Record<Country, number>> = { QR: 0.5, QV: 0.3, QY: 0.2 };
/** Where the streamed countries lie, wider than those of the demo: they hold more. */
export const STREAMED_BOXES: Readonly<Record<Country, Box>> = {
  QR: [-25.9, -37.9, -22.6, -33.1],
  QV: [-22.5, -37.9, -20.1, -33.1],
  QY: [-20, -37.9, -18.1, -33.1],
};
const PLACE_KINDS = ["Library", "Reading Room", "Inn", "Hall", "School", "Chapel", "Mill", "Museum", "Stores", "Baths"];
const HOUSE_KINDS = ["Cottage", "House", "Lodge", "Farm", "Barn", "Croft"];

/**
 * The islands at any size, without their ground: areas as boxes, streets as short straight lines, names by a Zipf law
 * from a vocabulary that grows with the size. The same size gives the same records, made one by one.
 * @param addresses about how many
 */
export function streamIslands(addresses: number, sink: RecordSink): void {
  const stream = new Stream(addresses, sink);
  for (const country of Object.keys(SHARES) as Country[])
    stream.country(country, Math.round(addresses * SHARES[country]));
}

class Stream {
  readonly #random = new Random(20_261_101);
  readonly #words: Readonly<Record<Country, readonly string[]>>;
  readonly #common = new Zipf(900, 1);
  readonly #rare: Zipf;
  #identity = 0;
  #postcode = 0;

  constructor(
    addresses: number,
    private readonly sink: RecordSink,
  ) {
    const count = Math.round(3000 + addresses ** 0.8 * 1.5);
    this.#words = {
      QR: makeWords(SOUNDS.lorramere, count, this.#random),
      QV: makeWords(SOUNDS.ovarde, count, this.#random),
      QY: makeWords(SOUNDS.thalmyra, Math.round(count / 4), this.#random),
    };
    this.#rare = new Zipf(Math.round(count / 4), 0.55);
  }

  /** A word: half of the time one of those met everywhere, else any. */
  #word(country: Country): string {
    const words = this.#words[country];
    if (this.#random.chance(0.5)) return words[this.#common.pick(this.#random)];
    // the rarer words of the longer lists come evenly, a block of them to each pick
    const block = Math.floor(words.length / Math.floor(words.length / 4 + 1)) || 1;
    return words[
      Math.min(words.length - 1, this.#rare.pick(this.#random) * block + this.#random.integer(0, block - 1))
    ];
  }

  country(country: Country, addresses: number): void {
    const box = STREAMED_BOXES[country];
    const id = this.#area("country", null, country, country, box, 1);
    const towns = Math.max(2, Math.round(addresses / ADDRESSES_IN_TOWN));
    const counties = Math.max(1, Math.round(towns / TOWNS_IN_COUNTY));
    const regions = Math.max(1, Math.round(counties / COUNTIES_IN_REGION));
    const sizes = Array.from({ length: towns }, (_, i) => 1 / (i + 4) ** 0.6);
    const all = sizes.reduce((a, b) => a + b, 0);
    const shares = this.#random.shuffle(sizes.map((size) => size / all));
    let town = 0;
    gridOf(box, regions).forEach((regionBox, r) => {
      const region = this.#area("region", id, country, `${country}-${inLetters(r)}`, regionBox, 0.8);
      const inRegion = part(counties, regions, r);
      gridOf(regionBox, inRegion).forEach((countyBox, c) => {
        const county =
          country === "QY"
            ? region
            : this.#area("county", region, country, `${country}-${inLetters(r)}${c}`, countyBox, 0.7);
        const last = Math.round((towns * (offset(counties, regions, r) + c + 1)) / counties);
        const here = last - town;
        for (const townBox of gridOf(countyBox, here)) {
          this.#town(country, county, inner(townBox, 0.8), Math.round(addresses * shares[town++]));
        }
      });
    });
  }

  #area(
    kind: AreaInput["kind"],
    parent: number | null,
    country: Country,
    code: string | undefined,
    box: Box,
    importance: number,
  ) {
    const identity = ++this.#identity;
    const names = kind === "country" ? countryNames(country) : this.#names(country, this.#areaName(country, kind));
    this.sink.addArea({ identity, kind, parent, code, names, importance, at: middle(box), rings: [ring(box)] });
    return identity;
  }

  #areaName(country: Country, kind: AreaInput["kind"]): string {
    const r = this.#random;
    const word = this.#word(country);
    if (kind === "district") return country === "QR" ? `${r.pick(["Old", "Upper", "Lower", "New"])} ${word}` : word;
    if (kind !== "town") return word;
    if (country === "QR") return word + r.pick(LORRAMERE_WORDS.townEnds);
    return country === "QV" ? word + r.pick(OVARDE_WORDS.townEnds) : word;
  }

  #names(country: Country, name: string, abbr?: string): Name[] {
    if (country === "QY") {
      return [
        { lang: "qth-Grek", name },
        { lang: "qth-Latn", name: latin(name) },
      ];
    }
    return [{ lang: country === "QR" ? "en" : "qov-Latn", name, ...(abbr ? { abbr } : {}) }];
  }

  #town(country: Country, around: number, box: Box, addresses: number): void {
    const r = this.#random;
    const size = Math.min(1, Math.log10(addresses + 10) / 6);
    const town = this.#area("town", around, country, undefined, box, 0.3 + 0.3 * size);
    const districts =
      country === "QY" || addresses > 8000 ? Math.max(1, Math.min(12, Math.round(addresses / 4000))) : 0;
    const parts = districts ? gridOf(box, districts) : [box];
    const left = Math.max(1, addresses);
    parts.forEach((partBox, i) => {
      const within = districts ? this.#area("district", town, country, undefined, partBox, 0.2 + 0.1 * size) : town;
      const here = part(left, parts.length, i);
      if (country === "QY") this.#blocks(within, partBox, here, size);
      else this.#streets(country, within, town, partBox, here, size);
    });
    for (let i = 0; i < addresses / ADDRESSES_TO_PLACE; i++) {
      const name = country === "QY" ? this.#word(country) : `${this.#word(country)} ${r.pick(PLACE_KINDS)}`;
      this.sink.addPlace({
        identity: ++this.#identity,
        area: town,
        names: this.#names(country, name),
        at: this.#spot(box),
        importance: r.next() * 0.3,
        address: null,
        facts: {},
      });
    }
  }

  #streets(country: Country, within: number, town: number, box: Box, addresses: number, size: number): void {
    const r = this.#random;
    const used = new Set<string>();
    let postcode: number | null = null;
    let inPostcode = 0;
    for (let made = 0; made < addresses; ) {
      const name = this.#streetName(country, used);
      const [kind] = name.split(" ").slice(-1);
      const short = LORRAMERE_WORDS.abbreviations[kind];
      const at = this.#spot(box);
      const street = ++this.#identity;
      const own = Math.min(addresses - made, 2 + Math.floor(-Math.log(1 - r.next()) * (ADDRESSES_IN_STREET - 2)));
      if (postcode === null || inPostcode > (country === "QR" ? 60 : 1500)) {
        postcode = this.#newPostcode(country, town, at);
        inPostcode = 0;
      }
      inPostcode += own;
      made += own;
      const importance = Math.min(1, 0.05 + size * 0.2 + r.next() ** 3 * 0.2 + own / 1000);
      const abbr = country === "QR" && short ? name.slice(0, -kind.length) + short : undefined;
      this.sink.addStreet({
        identity: street,
        kind: "street",
        area: within,
        names: this.#names(country, name, abbr),
        at,
        importance,
      });
      this.#houses(country, street, postcode, at, own);
    }
  }

  #streetName(country: Country, used: Set<string>): string {
    const r = this.#random;
    for (;;) {
      const word = this.#word(country);
      const kinds: readonly string[] = country === "QR" ? LORRAMERE_WORDS.streetKinds : OVARDE_WORDS.streetKinds;
      const kind = r.pickOften(kinds);
      const ahead =
        country === "QR" && r.chance(0.12) ? `${r.pick(["Upper", "Lower", "North", "South", "Old", "Great"])} ` : "";
      const name = country === "QR" ? `${ahead}${word} ${kind}` : word + kind;
      if (used.has(name)) continue;
      used.add(name);
      return name;
    }
  }

  /** Houses along a short straight line, numbers odd on one side and even on the other, some left out. */
  #houses(country: Country, street: number, postcode: number | null, at: Position, count: number): void {
    const r = this.#random;
    const east = r.between(-0.00012, 0.00012);
    const north = r.between(-0.00009, 0.00009);
    let number = 0;
    for (let made = 0; made < count; made++) {
      number += r.chance(0.06) ? 2 : 1;
      const side = number % 2 ? 1 : -1;
      const spot = {
        lat: at.lat + north * number + side * east * 0.8,
        lon: at.lon + east * number - side * north * 0.8,
      };
      const add = (more: Partial<AddressInput>) =>
        this.sink.addAddress({ identity: ++this.#identity, street, number, suffix: "", postcode, at: spot, ...more });
      if (country === "QR" && r.chance(0.01)) {
        add({ number: null, name: `${this.#word(country)} ${r.pick(HOUSE_KINDS)}` });
        continue;
      }
      add({});
      if (r.chance(0.02)) made += Number(add({ suffix: country === "QV" && r.chance(0.5) ? "/2" : "b" }) === undefined);
      if (country === "QR" && r.chance(0.003)) {
        const flats = Math.min(count - made - 1, r.integer(2, 8));
        for (let flat = 1; flat <= flats; flat++) add({ unit: `Flat ${flat}` });
        made += Math.max(0, flats);
      }
    }
  }

  #blocks(within: number, box: Box, addresses: number, size: number): void {
    const south = box[1] < -35.5;
    const postcode = south ? this.#newPostcode("QY", within, middle(box)) : null;
    for (let block = 1, made = 0; made < addresses; block++) {
      const at = this.#spot(box);
      const street = ++this.#identity;
      const names = this.#names("QY", `${THALMYRA_WORDS.block} ${block}`);
      this.sink.addStreet({ identity: street, kind: "block", area: within, names, at, importance: 0.05 + size * 0.1 });
      const own = Math.min(addresses - made, this.#random.integer(4, 24));
      made += own;
      this.#houses("QY", street, postcode, at, own);
    }
  }

  #newPostcode(country: Country, area: number, at: Position): number {
    const identity = ++this.#identity;
    const n = this.#postcode++;
    const two = (value: number) => String(value % 100).padStart(2, "0");
    const code =
      country === "QR"
        ? `${inLetters(Math.floor(n / 1000) + 26)}${Math.floor(n / 100) % 10} ${two(n)}`
        : country === "QV"
          ? String(1000 + (n % 9000))
          : `ΘΑ-${100 + (n % 900)}`;
    this.sink.addPostcode({ identity, code, area, at, importance: 0.2 });
    return identity;
  }

  #spot([west, south, east, north]: Box): Position {
    return { lat: this.#random.between(south, north), lon: this.#random.between(west, east) };
  }
}

function countryNames(country: Country): Name[] {
  if (country === "QR") return [{ lang: "en", name: "Lorramere" }];
  if (country === "QV") return [{ lang: "qov-Latn", name: "Ovarde" }];
  return [
    { lang: "qth-Grek", name: THALMYRA_WORDS.country },
    { lang: "qth-Latn", name: latin(THALMYRA_WORDS.country) },
  ];
}

/** Two letters or more for an integer. */
function inLetters(n: number): string {
  return (n >= 26 ? inLetters(Math.floor(n / 26) - 1) : "") + String.fromCharCode(65 + (n % 26));
}

/** Where the k-th of some parts of a count begins, and how much it is. */
const offset = (count: number, parts: number, k: number) => Math.floor((count * k) / parts);
const part = (count: number, parts: number, k: number) => offset(count, parts, k + 1) - offset(count, parts, k);

/** Cuts a box into about square cells. */
function gridOf([west, south, east, north]: Box, count: number): Box[] {
  if (count <= 0) return [];
  const columns = Math.ceil(Math.sqrt((count * (east - west)) / (north - south)));
  const rows = Math.ceil(count / columns);
  return Array.from({ length: count }, (_, i): Box => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    const [width, height] = [(east - west) / columns, (north - south) / rows];
    return [west + column * width, south + row * height, west + (column + 1) * width, south + (row + 1) * height];
  });
}

function inner([west, south, east, north]: Box, share: number): Box {
  const [x, y] = [((east - west) * (1 - share)) / 2, ((north - south) * (1 - share)) / 2];
  return [west + x, south + y, east - x, north - y];
}

const middle = ([west, south, east, north]: Box): Position => ({ lat: (south + north) / 2, lon: (west + east) / 2 });

const ring = ([west, south, east, north]: Box): Ring => [
  [west, south],
  [east, south],
  [east, north],
  [west, north],
  [west, south],
];
