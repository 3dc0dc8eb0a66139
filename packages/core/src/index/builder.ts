import { boxAroundRings } from "../geo/index.ts";
import { packSections } from "./container.ts";
import { Growing } from "./growing.ts";
import { buildPointTree } from "./kd-tree.ts";
import { NO_NUMBER, NO_POSTCODE, NONE, RARE_SUFFIX, SCALE, type Sections, type SegmentMeta } from "./layout.ts";
import type { AddressInput, AreaInput, PlaceInput, PostcodeInput, RecordSink, StreetInput } from "./records.ts";
import { StringTable } from "./strings.ts";
import { namedHouses, thingSections } from "./things.ts";

/**
 * Builds a segment. Records may come in any order; everything is put instead by `finish`.
 */
export class SegmentBuilder implements RecordSink {
  readonly #areas: AreaInput[] = [];
  readonly #postcodes: PostcodeInput[] = [];
  readonly #streets: StreetInput[] = [];
  readonly #places: PlaceInput[] = [];
  readonly #suffixes = new Map<string, number>();
  readonly #suffixText: string[] = [];
  /** Names and units of the few addresses that have one, by the order in which addresses came. */
  readonly #details = new Map<number, { name?: string; unit?: string }>();
  readonly #address = {
    identity: new Growing(Uint32Array),
    street: new Growing(Uint32Array),
    number: new Growing(Uint16Array),
    suffix: new Growing(Uint16Array),
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
    if (address.name !== undefined || address.unit !== undefined) {
      this.#details.set(a.identity.length, { name: address.name, unit: address.unit });
    }
    a.identity.push(address.identity);
    a.street.push(address.street);
    a.number.push(address.number ?? NO_NUMBER);
    a.suffix.push(suffix);
    a.postcode.push(address.postcode ?? NONE);
    a.lat.push(Math.round(address.at.lat * SCALE));
    a.lon.push(Math.round(address.at.lon * SCALE));
  }

  /**
   * Puts everything in order and packs it.
   * @throws Error when a record names an area, street or postcode that was never added
   */
  finish(about: Pick<SegmentMeta, "name" | "sources" | "doubles">): ArrayBuffer {
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
    for (const list of [areas, postcodes, streets, places])
      for (const { identity } of list) numberOf.set(identity, numberOf.size);

    const { suffixes, ...addresses } = this.#sortAddresses(
      numberOf,
      areas.length,
      postcodes.length,
      streets.length,
      strings,
    );
    const houses = namedHouses(addresses, strings);
    const meta: SegmentMeta = {
      ...about,
      langs: [],
      suffixes,
      counts: {
        things: numberOf.size + houses.length,
        areas: areas.length,
        postcodes: postcodes.length,
        streets: streets.length,
        places: places.length,
        houses: houses.length,
        addresses: addresses.addressIdentity.length,
      },
    };
    const things = thingSections({ areas, postcodes, streets, places, houses, within, addresses, meta, strings });
    const { identityTarget, addressOf } = identitySections(things.thingIdentity, addresses.addressIdentity, meta);
    const sections: Sections = {
      ...things,
      ...areaSections(areas, strings),
      areaStreet: firstInside(things.thingParent, areas.length, areas.length + postcodes.length, streets.length),
      areaPlace: firstInside(things.thingParent, areas.length, numberOf.size - places.length, places.length),
      areaNumber: highestNumbers(things.thingParent, areas.length, areas.length + postcodes.length, addresses),
      ...addresses,
      identityTarget,
      placeFacts: Uint32Array.from(places, (p) => strings.add(JSON.stringify(p.facts))),
      placeAddress: Uint32Array.from(places, (p) => (p.address === null ? NONE : addressOf(p.address))),
      houseAddress: Uint32Array.from(houses, ({ address }) => address),
      ...strings.finish(),
      meta: unitsOf(JSON.stringify(meta)),
    };
    return packSections(sections);
  }

  /** The most common suffixes, as many as a byte can tell apart. */
  #commonSuffixes(): string[] {
    const counts = new Uint32Array(this.#suffixText.length);
    for (let i = 0; i < this.#address.suffix.length; i++) counts[this.#address.suffix.get(i)]++;
    const order = [...this.#suffixText.keys()].sort(
      (a, b) => counts[b] - counts[a] || compare(this.#suffixText[a], this.#suffixText[b]),
    );
    return order.slice(0, RARE_SUFFIX).map((i) => this.#suffixText[i]);
  }

  /** Addresses by street, number, suffix, unit; numbers of streets and postcodes in place of identities. */
  #sortAddresses(
    numberOf: Map<number, number>,
    firstPostcode: number,
    postcodes: number,
    streets: number,
    strings: StringTable,
  ) {
    const a = this.#address;
    const count = a.identity.length;
    const street = new Uint32Array(count);
    const streetAddress = new Uint32Array(streets + 1);
    for (let i = 0; i < count; i++) {
      street[i] = must(numberOf.get(a.street.get(i)), "street", a.street.get(i)) - firstPostcode - postcodes;
      streetAddress[street[i] + 1]++;
    }
    for (let s = 0; s < streets; s++) streetAddress[s + 1] += streetAddress[s];
    const order = new Uint32Array(count);
    const next = streetAddress.slice();
    for (let i = 0; i < count; i++) order[next[street[i]]++] = i;
    const unitOf = (i: number) => this.#details.get(i)?.unit ?? "";
    const suffixOf = (i: number) => this.#suffixText[a.suffix.get(i)];
    const inOrder = (x: number, y: number) =>
      a.number.get(x) - a.number.get(y) ||
      compare(suffixOf(x), suffixOf(y)) ||
      (this.#details.size && compareNumeric(unitOf(x), unitOf(y))) ||
      a.identity.get(x) - a.identity.get(y);
    for (let s = 0; s < streets; s++) sortRange(order, streetAddress[s], streetAddress[s + 1], inOrder);
    const suffixes = this.#commonSuffixes();
    const placeOf = new Map(suffixes.map((text, i) => [text, i]));
    const suffixPlace = this.#suffixText.map((text) => placeOf.get(text) ?? RARE_SUFFIX);
    const postcode = (i: number) =>
      a.postcode.get(i) === NONE ? NONE : must(numberOf.get(a.postcode.get(i)), "postcode", a.postcode.get(i));
    const addressLat = Int32Array.from(order, (i) => a.lat.get(i));
    const addressLon = Int32Array.from(order, (i) => a.lon.get(i));
    const detailed: number[] = [];
    const isRare = (i: number) => suffixPlace[a.suffix.get(i)] === RARE_SUFFIX;
    for (let at = 0; at < count; at++) if (this.#details.has(order[at]) || isRare(order[at])) detailed.push(at);
    const detail = (textOf: (i: number) => string | undefined) =>
      Uint32Array.from(detailed, (at) => {
        const text = textOf(order[at]);
        return text === undefined ? NONE : strings.add(text);
      });
    return {
      streetAddress,
      ...postcodeSections(streetAddress, (at) => postcode(order[at]), firstPostcode, postcodes),
      addressNumber: Uint16Array.from(order, (i) => a.number.get(i)),
      addressSuffix: Uint8Array.from(order, (i) => suffixPlace[a.suffix.get(i)]),
      addressLat,
      addressLon,
      addressIdentity: Uint32Array.from(order, (i) => a.identity.get(i)),
      addressTree: buildPointTree(addressLat, addressLon),
      detailAddress: Uint32Array.from(detailed),
      detailSuffix: detail((i) => (isRare(i) ? suffixOf(i) : undefined)),
      detailName: detail((i) => this.#details.get(i)?.name),
      detailUnit: detail((i) => this.#details.get(i)?.unit),
      suffixes,
    };
  }
}

/** Sorts a few numbers within an array in place: streets are short, and mostly in order already. */
function sortRange(order: Uint32Array, from: number, to: number, inOrder: (x: number, y: number) => number): void {
  if (to - from > 64) {
    order.subarray(from, to).sort(inOrder);
    return;
  }
  for (let i = from + 1; i < to; i++) {
    const swapped = order[i];
    let place = i;
    while (place > from && inOrder(order[place - 1], swapped) > 0) order[place] = order[--place];
    order[place] = swapped;
  }
}

/** Which postcodes each street has, the most common first, which of them each address has, and the way back. */
function postcodeSections(
  streetAddress: Uint32Array,
  postcodeAt: (address: number) => number,
  firstPostcode: number,
  postcodes: number,
) {
  const streets = streetAddress.length - 1;
  const firstStreet = firstPostcode + postcodes;
  const streetPostcode = new Uint32Array(streets + 1);
  const postcodeOfStreet = new Growing(Uint32Array);
  const addressPostcode = new Uint16Array(streetAddress[streets]).fill(NO_POSTCODE);
  const counts = new Map<number, number>();
  for (let street = 0; street < streets; street++) {
    counts.clear();
    for (let at = streetAddress[street]; at < streetAddress[street + 1]; at++) {
      const postcode = postcodeAt(at);
      if (postcode !== NONE) counts.set(postcode, (counts.get(postcode) ?? 0) + 1);
    }
    const own = [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0]).map(([postcode]) => postcode);
    for (const postcode of own) postcodeOfStreet.push(postcode);
    streetPostcode[street + 1] = postcodeOfStreet.length;
    for (let at = streetAddress[street]; at < streetAddress[street + 1]; at++) {
      const place = own.indexOf(postcodeAt(at));
      if (place >= 0) addressPostcode[at] = Math.min(place, NO_POSTCODE - 1);
    }
  }
  const ofStreet = postcodeOfStreet.finish();
  const postcodeStreet = new Uint32Array(postcodes + 1);
  for (const postcode of ofStreet) postcodeStreet[postcode - firstPostcode + 1]++;
  for (let i = 0; i < postcodes; i++) postcodeStreet[i + 1] += postcodeStreet[i];
  const streetOfPostcode = new Uint32Array(ofStreet.length);
  const next = postcodeStreet.slice();
  for (let street = 0; street < streets; street++) {
    for (let i = streetPostcode[street]; i < streetPostcode[street + 1]; i++) {
      streetOfPostcode[next[ofStreet[i] - firstPostcode]++] = firstStreet + street;
    }
  }
  return { streetPostcode, postcodeOfStreet: ofStreet, postcodeStreet, streetOfPostcode, addressPostcode };
}

/** Where the things of each area begin, among some that are ordered by their area. */
function firstInside(thingParent: Uint32Array, areas: number, first: number, count: number) {
  const begins = new Uint32Array(areas + 1);
  let thing = first;
  for (let area = 0; area <= areas; area++) {
    while (thing < first + count && thingParent[thing] < area) thing++;
    begins[area] = thing;
  }
  return begins;
}

/** The highest number of the streets of each area, those of the areas within it too. */
function highestNumbers(
  thingParent: Uint32Array,
  areas: number,
  firstStreet: number,
  { streetAddress, addressNumber }: { streetAddress: Uint32Array; addressNumber: Uint16Array },
): Uint16Array<ArrayBuffer> {
  const highest = new Uint16Array(areas);
  for (let street = 0; street + 1 < streetAddress.length; street++) {
    const area = thingParent[firstStreet + street];
    for (let i = streetAddress[street + 1] - 1; i >= streetAddress[street]; i--) {
      if (addressNumber[i] === NO_NUMBER) continue;
      highest[area] = Math.max(highest[area], addressNumber[i]);
      break;
    }
  }
  for (let area = areas - 1; area >= 0; area--) {
    const parent = thingParent[area];
    if (parent !== NONE) highest[parent] = Math.max(highest[parent], highest[area]);
  }
  return highest;
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
      for (const [lon, lat] of ring) {
        points.push(Math.round(lon * SCALE));
        points.push(Math.round(lat * SCALE));
      }
      pointOf.push(points.length / 2);
    }
    ringOf.push(pointOf.length - 1);
    const { lon, lat } = area.at;
    return (area.rings.length ? boxAroundRings(area.rings) : [lon, lat, lon, lat]).map((degrees) =>
      Math.round(degrees * SCALE),
    );
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

/** Identities in order. Pairs of 32 bits are sorted as one 64-bit integer: quicker than by a comparison. */
function identitySections(things: Uint32Array, addresses: Uint32Array, { counts }: SegmentMeta) {
  const own = counts.things - counts.houses;
  const pairs = new BigUint64Array(own + addresses.length);
  const words = new Uint32Array(pairs.buffer);
  const put = (at: number, identity: number, target: number) => {
    words[at * 2 + 1] = identity;
    words[at * 2] = target;
  };
  for (let i = 0; i < own; i++) put(i, things[i], i);
  for (let i = 0; i < addresses.length; i++) put(own + i, addresses[i], counts.things + i);
  pairs.sort();
  const identityTarget = new Uint32Array(pairs.length);
  for (let i = 0; i < pairs.length; i++) identityTarget[i] = words[i * 2];
  const addressOf = (identity: number) => {
    let low = 0;
    let high = pairs.length - 1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (words[middle * 2 + 1] < identity) low = middle + 1;
      else high = middle;
    }
    const isAddress = words[low * 2 + 1] === identity && identityTarget[low] >= counts.things;
    return isAddress ? identityTarget[low] - counts.things : NONE;
  };
  return { identityTarget, addressOf };
}

/** Areas so that each comes before what lies in it, and all that lies in it directly behind it. */
function preOrder(areas: AreaInput[]): AreaInput[] {
  const inside = new Map<number | null, AreaInput[]>();
  for (const area of areas) {
    const siblings = inside.get(area.parent);
    if (siblings) siblings.push(area);
    else inside.set(area.parent, [area]);
  }
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

function must(number: number | undefined, what: string, identity: number): number {
  if (number === undefined) throw new Error(`a record names ${what} ${identity}, which was never added`);
  return number;
}

function unitsOf(text: string): Uint16Array<ArrayBuffer> {
  return Uint16Array.from({ length: text.length }, (_, i) => text.charCodeAt(i));
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
/** Texts by the first number in them: "Flat 2" before "Flat 10". */
function compareNumeric(a: string, b: string): number {
  const numberIn = (text: string) => Number(/\d+/.exec(text)?.[0] ?? 0);
  return numberIn(a) - numberIn(b) || compare(a, b);
}
