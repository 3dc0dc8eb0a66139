import { SegmentBuilder } from "./builder.ts";
import { NONE } from "./layout.ts";
import { addressInputs, areaInput, placeInput, postcodeInput, streetInput } from "./read-back.ts";
import type { AddressInput, AreaInput, PlaceInput, PostcodeInput, RecordSink, StreetInput } from "./records.ts";
import { type ChangedArea, lowerBound, Segment } from "./segment.ts";

/** A change that an overlay cannot represent; the message has the reason. */
export class OverlayError extends Error {}

interface ChangedStreet {
  street: StreetInput;
  addresses: Map<number, AddressInput>;
}

/** Two segments that answer together: what still holds of the first, and what was changed. */
export interface Overlaid {
  base: Segment;
  changes: Segment;
}

/**
 * Changes on top of a segment: records added, corrected and removed since it was built, found at once without building
 * it anew. A record with an identity that is stored already is a correction of it.
 *
 * The unit of change is the street: one address changed, and all of its street is answered from the overlay, so that
 * numbers, ranges and flats keep their neighbours. The cost of `finish` is that of building the changed streets, so an
 * overlay is for some thousands of changes; more than that, build a segment.
 */
export class Overlay implements RecordSink {
  readonly #areas = new Map<number, AreaInput | null>();
  readonly #postcodes = new Map<number, PostcodeInput | null>();
  readonly #streets = new Map<number, ChangedStreet | null>();
  readonly #places = new Map<number, PlaceInput | null>();
  /** Street of each address that is known here; null for one that was removed. */
  readonly #streetOf = new Map<number, number | null>();

  constructor(private readonly base: Segment) {}

  /** How many streets, places, postcodes and areas answer from here. */
  get size(): number {
    return this.#areas.size + this.#postcodes.size + this.#streets.size + this.#places.size;
  }

  /** @throws OverlayError when an area that is stored would move, or change its kind */
  addArea(area: AreaInput): void {
    const existing = this.#base(area.identity);
    if (existing !== undefined && this.base.isArea(existing)) {
      const before = areaInput(this.base, existing);
      if (before.kind !== area.kind || before.parent !== area.parent)
        throw new OverlayError("An area that moves to another, or becomes another kind, takes all within along.");
      if (before.kind === "country" && before.code !== area.code)
        throw new OverlayError("The code of a country stands in the refs of all within.");
    } else if (existing !== undefined) throw new OverlayError(`${area.identity} is no area.`);
    if (area.parent !== null) this.#mustHaveArea(area.parent);
    this.#areas.set(area.identity, area);
  }

  addPostcode(postcode: PostcodeInput): void {
    this.#mustHaveArea(postcode.area);
    this.#openStreetsOf(postcode.identity);
    this.#postcodes.set(postcode.identity, postcode);
  }

  addStreet(street: StreetInput): void {
    this.#mustHaveArea(street.area);
    const existing = this.#open(street.identity);
    if (existing) existing.street = street;
    else this.#streets.set(street.identity, { street, addresses: new Map() });
  }

  addAddress(address: AddressInput): void {
    const street = this.#open(address.street);
    if (!street)
      throw new OverlayError(`Address ${address.identity} names street ${address.street}, which does not exist.`);
    if (address.postcode !== null) this.#mustHavePostcode(address.postcode);
    const before = this.#streetOfAddress(address.identity);
    if (before !== undefined && before !== address.street) this.#open(before)?.addresses.delete(address.identity);
    street.addresses.set(address.identity, address);
    this.#streetOf.set(address.identity, address.street);
  }

  addPlace(place: PlaceInput): void {
    this.#mustHaveArea(place.area);
    if (place.address !== null) {
      const street = this.#streetOfAddress(place.address);
      if (street === undefined)
        throw new OverlayError(`Place ${place.identity} names address ${place.address}, which does not exist.`);
      this.#open(street);
    }
    this.#places.set(place.identity, place);
  }

  /**
   * Takes a record away, with what cannot be without it: a street with the addresses.
   * @returns false when nothing has this identity
   * @throws OverlayError for an area that something lies in
   */
  remove(identity: number): boolean {
    const street = this.#streetOfAddress(identity);
    if (street !== undefined) {
      this.#open(street)!.addresses.delete(identity);
      this.#forgetAddress(identity);
      return true;
    }
    const kept = [this.#areas, this.#postcodes, this.#streets, this.#places].find((list) => list.has(identity));
    const existing = this.#base(identity);
    if (kept ? kept.get(identity) === null : existing === undefined) return false;
    const isOf = (list: ReadonlyMap<number, unknown>, isKind: (thing: number) => boolean) =>
      kept ? kept === list : isKind(existing!);
    if (isOf(this.#areas, (thing) => this.base.isArea(thing))) this.#removeArea(identity);
    else if (isOf(this.#postcodes, (thing) => this.base.isPostcode(thing))) {
      this.#openStreetsOf(identity);
      for (const entry of this.#streets.values())
        for (const address of entry?.addresses.values() ?? [])
          if (address.postcode === identity) entry!.addresses.set(address.identity, { ...address, postcode: null });
      this.#postcodes.set(identity, null);
    } else if (isOf(this.#streets, (thing) => this.base.isStreet(thing))) {
      for (const address of this.#open(identity)!.addresses.keys()) this.#forgetAddress(address);
      this.#streets.set(identity, null);
    } else this.#places.set(identity, null);
    return true;
  }

  /** Builds what the changes come to. The overlay may go on being changed, and be finished again. */
  finish(): Overlaid {
    const builder = new SegmentBuilder();
    const around = new Context(this.base, this.#areas, this.#postcodes, builder);
    for (const area of this.#areas.values()) if (area) around.area(area.identity);
    for (const postcode of this.#postcodes.values()) if (postcode) around.postcode(postcode.identity);
    for (const entry of this.#streets.values()) {
      if (!entry) continue;
      around.area(entry.street.area);
      builder.addStreet(entry.street);
      for (const address of entry.addresses.values()) {
        if (address.postcode !== null) around.postcode(address.postcode);
        builder.addAddress(address);
      }
    }
    for (const place of this.#places.values()) {
      if (!place) continue;
      around.area(place.area);
      builder.addPlace(place);
    }
    const changes = new Segment(builder.finish({ name: `${this.base.meta.name}+`, sources: this.base.meta.sources }));
    const unchanged = around.identities.filter((id) => !this.#areas.has(id) && !this.#postcodes.has(id));
    const numbersIn = (segment: Segment, identities: Iterable<number>) =>
      [...identities].map((identity) => segment.find(identity)?.thing).filter((thing) => thing !== undefined);
    return {
      changes: new Segment(changes, { hidden: new Set(numbersIn(changes, unchanged)) }),
      base: new Segment(this.base, { hidden: this.#hidden(), areas: this.#changedAreas() }),
    };
  }

  /** Things of the base that are not to be found in it any more. */
  #hidden(): Set<number> {
    const hidden = new Set<number>();
    const { houseAddress } = this.base.sections;
    for (const list of [this.#areas, this.#postcodes, this.#streets, this.#places]) {
      for (const identity of list.keys()) {
        const thing = this.#base(identity);
        if (thing === undefined) continue;
        hidden.add(thing);
        if (!this.base.isStreet(thing)) continue;
        const [from, to] = this.base.addressesOf(thing);
        for (let i = lowerBound(houseAddress, from); houseAddress[i] < to; i++) hidden.add(this.base.firstHouse + i);
      }
    }
    return hidden;
  }

  #changedAreas(): Map<number, ChangedArea> {
    const changed = new Map<number, ChangedArea>();
    for (const area of this.#areas.values()) {
      const thing = area ? this.#base(area.identity) : undefined;
      if (area && thing !== undefined) changed.set(thing, area);
    }
    return changed;
  }

  /** Number of a thing of the base by identity; undefined for an address too. */
  #base(identity: number): number | undefined {
    const found = this.base.find(identity);
    return found && found.address === undefined ? found.thing : undefined;
  }

  #streetOfAddress(address: number): number | undefined {
    const here = this.#streetOf.get(address);
    if (here !== undefined) return here ?? undefined;
    const found = this.base.find(address);
    return found?.address === undefined ? undefined : this.base.sections.thingIdentity[found.thing];
  }

  /** A street with the addresses, taken over from the base the first time; undefined where there is none. */
  #open(identity: number): ChangedStreet | undefined {
    const here = this.#streets.get(identity);
    if (here !== undefined) return here ?? undefined;
    const street = this.#base(identity);
    if (street === undefined || !this.base.isStreet(street)) return undefined;
    const addresses = new Map(addressInputs(this.base, street).map((address) => [address.identity, address]));
    const entry = { street: streetInput(this.base, street), addresses };
    this.#streets.set(identity, entry);
    for (const address of addresses.keys()) this.#streetOf.set(address, identity);
    this.#openPlacesOf(street);
    return entry;
  }

  /** Places at the addresses of a street: their address is found where the street is. */
  #openPlacesOf(street: number): void {
    const { placeAddress } = this.base.sections;
    const [from, to] = this.base.addressesOf(street);
    placeAddress.forEach((address, i) => {
      if (address === NONE || address < from || address >= to) return;
      const place = placeInput(this.base, this.base.firstPlace + i);
      if (!this.#places.has(place.identity)) this.#places.set(place.identity, place);
    });
  }

  /** All streets of the base that have a postcode. */
  #openStreetsOf(postcode: number): void {
    const thing = this.#base(postcode);
    if (thing === undefined || !this.base.isPostcode(thing)) return;
    const { postcodeStreet, streetOfPostcode, thingIdentity } = this.base.sections;
    const place = thing - this.base.firstPostcode;
    for (let i = postcodeStreet[place]; i < postcodeStreet[place + 1]; i++)
      this.#open(thingIdentity[streetOfPostcode[i]]);
  }

  #forgetAddress(address: number): void {
    this.#streetOf.set(address, null);
    for (const place of this.#places.values())
      if (place?.address === address) this.#places.set(place.identity, { ...place, address: null });
  }

  #removeArea(identity: number): void {
    const existing = this.#base(identity);
    const isWithin = (area: number | null | undefined) => area === identity;
    const changed = [this.#postcodes, this.#places].flatMap((list) => [...list.values()]);
    const isUsed =
      changed.some((record) => isWithin(record?.area)) ||
      [...this.#streets.values()].some((entry) => isWithin(entry?.street.area)) ||
      [...this.#areas.values()].some((area) => isWithin(area?.parent));
    if (isUsed || (existing !== undefined && this.#isUsedInBase(existing)))
      throw new OverlayError("Something lies in this area: remove or move that first.");
    this.#areas.set(identity, null);
  }

  /** True when something that did not change lies in an area of the base. */
  #isUsedInBase(area: number): boolean {
    const { thingParent, thingIdentity } = this.base.sections;
    const lists = [this.#areas, this.#postcodes, this.#streets, this.#places];
    for (let thing = 0; thing < this.base.firstHouse; thing++) {
      if (thingParent[thing] !== area) continue;
      if (!lists.some((list) => list.has(thingIdentity[thing]))) return true;
    }
    return false;
  }

  #mustHaveArea(identity: number): void {
    const thing = this.#base(identity);
    const isHeld =
      this.#areas.get(identity) ?? (!this.#areas.has(identity) && thing !== undefined && this.base.isArea(thing));
    if (!isHeld) throw new OverlayError(`A record names area ${identity}, which does not exist.`);
  }

  #mustHavePostcode(identity: number): void {
    const thing = this.#base(identity);
    const isHeld =
      this.#postcodes.get(identity) ??
      (!this.#postcodes.has(identity) && thing !== undefined && this.base.isPostcode(thing));
    if (!isHeld) throw new OverlayError(`A record names postcode ${identity}, which does not exist.`);
  }
}

/** Puts what lies around the changed records into the segment of the changes, each area and postcode once. */
class Context {
  readonly #done = new Set<number>();

  constructor(
    private readonly base: Segment,
    private readonly areas: ReadonlyMap<number, AreaInput | null>,
    private readonly postcodes: ReadonlyMap<number, PostcodeInput | null>,
    private readonly sink: RecordSink,
  ) {}

  get identities(): number[] {
    return [...this.#done];
  }

  area(identity: number): void {
    if (this.#done.has(identity)) return;
    this.#done.add(identity);
    const area = this.areas.get(identity) ?? areaInput(this.base, this.base.find(identity)!.thing);
    if (area.parent !== null) this.area(area.parent);
    this.sink.addArea(area);
  }

  postcode(identity: number): void {
    if (this.#done.has(identity)) return;
    this.#done.add(identity);
    const postcode = this.postcodes.get(identity) ?? postcodeInput(this.base, this.base.find(identity)!.thing);
    this.area(postcode.area);
    this.sink.addPostcode(postcode);
  }
}
