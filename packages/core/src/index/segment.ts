import { type Box, type Position, type Ring, ringsContain } from "../geo/index.ts";
import { type Facts, type HouseNumber, KINDS, type Kind, type Name, parseRef, refOf } from "../place/index.ts";
import { AreaGrid } from "./area-grid.ts";
import { openSections } from "./container.ts";
import { buildPointTree, nearestPoints, type PointTree } from "./kd-tree.ts";
import {
  NO_NUMBER,
  NO_POSTCODE,
  NONE,
  RARE_SUFFIX,
  SCALE,
  type SectionName,
  type Sections,
  type SegmentMeta,
} from "./layout.ts";
import { endsWord } from "./trie.ts";

/** From so many areas on, those around a position are looked up on a grid. */
const MANY_AREAS = 1000;

/** What an overlay gives an area in place of what is in the segment. */
export interface ChangedArea {
  names: Name[];
  code?: string;
  rings: Ring[];
}

/** What lies over a segment: things that are not to be found in it any more, and areas that changed. */
export interface Veil {
  hidden?: ReadonlySet<number>;
  areas?: ReadonlyMap<number, ChangedArea>;
}

/**
 * An opened segment: typed arrays over one buffer, and the few questions that all searches ask of it. Things and
 * addresses are integers (see layout.ts). Nothing is copied; several threads may open the same shared buffer.
 */
export class Segment {
  readonly sections: Sections;
  readonly meta: SegmentMeta;
  readonly firstPostcode: number;
  readonly firstStreet: number;
  readonly firstPlace: number;
  readonly firstHouse: number;
  readonly #suffixes: ReadonlyMap<string, number>;
  readonly #hidden: ReadonlySet<number> | undefined;
  readonly #changed: ReadonlyMap<number, ChangedArea> | undefined;
  /** Called several times for each line that is returned. */
  readonly #countryCodes = new Map<number, string>();
  #placeTree: PointTree | undefined;
  #areaGrid: AreaGrid | undefined;

  /**
   * @param buffer the bytes, or a segment that is open already
   * @param veil what lies over it
   * @throws SegmentError when the buffer is no complete segment of this format
   */
  constructor(buffer: ArrayBufferLike | Segment, veil: Veil = {}) {
    const open = buffer instanceof Segment ? buffer : undefined;
    this.sections = open?.sections ?? openSections(buffer as ArrayBufferLike);
    this.meta = open?.meta ?? JSON.parse(textOf(this.sections.meta, 0, this.sections.meta.length));
    this.#hidden = veil.hidden?.size ? veil.hidden : undefined;
    this.#changed = veil.areas?.size ? veil.areas : undefined;
    const { areas, postcodes, streets, places } = this.meta.counts;
    this.firstPostcode = areas;
    this.firstStreet = areas + postcodes;
    this.firstPlace = areas + postcodes + streets;
    this.firstHouse = areas + postcodes + streets + places;
    this.#suffixes = new Map(this.meta.suffixes.map((suffix, i) => [suffix, i]));
  }

  string(number: number): string {
    const { stringOffset, stringUnits } = this.sections;
    return textOf(stringUnits, stringOffset[number], stringOffset[number + 1]);
  }

  kindOf(thing: number): Kind {
    return KINDS[this.sections.thingKind[thing]];
  }

  /** True for a thing that an overlay answers for. */
  isHidden(thing: number): boolean {
    return this.#hidden?.has(thing) === true;
  }

  /** The areas whose names an overlay changes. */
  get changedAreas(): Iterable<number> {
    return this.#changed?.keys() ?? [];
  }

  isArea(thing: number): boolean {
    return thing < this.firstPostcode;
  }

  isPostcode(thing: number): boolean {
    return thing >= this.firstPostcode && thing < this.firstStreet;
  }

  isStreet(thing: number): boolean {
    return thing >= this.firstStreet && thing < this.firstPlace;
  }

  /** Half-open range, in `thingOfHead`, of the most important things below a node; undefined where there are few. */
  headsOf(node: number): [from: number, to: number] | undefined {
    const { headNode, headThing } = this.sections;
    const at = lowerBound(headNode, node);
    return headNode[at] === node ? [headThing[at], headThing[at + 1]] : undefined;
  }

  /** A word of the dictionary by number. */
  term(number: number): string {
    const { nodeLetter, nodeChild, nodeTermTo } = this.sections;
    let word = "";
    for (let node = 0; !(endsWord(this.sections, node) && this.sections.nodeTermFrom[node] === number); ) {
      node = nodeChild[node];
      while (nodeTermTo[node] <= number) node++;
      word += String.fromCharCode(nodeLetter[node]);
    }
    return word;
  }

  /** Its names, the local one first. */
  namesOf(thing: number): Name[] {
    const changed = this.#changed?.get(thing);
    if (changed) return changed.names;
    const { thingName, nameLang, nameText, nameAbbr } = this.sections;
    const names: Name[] = [];
    for (let i = thingName[thing]; i < thingName[thing + 1]; i++) {
      const name: Name = { lang: this.meta.langs[nameLang[i]], name: this.string(nameText[i]) };
      if (nameAbbr[i] !== NONE) name.abbr = this.string(nameAbbr[i]);
      names.push(name);
    }
    return names;
  }

  positionOf(thing: number): Position {
    return { lat: this.sections.thingLat[thing] / SCALE, lon: this.sections.thingLon[thing] / SCALE };
  }

  addressPosition(address: number): Position {
    return { lat: this.sections.addressLat[address] / SCALE, lon: this.sections.addressLon[address] / SCALE };
  }

  /** The countries, as things. */
  countries(): number[] {
    const found: number[] = [];
    for (let area = 0; area < this.meta.counts.areas; area = this.sections.areaLast[area] + 1) found.push(area);
    return found;
  }

  /** The country a thing lies in, as a thing. */
  countryOf(thing: number): number {
    const { thingParent } = this.sections;
    while (thingParent[thing] !== NONE) thing = thingParent[thing];
    return thing;
  }

  /** ISO 3166 code of the country a thing lies in. */
  countryCode(thing: number): string {
    const country = this.countryOf(thing);
    let code = this.#countryCodes.get(country);
    if (code === undefined) {
      code = this.areaCode(country) ?? "ZZ";
      this.#countryCodes.set(country, code);
    }
    return code;
  }

  areaCode(area: number): string | undefined {
    const changed = this.#changed?.get(area);
    if (changed) return changed.code;
    const code = this.sections.areaCode[area];
    return code === NONE ? undefined : this.string(code);
  }

  /** West, south, east, north in degrees; west is more than east across the 180th meridian. */
  areaBox(area: number): Box {
    const box = this.sections.areaBox.subarray(area * 4, area * 4 + 4);
    return [box[0] / SCALE, box[1] / SCALE, box[2] / SCALE, box[3] / SCALE];
  }

  areaRings(area: number): Ring[] {
    const { areaRing, ringPoint, pointLonLat } = this.sections;
    const rings: Ring[] = [];
    for (let r = areaRing[area]; r < areaRing[area + 1]; r++) {
      const ring: [number, number][] = [];
      for (let p = ringPoint[r]; p < ringPoint[r + 1]; p++)
        ring.push([pointLonLat[2 * p] / SCALE, pointLonLat[2 * p + 1] / SCALE]);
      rings.push(ring);
    }
    return rings;
  }

  /** True when the thing is the area or lies in it. */
  isInside(thing: number, area: number): boolean {
    const nearest = this.isArea(thing) ? thing : this.sections.thingParent[thing];
    return nearest >= area && nearest <= this.sections.areaLast[area];
  }

  /** Half-open range of the addresses of a street. */
  addressesOf(street: number): [from: number, to: number] {
    const s = street - this.firstStreet;
    return [this.sections.streetAddress[s], this.sections.streetAddress[s + 1]];
  }

  /** The street or block of an address, as a thing. */
  streetOf(address: number): number {
    return this.firstStreet + lowerBound(this.sections.streetAddress, address + 1) - 1;
  }

  /** First address of a street with that number or a higher one. */
  seekNumber(street: number, number: number): number {
    return lowerBound(this.sections.addressNumber, number, ...this.addressesOf(street));
  }

  /** Half-open range of the streets and blocks of an area, those of the areas within it too. */
  streetsInside(area: number): [from: number, to: number] {
    const { areaStreet, areaLast } = this.sections;
    return [areaStreet[area], areaStreet[areaLast[area] + 1]];
  }

  /** The same of places. */
  placesInside(area: number): [from: number, to: number] {
    const { areaPlace, areaLast } = this.sections;
    return [areaPlace[area], areaPlace[areaLast[area] + 1]];
  }

  /** Half-open range, in `postcodeOfStreet`, of the postcodes of a street, the most common first. */
  postcodesOf(street: number): [from: number, to: number] {
    const { streetPostcode } = this.sections;
    return [streetPostcode[street - this.firstStreet], streetPostcode[street - this.firstStreet + 1]];
  }

  /** The postcode of an address of a street, or of most addresses of the street; NONE without one. */
  postcodeOf(street: number, address = NONE): number {
    const { postcodeOfStreet, addressPostcode } = this.sections;
    const [from, to] = this.postcodesOf(street);
    if (address === NONE) return from < to ? postcodeOfStreet[from] : NONE;
    const place = addressPostcode[address];
    return place === NO_POSTCODE ? NONE : postcodeOfStreet[from + place];
  }

  /** The number of an address and what follows it; undefined for a house with only a name. */
  numberOf(address: number): HouseNumber | undefined {
    const number = this.sections.addressNumber[address];
    if (number === NO_NUMBER) return undefined;
    const suffix = this.sections.addressSuffix[address];
    return { number, suffix: suffix === RARE_SUFFIX ? this.detailOf(address).suffix! : this.meta.suffixes[suffix] };
  }

  /** Place of a suffix among the common ones, or -1. */
  suffixNumber(suffix: string): number {
    return this.#suffixes.get(suffix) ?? -1;
  }

  /** False when no number has such a suffix. */
  hasSuffix(suffix: string): boolean {
    return this.#suffixes.has(suffix) || this.#suffixes.size === RARE_SUFFIX;
  }

  /** The rare suffix, the name and the unit of an address, where it has them. */
  detailOf(address: number): { suffix?: string; name?: string; unit?: string } {
    const { detailAddress, detailSuffix, detailName, detailUnit } = this.sections;
    const at = lowerBound(detailAddress, address);
    if (detailAddress[at] !== address) return {};
    const text = (string: number) => (string === NONE ? undefined : this.string(string));
    return { suffix: text(detailSuffix[at]), name: text(detailName[at]), unit: text(detailUnit[at]) };
  }

  /** The units of a building: the addresses behind it with the same number, half open. */
  unitsOf(street: number, address: number): [from: number, to: number] {
    const { addressNumber, addressSuffix } = this.sections;
    const [, end] = this.addressesOf(street);
    if (addressNumber[address] === NO_NUMBER) return [address + 1, address + 1];
    const suffix = this.numberOf(address)!.suffix;
    let to = address + 1;
    while (
      to < end &&
      addressNumber[to] === addressNumber[address] &&
      addressSuffix[to] === addressSuffix[address] &&
      this.numberOf(to)!.suffix === suffix
    )
      to++;
    return [address + 1, to];
  }

  /** Facts of a place, read anew at each call: dear beside a lookup. */
  factsOf(place: number): Facts {
    return JSON.parse(this.string(this.sections.placeFacts[place - this.firstPlace]));
  }

  /** The address that a place is at, or NONE. */
  addressOfPlace(place: number): number {
    return this.sections.placeAddress[place - this.firstPlace];
  }

  thingRef(thing: number): string {
    return refOf(this.countryCode(thing), this.sections.thingIdentity[thing]);
  }

  addressRef(address: number, street = this.streetOf(address)): string {
    return refOf(this.countryCode(street), this.sections.addressIdentity[address]);
  }

  /**
   * What a ref represents: a thing, or an address; undefined when nothing here has it.
   * @param around also what is hidden here and an overlay answers for
   */
  resolve(ref: string, around = false): { thing: number; address?: number } | undefined {
    const parsed = parseRef(ref);
    const target = parsed && this.find(parsed.identity);
    if (!target || (!around && this.isHidden(target.thing))) return undefined;
    return this.countryCode(target.thing) === parsed.country ? target : undefined;
  }

  /** The same by identity, hidden or not. */
  find(identity: number): { thing: number; address?: number } | undefined {
    const { identityTarget, thingIdentity, addressIdentity } = this.sections;
    const { things } = this.meta.counts;
    const identityAt = (place: number) => {
      const target = identityTarget[place];
      return target < things ? thingIdentity[target] : addressIdentity[target - things];
    };
    let low = 0;
    let high = identityTarget.length - 1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (identityAt(middle) < identity) low = middle + 1;
      else high = middle;
    }
    if (high < 0 || identityAt(low) !== identity) return undefined;
    const address = identityTarget[low] - this.meta.counts.things;
    return address < 0 ? { thing: identityTarget[low] } : { thing: this.streetOf(address), address };
  }

  /**
   * Addresses nearest to a position, nearest first, with spherical distances in metres.
   * @param allows which addresses count; all of those not hidden, when left out
   */
  nearestAddresses(at: Position, radius: number, limit: number, allows?: (address: number) => boolean) {
    const { addressTree, addressLat, addressLon } = this.sections;
    const isFound = this.#hidden
      ? (address: number) => !this.isHidden(this.streetOf(address)) && (allows?.(address) ?? true)
      : allows;
    return nearestPoints({ ids: addressTree, lat: addressLat, lon: addressLon }, at, radius, limit, isFound);
  }

  /** The same of places, as things. The tree over them, who are few beside addresses, is made when first needed. */
  nearestPlaces(at: Position, radius: number, limit: number, allows: (place: number) => boolean) {
    const { firstPlace } = this;
    this.#placeTree ??= this.#growPlaceTree();
    return nearestPoints(this.#placeTree, at, radius, limit, (id) => allows(firstPlace + id)).map(({ id, metres }) => ({
      id: firstPlace + id,
      metres,
    }));
  }

  #growPlaceTree(): PointTree {
    const { firstPlace, firstHouse, sections } = this;
    const lat = sections.thingLat.subarray(firstPlace, firstHouse);
    const lon = sections.thingLon.subarray(firstPlace, firstHouse);
    return { ids: buildPointTree(lat, lon), lat, lon };
  }

  /** The areas that contain a position, broad to narrow: from each only those inside the one before. */
  areasAt({ lat, lon }: Position): number[] {
    const found: number[] = [];
    // the 180th meridian is an edge on both its sides: it belongs to the eastern one
    const at = { lat, lon: lon === 180 ? -180 : lon };
    if (this.meta.counts.areas > MANY_AREAS) return this.#areasOnGrid(at);
    for (let area = 0; area < this.meta.counts.areas; ) {
      if (this.#areaContains(area, at)) {
        if (!this.isHidden(area)) found.push(area);
        area++;
      } else area = this.sections.areaLast[area] + 1;
    }
    return found;
  }

  /** The same among very many areas, most of which lie elsewhere. */
  #areasOnGrid(at: Position): number[] {
    this.#areaGrid ??= new AreaGrid(this.sections.areaBox, this.meta.counts.areas, new Set(this.changedAreas));
    const { thingParent } = this.sections;
    const containing = new Set<number>();
    for (const area of this.#areaGrid.near(at)) {
      const parent = thingParent[area];
      if ((parent === NONE || containing.has(parent)) && this.#areaContains(area, at)) containing.add(area);
    }
    return [...containing].filter((area) => !this.isHidden(area));
  }

  /** Even-odd, on the packed points: no copies on the way of a reverse lookup. */
  #areaContains(area: number, at: Position): boolean {
    const changed = this.#changed?.get(area);
    if (changed) return ringsContain(changed.rings, at);
    const { areaBox, areaRing, ringPoint, pointLonLat: p } = this.sections;
    const lat = at.lat * SCALE;
    const lon = at.lon * SCALE;
    const i = area * 4;
    const [west, east] = [areaBox[i], areaBox[i + 2]];
    if (lat < areaBox[i + 1] || lat > areaBox[i + 3]) return false;
    if (west <= east ? lon < west || lon > east : lon < west && lon > east) return false;
    let inside = false;
    for (let ring = areaRing[area]; ring < areaRing[area + 1]; ring++) {
      const first = ringPoint[ring] * 2;
      const end = ringPoint[ring + 1] * 2;
      for (let a = first, b = end - 2; a < end; b = a, a += 2) {
        if (p[a + 1] > lat === p[b + 1] > lat) continue;
        if (lon < ((p[b] - p[a]) * (lat - p[a + 1])) / (p[b + 1] - p[a + 1]) + p[a]) inside = !inside;
      }
    }
    return inside;
  }

  /** Bytes of every section, for benchmarks. */
  sizes(): Record<SectionName, number> {
    return Object.fromEntries(
      Object.entries(this.sections).map(([name, section]) => [name, section.byteLength]),
    ) as Record<SectionName, number>;
  }
}

/** First place, in a sorted part of a list, of a value that is not below the wanted one. */
export function lowerBound(values: Uint32Array | Uint16Array, wanted: number, low = 0, high = values.length): number {
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (values[middle] < wanted) low = middle + 1;
    else high = middle;
  }
  return low;
}

function textOf(units: Uint16Array, from: number, to: number): string {
  let text = "";
  if (to - from <= 64) {
    for (let i = from; i < to; i++) text += String.fromCharCode(units[i]);
    return text;
  }
  for (let i = from; i < to; i += 8192) text += String.fromCharCode(...units.subarray(i, Math.min(i + 8192, to)));
  return text;
}
