import type { Box, Position, Ring } from "../geo/index.ts";
import { type Facts, KINDS, type Kind, type Name, parseRef, refOf } from "../place/index.ts";
import { openSections } from "./container.ts";
import { nearestPoints } from "./kd-tree.ts";
import { NONE, SCALE, type SectionName, type Sections, type SegmentMeta } from "./layout.ts";

/**
 * An opened segment: typed arrays over one buffer, and the few questions that all searches ask of it. Things and
 * addresses are whole numbers (see layout.ts). Nothing is copied; several threads may open the same shared buffer.
 */
export class Segment {
  readonly sections: Sections;
  readonly meta: SegmentMeta;
  readonly firstPostcode: number;
  readonly firstStreet: number;
  readonly firstPlace: number;

  /** @throws SegmentError when the buffer is no whole segment of this format */
  constructor(buffer: ArrayBufferLike) {
    this.sections = openSections(buffer);
    this.meta = JSON.parse(textOf(this.sections.meta, 0, this.sections.meta.length));
    const { areas, postcodes, streets } = this.meta.counts;
    this.firstPostcode = areas;
    this.firstStreet = areas + postcodes;
    this.firstPlace = areas + postcodes + streets;
  }

  string(number: number): string {
    const { stringOffset, stringUnits } = this.sections;
    return textOf(stringUnits, stringOffset[number], stringOffset[number + 1]);
  }

  kindOf(thing: number): Kind {
    return KINDS[this.sections.thingKind[thing]];
  }

  isArea(thing: number): boolean {
    return thing < this.firstPostcode;
  }

  isStreet(thing: number): boolean {
    return thing >= this.firstStreet && thing < this.firstPlace;
  }

  /** Its names, the local one first. */
  namesOf(thing: number): Name[] {
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

  /** ISO 3166 code of the country a thing lies in. */
  countryCode(thing: number): string {
    return this.areaCode(this.sections.thingCountry[thing]) ?? "ZZ";
  }

  areaCode(area: number): string | undefined {
    const code = this.sections.areaCode[area];
    return code === NONE ? undefined : this.string(code);
  }

  /** West, south, east, north in degrees. */
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
    const { streetAddress } = this.sections;
    let low = 0;
    let high = streetAddress.length - 2;
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if (streetAddress[middle] <= address) low = middle;
      else high = middle - 1;
    }
    return this.firstStreet + low;
  }

  /** First address of a street with that number or a higher one. */
  seekNumber(street: number, number: number): number {
    let [low, high] = this.addressesOf(street);
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (this.sections.addressNumber[middle] < number) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Facts of a place, and the address it stands at or NONE. */
  placeOf(thing: number): { facts: Facts; address: number } {
    const place = thing - this.firstPlace;
    return {
      facts: JSON.parse(this.string(this.sections.placeFacts[place])),
      address: this.sections.placeAddress[place],
    };
  }

  thingRef(thing: number): string {
    return refOf(this.countryCode(thing), this.sections.thingIdentity[thing]);
  }

  addressRef(address: number): string {
    return refOf(this.countryCode(this.streetOf(address)), this.sections.addressIdentity[address]);
  }

  /** What a ref stands for: a thing, or an address; undefined when nothing here has it. */
  resolve(ref: string): { thing: number; address?: number } | undefined {
    const parsed = parseRef(ref);
    if (!parsed) return undefined;
    const { identity, identityTarget } = this.sections;
    let low = 0;
    let high = identity.length - 1;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (identity[middle] < parsed.identity) low = middle + 1;
      else high = middle;
    }
    if (identity[low] !== parsed.identity) return undefined;
    const address = identityTarget[low] - this.meta.counts.things;
    const thing = address < 0 ? identityTarget[low] : this.streetOf(address);
    if (this.countryCode(thing) !== parsed.country) return undefined;
    return address < 0 ? { thing } : { thing, address };
  }

  /** Addresses nearest to a position, nearest first, with spherical distances in metres. */
  nearestAddresses(at: Position, radius: number, limit: number) {
    const { addressTree, addressLat, addressLon } = this.sections;
    return nearestPoints({ ids: addressTree, lat: addressLat, lon: addressLon }, at, radius, limit);
  }

  /** The areas that contain a position, broad to narrow: from each only those inside the one before. */
  areasAt(at: Position): number[] {
    const found: number[] = [];
    for (let area = 0; area < this.meta.counts.areas; ) {
      if (this.#areaContains(area, at)) {
        found.push(area);
        area++;
      } else area = this.sections.areaLast[area] + 1;
    }
    return found;
  }

  /** Even-odd, on the packed points: no copies on the way of a reverse lookup. */
  #areaContains(area: number, at: Position): boolean {
    const { areaBox, areaRing, ringPoint, pointLonLat: p } = this.sections;
    const lat = at.lat * SCALE;
    const lon = at.lon * SCALE;
    const i = area * 4;
    if (lon < areaBox[i] || lat < areaBox[i + 1] || lon > areaBox[i + 2] || lat > areaBox[i + 3]) return false;
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

function textOf(units: Uint16Array, from: number, to: number): string {
  let text = "";
  if (to - from <= 64) {
    for (let i = from; i < to; i++) text += String.fromCharCode(units[i]);
    return text;
  }
  for (let i = from; i < to; i += 8192) text += String.fromCharCode(...units.subarray(i, Math.min(i + 8192, to)));
  return text;
}
