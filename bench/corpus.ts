import { type RecordSink, Segment, SegmentBuilder } from "@bibliotope/core/index";
import type { Name } from "@bibliotope/core/place";
import { generateIslands, pourWorld, Random, streamIslands } from "@bibliotope/islands";

/** An address of the corpus, as its records name it: what queries are made from. */
export interface Sample {
  country: "QR" | "QV" | "QY";
  number: string;
  street: Name[];
  town: Name[];
  postcode?: string;
  at: { lat: number; lon: number };
  /** Identities of the address and its street. */
  identity: number;
  streetIdentity: number;
}

export interface Corpus {
  name: string;
  segment: Segment;
  samples: Sample[];
  addresses: number;
  /** Milliseconds of putting the records in order and packing them; making them up is not counted. */
  builtIn: number;
  bytes: number;
  /** The most memory that the process held while it built. */
  buildPeak: number;
}

export const SIZES = { demo: 0, "1m": 1_000_000, "10m": 10_000_000 } as const;
export type SizeName = keyof typeof SIZES;

/** The islands at a size: the demo world, or the streamed one. @param wanted how many addresses are sampled */
export function makeCorpus(size: SizeName, wanted: number): Corpus {
  const builder = new SegmentBuilder();
  const sampler = new Sampler(builder, wanted);
  if (size === "demo") pourWorld(generateIslands(), sampler);
  else streamIslands(SIZES[size], sampler);
  const began = performance.now();
  const buffer = builder.finish({ name: size, sources: [] });
  const builtIn = performance.now() - began + sampler.addedIn;
  const buildPeak = process.resourceUsage().maxRSS * 1024;
  const segment = new Segment(buffer);
  const { addresses } = segment.meta.counts;
  const name = `the islands, ${addresses.toLocaleString("en")} addresses`;
  return { name, segment, samples: sampler.take(), addresses, builtIn, bytes: buffer.byteLength, buildPeak };
}

/** Hands records on to a builder and keeps a sample of the addresses, all equally likely (algorithm R). */
class Sampler implements RecordSink {
  readonly #areas = new Map<number, { kind: string; parent: number | null; names: Name[]; code?: string }>();
  readonly #postcodes = new Map<number, string>();
  readonly #streets = new Map<number, { area: number; names: Name[] }>();
  readonly #random = new Random(4711);
  readonly #samples: Sample[] = [];
  #seen = 0;
  /** Milliseconds that the builder took to take addresses in, worked out from every hundredth. */
  addedIn = 0;

  constructor(
    private readonly builder: SegmentBuilder,
    private readonly wanted: number,
  ) {}

  addArea(area: Parameters<RecordSink["addArea"]>[0]): void {
    this.#areas.set(area.identity, area);
    this.builder.addArea(area);
  }

  addPostcode(postcode: Parameters<RecordSink["addPostcode"]>[0]): void {
    this.#postcodes.set(postcode.identity, postcode.code);
    this.builder.addPostcode(postcode);
  }

  addStreet(street: Parameters<RecordSink["addStreet"]>[0]): void {
    this.#streets.set(street.identity, { area: street.area, names: street.names });
    this.builder.addStreet(street);
  }

  addPlace(place: Parameters<RecordSink["addPlace"]>[0]): void {
    this.builder.addPlace(place);
  }

  addAddress(address: Parameters<RecordSink["addAddress"]>[0]): void {
    const isTimed = this.#seen % 100 === 0;
    const began = isTimed ? performance.now() : 0;
    this.builder.addAddress(address);
    if (isTimed) this.addedIn += (performance.now() - began) * 100;
    this.#seen++;
    if (address.number === null || address.unit !== undefined) return;
    const place = this.#samples.length < this.wanted ? this.#samples.length : this.#random.integer(0, this.#seen - 1);
    if (place >= this.wanted) return;
    const street = this.#streets.get(address.street)!;
    let area = this.#areas.get(street.area)!;
    let town = area;
    for (; area.parent !== null; area = this.#areas.get(area.parent)!) if (area.kind === "town") town = area;
    this.#samples[place] = {
      country: area.code as Sample["country"],
      number: `${address.number}${address.suffix}`,
      street: street.names,
      town: town.names,
      postcode: address.postcode === null ? undefined : this.#postcodes.get(address.postcode),
      at: address.at,
      identity: address.identity,
      streetIdentity: address.street,
    };
  }

  take(): Sample[] {
    return this.#samples;
  }
}
