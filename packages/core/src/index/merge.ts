import { type Position, sphereDistance } from "../geo/index.ts";
import { plainName } from "../text/index.ts";
import type {
  AddressInput,
  AreaInput,
  PlaceInput,
  PostcodeInput,
  RecordSink,
  StreetInput,
  ThingInput,
} from "./records.ts";

/** Metres up to which two of the same name are one: areas that may share a name with another, streets, places. */
const SAME_AREA = 15_000;
const SAME_STREET = 1000;
const SAME_PLACE = 200;

interface Known {
  source: number;
  identity: number;
  at: Position;
  area?: number;
}

/**
 * Merges several sources on their way into an index, the most trusted first: what a later one holds too is taken from
 * the earlier. Of each source areas come first (each after the one around it) and addresses after streets, and all areas, postcodes and
 * streets of all sources before the first address: only then is it known which streets hold doubles.
 */
export class Merger implements RecordSink {
  /** Identities that another one represents. */
  readonly replaced = new Map<number, number>();
  /** Addresses that were left out, since an earlier source holds them. */
  doubles = 0;
  #source = 0;
  readonly #areas = new Map<string, Known[]>();
  readonly #postcodes = new Map<string, number>();
  readonly #countryOf = new Map<number, string>();
  readonly #streets = new Map<string, Known[]>();
  /** Streets that several sources hold, with the addresses met so far. */
  readonly #shared = new Map<number, Map<string, number>>();
  readonly #places = new Map<string, Known[]>();

  constructor(private readonly sink: RecordSink) {}

  /** From here on records come from the source with this place in the order of trust, 0 first. */
  from(source: number): void {
    this.#source = source;
  }

  addArea(area: AreaInput): void {
    const parent = area.parent === null ? null : this.#of(area.parent);
    const country = parent === null ? (area.code ?? "") : (this.#countryOf.get(parent) ?? "");
    this.#countryOf.set(area.identity, country);
    const space = `${area.kind} ${country}`;
    if (area.kind === "country") {
      const [existing] = this.#areas.get(space) ?? [];
      if (existing) {
        this.#replace(area.identity, existing.identity);
        return;
      }
      this.#areas.set(space, [{ source: this.#source, identity: area.identity, at: area.at }]);
    } else {
      const isWide = area.kind === "region" || area.kind === "county";
      const known = this.#same(this.#areas, space, area, isWide ? Number.POSITIVE_INFINITY : SAME_AREA);
      if (known) {
        this.#replace(area.identity, known.identity);
        return;
      }
      this.#remember(this.#areas, space, area);
    }
    this.sink.addArea({ ...area, parent });
  }

  addPostcode(postcode: PostcodeInput): void {
    const area = this.#of(postcode.area);
    const key = `${this.#countryOf.get(area) ?? ""} ${postcode.code.replace(/\s/g, "").toUpperCase()}`;
    const existing = this.#source > 0 ? this.#postcodes.get(key) : undefined;
    if (existing !== undefined) {
      this.#replace(postcode.identity, existing);
      return;
    }
    if (!this.#postcodes.has(key)) this.#postcodes.set(key, postcode.identity);
    this.sink.addPostcode({ ...postcode, area });
  }

  addStreet(street: StreetInput): void {
    const area = this.#of(street.area);
    const country = this.#countryOf.get(area) ?? "";
    const existing = this.#same(this.#streets, country, street, SAME_STREET, area);
    if (existing) {
      this.#replace(street.identity, existing.identity);
      if (!this.#shared.has(existing.identity)) this.#shared.set(existing.identity, new Map());
      return;
    }
    this.#remember(this.#streets, country, street, area);
    this.sink.addStreet({ ...street, area });
  }

  addAddress(address: AddressInput): void {
    const street = this.#of(address.street);
    const postcode = address.postcode === null ? null : this.#of(address.postcode);
    const shared = this.#shared.get(street);
    if (shared) {
      const { number, suffix, unit = "", name = "" } = address;
      const key = `${number} ${suffix} ${unit} ${number === null ? name : ""}`.toLowerCase();
      const existing = shared.get(key);
      if (existing !== undefined && this.#source > 0) {
        this.#replace(address.identity, existing);
        this.doubles++;
        return;
      }
      shared.set(key, address.identity);
    }
    this.sink.addAddress({ ...address, street, postcode });
  }

  addPlace(place: PlaceInput): void {
    const area = this.#of(place.area);
    const country = this.#countryOf.get(area) ?? "";
    const existing = this.#same(this.#places, country, place, SAME_PLACE);
    if (existing) {
      this.#replace(place.identity, existing.identity);
      return;
    }
    this.#remember(this.#places, country, place);
    this.sink.addPlace({ ...place, area, address: place.address === null ? null : this.#of(place.address) });
  }

  #of(identity: number): number {
    return this.replaced.get(identity) ?? identity;
  }

  #replace(identity: number, by: number): void {
    // a later version of the same source has the same identities
    if (identity !== by) this.replaced.set(identity, by);
  }

  /** What an earlier source holds under one of these names, the nearest of them. */
  #same(
    known: ReadonlyMap<string, Known[]>,
    space: string,
    { names, at }: ThingInput,
    most: number,
    area?: number,
  ): Known | undefined {
    if (this.#source === 0) return undefined;
    let best: Known | undefined;
    let least = most;
    for (const { name } of names)
      for (const one of known.get(`${space} ${plainName(name)}`) ?? []) {
        if (one.source === this.#source) continue;
        const metres = area !== undefined && one.area === area ? 0 : sphereDistance(at, one.at);
        if (metres > least) continue;
        [best, least] = [one, metres];
      }
    return best;
  }

  #remember(known: Map<string, Known[]>, space: string, { identity, names, at }: ThingInput, area?: number): void {
    const one = { source: this.#source, identity, at, area };
    for (const { name } of names) {
      const key = `${space} ${plainName(name)}`;
      const list = known.get(key);
      if (list) list.push(one);
      else known.set(key, [one]);
    }
  }
}
