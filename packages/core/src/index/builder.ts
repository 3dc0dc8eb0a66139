import type { Position, Ring } from "../geo/index.ts";
import { boxAround } from "../geo/index.ts";
import { type AreaKind, type Facts, KINDS, type Kind, type Name } from "../place/index.ts";
import { packSections } from "./container.ts";
import { Growing } from "./growing.ts";
import { buildPointTree } from "./kd-tree.ts";
import { NONE, SCALE, type Sections, type SegmentMeta } from "./layout.ts";
import { StringTable } from "./strings.ts";
import { TermTable } from "./terms.ts";

/** What all things with a name have. Identities are whole numbers from the identity table; positions in degrees. */
interface ThingInput {
  identity: number;
  /** The local name first. */
  names: Name[];
  at: Position;
  /** 0 to 1; orders what is otherwise equal. */
  importance: number;
}

export interface AreaInput extends ThingInput {
  kind: AreaKind;
  /** Identity of the area around it; null for a country. */
  parent: number | null;
  code?: string;
  /** Outer rings and holes; even-odd. */
  rings: Ring[];
}

export interface PostcodeInput extends Omit<ThingInput, "names"> {
  code: string;
  /** Identity of the area it lies in. */
  area: number;
}

export interface StreetInput extends ThingInput {
  kind: "street" | "block";
  area: number;
}

export interface AddressInput {
  identity: number;
  /** Identity of its street or block. */
  street: number;
  number: number;
  suffix: string;
  /** Identity of its postcode, or null. */
  postcode: number | null;
  at: Position;
}

export interface PlaceInput extends ThingInput {
  area: number;
  facts: Facts;
  /** Identity of the address it stands at, or null. */
  address: number | null;
}

/**
 * Builds a segment. Records may come in any order; everything is put in its place by `finish`.
 */
export class SegmentBuilder {
  readonly #areas: AreaInput[] = [];
  readonly #postcodes: PostcodeInput[] = [];
  readonly #streets: StreetInput[] = [];
  readonly #places: PlaceInput[] = [];
  readonly #suffixes = new Map<string, number>();
  readonly #suffixText: string[] = [];
  readonly #address = {
    identity: new Growing(Uint32Array),
    street: new Growing(Uint32Array),
    number: new Growing(Uint16Array),
    suffix: new Growing(Uint32Array),
    postcode: new Growing(Uint32Array),
    lat: new Growing(Int32Array),
    lon: new Growing(Int32Array),
  };

  addArea(area: AreaInput): void {
    this.#areas.push(area);
  }

  addPostcode(postcode: PostcodeInput): void {
    this.#postcodes.push(postcode);
  }

  addStreet(street: StreetInput): void {
    this.#streets.push(street);
  }

  addPlace(place: PlaceInput): void {
    this.#places.push(place);
  }

  addAddress(address: AddressInput): void {
    let suffix = this.#suffixes.get(address.suffix);
    if (suffix === undefined) {
      suffix = this.#suffixText.push(address.suffix) - 1;
      this.#suffixes.set(address.suffix, suffix);
    }
    const a = this.#address;
    a.identity.push(address.identity);
    a.street.push(address.street);
    a.number.push(address.number);
    a.suffix.push(suffix);
    a.postcode.push(address.postcode ?? NONE);
    a.lat.push(Math.round(address.at.lat * SCALE));
    a.lon.push(Math.round(address.at.lon * SCALE));
  }

  /**
   * Puts everything in order and packs it.
   * @throws Error when a record names an area, street or postcode that was never added
   */
  finish(about: Pick<SegmentMeta, "name" | "sources">): ArrayBuffer {
    const strings = new StringTable();
    const areas = preOrder(this.#areas);
    const areaNumber = new Map(areas.map((area, i) => [area.identity, i]));
    const within = (identity: number) => must(areaNumber.get(identity), "area", identity);
    const byArea = <T extends { area: number; identity: number }>(list: T[]) =>
      list.sort((a, b) => within(a.area) - within(b.area) || a.identity - b.identity);
    const postcodes = byArea(this.#postcodes);
    const streets = byArea(this.#streets);
    const places = byArea(this.#places);
    const numberOf = new Map<number, number>();
    [...areas, ...postcodes, ...streets, ...places].forEach((thing, i) => {
      numberOf.set(thing.identity, i);
    });

    const addresses = this.#sortAddresses(numberOf, areas.length + postcodes.length, streets.length, strings);
    const meta: SegmentMeta = {
      ...about,
      langs: [],
      suffixes: Object.fromEntries(this.#suffixText.map((text) => [text, strings.add(text)])),
      counts: {
        things: numberOf.size,
        areas: areas.length,
        postcodes: postcodes.length,
        streets: streets.length,
        places: places.length,
        addresses: addresses.addressIdentity.length,
      },
    };
    const things = thingSections({ areas, postcodes, streets, places, within, addresses, meta, strings });
    const identities = identitySections(things.thingIdentity, addresses.addressIdentity);
    const addressNumber = new Map<number, number>();
    if (places.length) addresses.addressIdentity.forEach((identity, i) => void addressNumber.set(identity, i));
    const sections: Sections = {
      ...things,
      ...areaSections(areas, strings),
      ...addresses,
      ...identities,
      placeFacts: Uint32Array.from(places, (p) => strings.add(JSON.stringify(p.facts))),
      placeAddress: Uint32Array.from(places, (p) => addressNumber.get(p.address ?? NONE) ?? NONE),
      ...strings.finish(),
      meta: unitsOf(JSON.stringify(meta)),
    };
    return packSections(sections);
  }

  /** Addresses by street, number, suffix; numbers of streets and postcodes in place of identities. */
  #sortAddresses(numberOf: Map<number, number>, firstStreet: number, streets: number, strings: StringTable) {
    const a = this.#address;
    const count = a.identity.length;
    const street = Uint32Array.from(
      { length: count },
      (_, i) => must(numberOf.get(a.street.get(i)), "street", a.street.get(i)) - firstStreet,
    );
    const order = Uint32Array.from({ length: count }, (_, i) => i).sort(
      (x, y) =>
        street[x] - street[y] ||
        a.number.get(x) - a.number.get(y) ||
        compare(this.#suffixText[a.suffix.get(x)], this.#suffixText[a.suffix.get(y)]) ||
        a.identity.get(x) - a.identity.get(y),
    );
    const streetAddress = new Uint32Array(streets + 1);
    for (const s of street) streetAddress[s + 1]++;
    for (let s = 0; s < streets; s++) streetAddress[s + 1] += streetAddress[s];
    const suffixString = this.#suffixText.map((text) => strings.add(text));
    const addressLat = Int32Array.from(order, (i) => a.lat.get(i));
    const addressLon = Int32Array.from(order, (i) => a.lon.get(i));
    return {
      streetAddress,
      addressNumber: Uint16Array.from(order, (i) => a.number.get(i)),
      addressSuffix: Uint32Array.from(order, (i) => suffixString[a.suffix.get(i)]),
      addressLat,
      addressLon,
      addressPostcode: Uint32Array.from(order, (i) =>
        a.postcode.get(i) === NONE ? NONE : must(numberOf.get(a.postcode.get(i)), "postcode", a.postcode.get(i)),
      ),
      addressIdentity: Uint32Array.from(order, (i) => a.identity.get(i)),
      addressTree: buildPointTree(addressLat, addressLon),
    };
  }
}

interface Ordered {
  areas: AreaInput[];
  postcodes: PostcodeInput[];
  streets: StreetInput[];
  places: PlaceInput[];
  within: (identity: number) => number;
  addresses: Pick<Sections, "streetAddress" | "addressPostcode">;
  meta: SegmentMeta;
  strings: StringTable;
}

/** Everything that things have in common, and the words that find them. */
function thingSections({ areas, postcodes, streets, places, within, addresses, meta, strings }: Ordered) {
  const total = meta.counts.things;
  const s = {
    thingKind: new Uint8Array(total),
    thingIdentity: new Uint32Array(total),
    thingParent: new Uint32Array(total).fill(NONE),
    thingCountry: new Uint32Array(total),
    thingLat: new Int32Array(total),
    thingLon: new Int32Array(total),
    thingImportance: new Uint16Array(total),
    thingWords: new Uint8Array(total),
    thingName: new Uint32Array(total + 1),
    thingPostcode: new Uint32Array(total).fill(NONE),
  };
  const names = { lang: [] as number[], text: [] as number[], abbr: [] as number[] };
  const terms = new TermTable();
  let thing = 0;
  const put = (input: Omit<ThingInput, "names">, kind: Kind, parent: number, its: readonly Name[]) => {
    s.thingKind[thing] = KINDS.indexOf(kind);
    s.thingIdentity[thing] = input.identity;
    s.thingParent[thing] = parent;
    s.thingCountry[thing] = parent === NONE ? thing : s.thingCountry[parent];
    s.thingLat[thing] = Math.round(input.at.lat * SCALE);
    s.thingLon[thing] = Math.round(input.at.lon * SCALE);
    s.thingImportance[thing] = Math.round(Math.max(0, Math.min(1, input.importance)) * 65535);
    s.thingName[thing] = names.text.length;
    for (const name of its) {
      if (!meta.langs.includes(name.lang)) meta.langs.push(name.lang);
      names.lang.push(meta.langs.indexOf(name.lang));
      names.text.push(strings.add(name.name));
      names.abbr.push(name.abbr === undefined ? NONE : strings.add(name.abbr));
    }
    s.thingWords[thing] = terms.add(
      thing,
      its.map((name) => name.name),
      kind === "postcode",
    );
    s.thingName[++thing] = names.text.length;
  };
  for (const area of areas) put(area, area.kind, area.parent === null ? NONE : within(area.parent), area.names);
  for (const code of postcodes) put(code, "postcode", within(code.area), [{ lang: "und", name: code.code }]);
  const firstStreet = thing;
  for (const street of streets) put(street, street.kind, within(street.area), street.names);
  for (const place of places) put(place, "place", within(place.area), place.names);
  for (let i = 0; i < streets.length; i++) {
    s.thingPostcode[firstStreet + i] = mostCommon(
      addresses.addressPostcode.subarray(addresses.streetAddress[i], addresses.streetAddress[i + 1]),
    );
  }
  return {
    ...s,
    nameLang: Uint8Array.from(names.lang),
    nameText: Uint32Array.from(names.text),
    nameAbbr: Uint32Array.from(names.abbr),
    ...terms.finish(s.thingImportance),
  };
}

function areaSections(areas: AreaInput[], strings: StringTable) {
  const last = new Uint32Array(areas.length);
  const number = new Map(areas.map((area, i) => [area.identity, i]));
  for (let i = areas.length - 1; i >= 0; i--) {
    last[i] = Math.max(last[i], i);
    const parent = areas[i].parent;
    if (parent !== null) last[number.get(parent)!] = Math.max(last[number.get(parent)!], last[i]);
  }
  const ringOf = [0];
  const pointOf = [0];
  const points = new Growing(Int32Array);
  const boxes = areas.flatMap((area) => {
    for (const ring of area.rings) {
      for (const [lon, lat] of ring) points.push(Math.round(lon * SCALE), Math.round(lat * SCALE));
      pointOf.push(points.length / 2);
    }
    ringOf.push(pointOf.length - 1);
    const all = area.rings.flat();
    return boxAround(all.length ? all : [[area.at.lon, area.at.lat]]).map((degrees) => Math.round(degrees * SCALE));
  });
  return {
    areaLast: last,
    areaCode: Uint32Array.from(areas, (area) => (area.code === undefined ? NONE : strings.add(area.code))),
    areaBox: Int32Array.from(boxes),
    areaRing: Uint32Array.from(ringOf),
    ringPoint: Uint32Array.from(pointOf),
    pointLonLat: points.finish(),
  };
}

function identitySections(things: Uint32Array, addresses: Uint32Array) {
  const all = new Uint32Array(things.length + addresses.length);
  all.set(things);
  all.set(addresses, things.length);
  const identityTarget = Uint32Array.from(all, (_, i) => i).sort((a, b) => all[a] - all[b]);
  return { identity: Uint32Array.from(identityTarget, (i) => all[i]), identityTarget };
}

/** Areas so that each stands before what lies in it, and all that lies in it directly behind it. */
function preOrder(areas: AreaInput[]): AreaInput[] {
  const inside = new Map<number | null, AreaInput[]>();
  for (const area of areas) inside.set(area.parent, [...(inside.get(area.parent) ?? []), area]);
  const ordered: AreaInput[] = [];
  const walk = (parent: number | null) => {
    for (const area of (inside.get(parent) ?? []).sort((a, b) => a.identity - b.identity)) {
      ordered.push(area);
      walk(area.identity);
    }
  };
  walk(null);
  return ordered;
}

function mostCommon(values: Uint32Array): number {
  const counts = new Map<number, number>();
  for (const value of values) if (value !== NONE) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best), [NONE, 0])[0];
}

function must(number: number | undefined, what: string, identity: number): number {
  if (number === undefined) throw new Error(`a record names ${what} ${identity}, which was never added`);
  return number;
}

function unitsOf(text: string): Uint16Array<ArrayBuffer> {
  return Uint16Array.from({ length: text.length }, (_, i) => text.charCodeAt(i));
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
