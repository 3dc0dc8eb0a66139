import type { Position } from "@bibliotope/core/geo";
import { parseRef } from "@bibliotope/core/place";
import type {
  AnswerRecord,
  Engine,
  ForwardAnswer,
  ForwardQuery,
  PostcodesAnswer,
  PostcodesQuery,
  ReverseAnswer,
  ReverseQuery,
  Shown,
  SuggestAnswer,
  SuggestQuery,
} from "@bibliotope/core/search";
import { advise } from "@bibliotope/core/search";
import { type IndexedCountry, indexedCountries } from "../gazetteer/indexed-countries.ts";
import type { StoredKey } from "../keys/keys.repository.ts";
import { HttpProblem } from "./problem.ts";

/**
 * The engine as one key may see it: countries that a key is not for are not there, whichever way they are requested.
 * All that the wire answers comes by it.
 */
export class SeenEngine {
  constructor(
    /** All of it, for what is no record. */
    private readonly engine: Engine,
    private readonly key: Pick<StoredKey, "name" | "countries">,
  ) {}

  /** What it was built from. */
  get sources() {
    return this.engine.segment.meta.sources;
  }

  get segment() {
    return this.engine.segment;
  }

  suggest(query: SuggestQuery): SuggestAnswer {
    return this.engine.suggest(this.#narrowed(query));
  }

  forward(query: ForwardQuery): ForwardAnswer {
    return this.engine.forward(this.#narrowed(query));
  }

  reverse(query: ReverseQuery): ReverseAnswer {
    return this.engine.reverse(this.#narrowed(query));
  }

  /** @throws HttpProblem when the country is none of the key's */
  postcodes(query: PostcodesQuery): PostcodesAnswer {
    this.check(query.country.toUpperCase());
    return this.engine.postcodes(query);
  }

  /** @throws HttpProblem when it lies in a country that is none of the key's */
  record(ref: string, shown?: Shown): AnswerRecord | undefined {
    const found = this.engine.record(ref, shown);
    if (found) this.check(found.parts.country?.code);
    return found;
  }

  /** Whether what has this identity is stored. */
  holds(identity: number): boolean {
    return this.engine.layers.some(({ segment }) => segment.find(identity) !== undefined);
  }

  /** The countries with data. */
  countries(): IndexedCountry[] {
    return indexedCountries(this.engine).filter(({ code }) => this.#allows(code));
  }

  /** A word about requested countries of which no data is stored, in the reader's language. */
  notHeld(codes: readonly string[] | undefined, langs: readonly string[]): string[] {
    const existing = indexedCountries(this.engine).map(({ code }) => code);
    const missing = (codes ?? this.key.countries).filter((code) => !existing.includes(code));
    const values = { missing: missing.join(", "), existing: existing.join(", ") };
    return missing.length ? [advise(langs, "There is no data for {missing}, only for {existing}.", values)] : [];
  }

  /** Whether a position lies in a country that the key may see. */
  allowsAt(at: Position): boolean {
    if (!this.key.countries.length) return true;
    return this.reverse({ at, radius: 1, kinds: ["country"], limit: 1 }).candidates.length > 0;
  }

  /** Whether a ref is of a country that the key may see; what has none belongs to nobody. */
  allowsRef(ref: string | undefined): boolean {
    const country = ref === undefined ? undefined : parseRef(ref)?.country;
    return country === undefined || this.#allows(country);
  }

  /** True where the key may see everything. */
  get isWhole(): boolean {
    return this.key.countries.length === 0;
  }

  /** @throws HttpProblem when the key may not see a country */
  check(country: string | undefined): void {
    if (this.isWhole || (country !== undefined && this.#allows(country))) return;
    const { name, countries } = this.key;
    throw new HttpProblem(
      "not-allowed",
      `The key “${name}” allows only ${countries.join(", ")}. Add ${country ?? "more"} in the workbench, or use another key.`,
    );
  }

  #allows(country: string): boolean {
    return this.isWhole || this.key.countries.includes(country);
  }

  /** Narrowed to the requested countries, else to those of the key. @throws HttpProblem for one that is none of them */
  #narrowed<Q extends { countries?: readonly string[] }>(query: Q): Q {
    const { countries: codes } = query;
    if (codes?.length) for (const country of codes) this.check(country);
    const countries = codes?.length ? codes : this.isWhole ? undefined : this.key.countries;
    return { ...query, countries };
  }
}
