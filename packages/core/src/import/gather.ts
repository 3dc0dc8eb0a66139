import { type Position, type Ring, sphereDistance } from "../geo/index.ts";
import type { AreaKind, Name } from "../place/index.ts";
import { plainName } from "../text/index.ts";
import type { ImportArea, ImportRow } from "./read-row.ts";
import { Spread } from "./spread.ts";

/** An area made from the rows that name it. */
export interface GatheredArea {
  /** The same for the same area in every load. */
  key: string;
  parent: string | null;
  kind: AreaKind;
  country: string;
  code?: string;
  names: Name[];
  at: Position;
  rings: Ring[];
  importance: number;
  /** Addresses and places in it. */
  count: number;
}

export interface GatheredPostcode {
  key: string;
  country: string;
  code: string;
  area: string;
  at: Position;
}

export interface GatheredStreet {
  key: string;
  country: string;
  area: string;
  kind: "street" | "block";
  names: Name[];
  at: Position;
  importance: number;
  count: number;
}

export interface Gathered {
  areas: GatheredArea[];
  postcodes: GatheredPostcode[];
  streets: GatheredStreet[];
  /** Street of each heap, by number. */
  streetOfHeap: Uint32Array;
  /** 1 for heaps that lie far from the rest of their street. */
  isFar: Uint8Array;
}

/** A street of an earlier load: one with the same name near it is the same one. */
export interface EarlierStreet {
  key: string;
  at: Position;
}

/** What represents a row's places until all rows are in: see `Gathered.streetOfHeap`. */
export interface Heaped {
  /** Place of the narrowest area among the areas that come out. */
  area: number;
  /** True where the row is about an area that a row before was about: both become one. */
  isSameArea: boolean;
  heap: number | undefined;
  /** Place of the postcode among those that come out. */
  postcode: number | undefined;
  /** How the street is written elsewhere in the same area, where this row writes it in another way. */
  spelling: string | undefined;
}

/** Degrees of a heap of houses: about half a kilometre. */
const HEAP = 0.005;
const HEAP_COLUMNS = 80_000;
/** Metres between two rows of one name up to which both are about the same area. */
const SAME_AREA = 5000;
/** Metres between heaps up to which houses of the same name hang together. */
const TOGETHER = 1500;
/** A heap apart is a street of its own from so many houses on, or from this share of the street; else it is far off. */
const OWN_STREET = 5;
const OWN_SHARE = 0.2;

interface AreaSoFar {
  key: string;
  place: number;
  parent: AreaSoFar | undefined;
  depth: number;
  kind: AreaKind;
  country: string;
  code: string | undefined;
  importance: number | undefined;
  names: Name[];
  spread: Spread;
  streets: Map<string, StreetSoFar>;
  folded: Map<string, StreetSoFar>;
}

interface PostcodeSoFar {
  place: number;
  country: string;
  code: string;
  area: AreaSoFar;
  sum: Sum;
}

interface StreetSoFar {
  area: AreaSoFar;
  names: Name[];
  isBlock: boolean;
  importance: number | undefined;
  heaps: Map<number, number>;
}

/**
 * Makes areas, postcodes and streets of rows that only name them: a street of the houses of one name in one area that
 * hang together, areas and postcodes with the middle and the hull of what lies in them. Rows may come in any order;
 * memory grows with streets and ground, not with rows.
 */
export class Gatherer {
  readonly #areas = new Map<string, AreaSoFar>();
  readonly #known = new Map<string, AreaSoFar>();
  #last: { country: string; areas: readonly ImportArea[]; area: AreaSoFar } | undefined;
  readonly #postcodes = new Map<string, PostcodeSoFar>();
  readonly #streets: StreetSoFar[] = [];
  readonly #heapSum: Sum[] = [];
  /** Areas that rows are about. */
  #listedCount = 0;
  /** Where they lie, by what they are called. */
  readonly #listedAt = new Map<string, { at: Position; area: AreaSoFar }[]>();

  /** @param namesOf what a country is called; by code where nobody knows */
  constructor(private readonly namesOf: (country: string) => Name[] | undefined = () => undefined) {}

  /** Takes a row in. */
  add(row: ImportRow): Heaped {
    const isOfArea = !row.street && !row.place;
    const listed = this.#listedCount;
    const area = isOfArea ? this.#listed(row) : this.#area(row);
    area.spread.add(row.at);
    return {
      area: area.place,
      isSameArea: isOfArea && listed === this.#listedCount,
      ...this.#street(row, area),
      postcode: row.postcode === undefined ? undefined : this.#postcode(row.country, row.postcode, area, row.at),
    };
  }

  /**
   * Puts everything together.
   * @param earlier streets of an earlier load by the key of their area and name, so that they keep their keys
   */
  finish(earlier: ReadonlyMap<string, readonly EarlierStreet[]> = new Map()): Gathered {
    const streetOfHeap = new Uint32Array(this.#heapSum.length);
    const isFar = new Uint8Array(this.#heapSum.length);
    const streets: GatheredStreet[] = [];
    for (const street of this.#streets) {
      const base = streetKey(street.area.key, street.names[0].name);
      const before = [...(earlier.get(base) ?? [])];
      for (const heaps of this.#apart(street, isFar)) {
        const sum = heaps.reduce((all, heap) => added(all, this.#heapSum[heap]), { count: 0, lat: 0, lon: 0 });
        const at = middleOf(sum);
        for (const heap of heaps) streetOfHeap[heap] = streets.length;
        streets.push({
          key: keyOf(base, at, before, streets),
          country: street.area.country,
          area: street.area.key,
          kind: street.isBlock ? "block" : "street",
          names: street.names,
          at,
          importance: street.importance ?? Math.min(1, 0.05 + sum.count / 1000),
          count: sum.count,
        });
      }
    }
    return { areas: this.#finishAreas(), postcodes: this.#finishPostcodes(), streets, streetOfHeap, isFar };
  }

  #area({ country, areas }: ImportRow): AreaSoFar {
    // a reader hands on the same list for rows of the same areas
    if (this.#last?.areas === areas && this.#last.country === country) return this.#last.area;
    const area = this.#areaOf(country, areas);
    this.#last = { country, areas, area };
    return area;
  }

  /** The area that a row is about: another of the same name far off is another one. */
  #listed({ country, areas, at, importance }: ImportRow): AreaSoFar {
    const own = areas[areas.length - 1];
    const parent = this.#areaOf(country, areas.slice(0, -1));
    const key = keyWithin(parent.key, own);
    const same = this.#listedAt.get(key) ?? [];
    const known = same.find((other) => sphereDistance(other.at, at) <= SAME_AREA);
    if (known) return known.area;
    const name = same.length ? `${key}@${at.lat.toFixed(2)},${at.lon.toFixed(2)}` : key;
    const area = this.#oneArea(name, parent, country, { ...own, importance: own.importance ?? importance });
    this.#listedAt.set(key, [...same, { at, area }]);
    this.#listedCount++;
    return area;
  }

  #areaOf(country: string, areas: readonly ImportArea[]): AreaSoFar {
    let raw = country;
    for (const { kind, names, id = "" } of areas) raw += `|${kind}:${names[0].name}#${id}`;
    const known = this.#known.get(raw);
    if (known) return known;
    const called = this.namesOf(country) ?? [{ lang: "und", name: country }];
    let within = this.#oneArea(country, undefined, country, { kind: "country", names: called, code: country });
    for (const area of areas) within = this.#oneArea(keyWithin(within.key, area), within, country, area);
    this.#known.set(raw, within);
    return within;
  }

  #oneArea(
    key: string,
    parent: AreaSoFar | undefined,
    country: string,
    { kind, names, code, importance }: ImportArea,
  ): AreaSoFar {
    let area = this.#areas.get(key);
    if (!area) {
      const depth = (parent?.depth ?? -1) + 1;
      const [streets, folded] = [new Map<string, StreetSoFar>(), new Map<string, StreetSoFar>()];
      area = {
        key,
        place: this.#areas.size,
        parent,
        depth,
        kind,
        country,
        code,
        importance,
        names,
        spread: new Spread(),
        streets,
        folded,
      };
      this.#areas.set(key, area);
    }
    return area;
  }

  #street(row: ImportRow, area: AreaSoFar) {
    if (!row.street) return { heap: undefined, spelling: undefined };
    const [{ name }] = row.street.names;
    let street = area.streets.get(name);
    let spelling: string | undefined;
    if (!street) {
      const folded = plainName(name);
      street = area.folded.get(folded);
      if (street) spelling = street.names[0].name;
      else {
        street = {
          area,
          names: row.street.names,
          isBlock: row.street.isBlock,
          importance: row.importance,
          heaps: new Map(),
        };
        area.folded.set(folded, street);
        this.#streets.push(street);
      }
      area.streets.set(name, street);
    }
    if (row.street.names.length > street.names.length) street.names = row.street.names;
    const cell = Math.floor((row.at.lat + 90) / HEAP) * HEAP_COLUMNS + Math.floor((row.at.lon + 180) / HEAP);
    let heap = street.heaps.get(cell);
    if (heap === undefined) {
      heap = this.#heapSum.push({ count: 0, lat: 0, lon: 0 }) - 1;
      street.heaps.set(cell, heap);
    }
    count(this.#heapSum[heap], row.at);
    return { heap, spelling };
  }

  #postcode(country: string, code: string, area: AreaSoFar, at: Position): number {
    const key = `${country} ${code}`;
    let postcode = this.#postcodes.get(key);
    if (!postcode) {
      postcode = { place: this.#postcodes.size, country, code, area, sum: { count: 0, lat: 0, lon: 0 } };
      this.#postcodes.set(key, postcode);
    }
    if (postcode.area !== area) postcode.area = around(postcode.area, area);
    count(postcode.sum, at);
    return postcode.place;
  }

  /** Heaps of a street that hang together; small ones far off stay with the largest, and are marked. */
  #apart(street: StreetSoFar, isFar: Uint8Array): number[][] {
    const heaps = [...street.heaps.values()];
    if (heaps.length === 1) return [heaps];
    const groups: number[][] = [];
    const left = new Set(heaps);
    const middles = new Map(heaps.map((heap) => [heap, middleOf(this.#heapSum[heap])]));
    for (const start of heaps) {
      if (!left.delete(start)) continue;
      const group = [start];
      for (let i = 0; i < group.length; i++) {
        const here = middles.get(group[i])!;
        for (const heap of left) {
          if (sphereDistance(here, middles.get(heap)!) > TOGETHER) continue;
          left.delete(heap);
          group.push(heap);
        }
      }
      groups.push(group);
    }
    const size = (group: readonly number[]) => group.reduce((sum, heap) => sum + this.#heapSum[heap].count, 0);
    groups.sort((a, b) => size(b) - size(a));
    const [main, ...others] = groups;
    const most = size(main);
    const own = others.filter((group) => size(group) >= OWN_STREET || size(group) >= most * OWN_SHARE);
    for (const group of others) {
      if (own.includes(group)) continue;
      for (const heap of group) {
        isFar[heap] = 1;
        main.push(heap);
      }
    }
    return [main, ...own];
  }

  #finishAreas(): GatheredArea[] {
    const areas = [...this.#areas.values()];
    for (const area of areas.toSorted((a, b) => b.depth - a.depth)) area.parent?.spread.join(area.spread);
    return areas.map(({ key, parent, kind, country, code, importance, names, spread }) => ({
      key,
      parent: parent?.key ?? null,
      kind,
      country,
      ...(code ? { code } : {}),
      names,
      ...spread.shape(),
      importance: importance ?? importanceOf(kind, spread.count),
      count: spread.count,
    }));
  }

  #finishPostcodes(): GatheredPostcode[] {
    return [...this.#postcodes].map(([key, { country, code, area, sum }]) => ({
      key,
      country,
      code,
      area: area.key,
      at: middleOf(sum),
    }));
  }
}

interface Sum {
  count: number;
  lat: number;
  lon: number;
}

function count(sum: Sum, { lat, lon }: Position): void {
  sum.count++;
  sum.lat += lat;
  sum.lon += lon;
}

const added = (a: Sum, b: Sum): Sum => ({ count: a.count + b.count, lat: a.lat + b.lat, lon: a.lon + b.lon });
const middleOf = ({ count: n, lat, lon }: Sum): Position => ({ lat: lat / n, lon: lon / n });

/** What names an area within another, over all loads. */
const keyWithin = (parent: string, { kind, names, id }: ImportArea) =>
  `${parent}/${kind}:${plainName(names[0].name)}${id === undefined ? "" : `#${id}`}`;

/** What names the streets of one name in one area, over all loads. */
export const streetKey = (area: string, name: string) => `${area}/street:${plainName(name)}`;

/** The key of the nearest street of that name in an earlier load, else one that no other has. */
function keyOf(base: string, at: Position, before: EarlierStreet[], others: readonly GatheredStreet[]): string {
  let nearest = -1;
  for (let i = 0; i < before.length; i++)
    if (nearest < 0 || sphereDistance(at, before[i].at) < sphereDistance(at, before[nearest].at)) nearest = i;
  if (nearest >= 0) return before.splice(nearest, 1)[0].key;
  const last = others.at(-1);
  const isFirst = !last?.key.startsWith(base) || (last.key !== base && !last.key.startsWith(`${base}@`));
  return isFirst ? base : `${base}@${at.lat.toFixed(2)},${at.lon.toFixed(2)}`;
}

/** The narrowest area that both lie in. */
function around(a: AreaSoFar, b: AreaSoFar): AreaSoFar {
  let [one, other] = [a, b];
  while (one !== other) {
    if (one.depth >= other.depth && one.parent) one = one.parent;
    else if (other.parent) other = other.parent;
    else return one;
  }
  return one;
}

/** Of an area, from how much lies in it. */
function importanceOf(kind: AreaKind, count: number): number {
  const size = Math.min(1, Math.log10(count + 10) / 6);
  if (kind === "country") return 1;
  if (kind === "region") return 0.8;
  if (kind === "county") return 0.7;
  return kind === "town" ? 0.3 + 0.3 * size : 0.2 + 0.1 * size;
}
