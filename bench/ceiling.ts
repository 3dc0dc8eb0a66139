import type { Segment } from "@bibliotope/core/index";
import { lineOf, numberOf, type StreetLine, streetLines } from "./lines.ts";
import type { Query, QueryClass } from "./queries.ts";

/** What a text cut short may still mean at most: the line it stops in. */
export type Reach = "town" | "street" | "address";

interface Rival {
  importance: number;
  isRight: boolean;
}

/**
 * What a matcher could reach that knows the errors of a class exactly: for each query the chance that the right line
 * comes first when of all lines the closest in edits come first, equally close ones by importance, equal ones by lot.
 * Found by going through all lines; nothing here is shared with the engine.
 */
export class Ceilings {
  readonly #streets: StreetLine[];
  /** What a street's line begins with, apart from a number, and its letters as bits. */
  readonly #begins: string[];
  readonly #letters: Int32Array;
  /** Areas and places: found by their beginning. */
  readonly #others: { name: string; importance: number; isTown: boolean }[] = [];

  constructor(private readonly segment: Segment) {
    this.#streets = streetLines(segment);
    this.#begins = this.#streets.map((street) => lower(beginOf(street)));
    this.#letters = Int32Array.from(this.#streets, (street) => lettersIn(lower(lineOf(street, ""))));
    for (let thing = 0; thing < segment.firstHouse; thing++) {
      if (segment.isPostcode(thing) || segment.isStreet(thing)) continue;
      const importance = segment.sections.thingImportance[thing] / 65_535;
      for (const { name } of segment.namesOf(thing))
        this.#others.push({ name: lower(name), importance, isTown: segment.kindOf(thing) === "town" });
    }
  }

  /** One chance, 0 to 1, for each query of a class. */
  of({ queries, form, normal, edits, name }: QueryClass): number[] {
    if (name === "cut after some letters") return queries.map((query) => this.#ofCut(query));
    if (edits > 0) return queries.map((query) => this.#ofMisspelt(query, form));
    return this.#ofExact(queries, (parts) => {
      const text = form(parts, "");
      return text === undefined ? undefined : lower(normal(text));
    });
  }

  /** Texts that were changed in a way that can be undone: lines of the same form are all there is to choose from. */
  #ofExact(queries: readonly Query[], keyOf: (parts: StreetLine | Query["sample"]) => string | undefined): number[] {
    const wanted = new Map(queries.map(({ sample }) => [keyOf(sample), [] as StreetLine[]]));
    for (const street of this.#streets) {
      const key = keyOf(street);
      if (key !== undefined) wanted.get(key)?.push(street);
    }
    return queries.map(({ sample, isStreet }) => {
      const rivals = wanted.get(keyOf(sample))!.filter((street) => isStreet || this.#has(street, sample.number));
      return chance(rivals.map((street) => ({ importance: street.importance, isRight: isSame(street, sample) })));
    });
  }

  #has({ addresses: [from, to] }: StreetLine, number: string): boolean {
    for (let address = from; address < to; address++) if (numberOf(this.segment, address) === number) return true;
    return false;
  }

  /** The closest of all lines that are no farther from the text than the right one. */
  #ofMisspelt({ q, sample }: Query, form: QueryClass["form"]): number {
    const typed = lower(q);
    const bare = bareOf(typed);
    const letters = lettersIn(bare);
    let least = distance(typed, lower(form(sample, sample.number, sample.postcode)!), typed.length);
    let rivals: Rival[] = [];
    this.#streets.forEach((street, i) => {
      if (bits(letters & ~this.#letters[i]) > least || bits(this.#letters[i] & ~letters) > least) return;
      const [from, to] = street.addresses;
      const withoutNumber = from < to ? form(street, "", this.#postcodeOf(from)) : undefined;
      if (withoutNumber === undefined) return;
      // leaving the same out of both brings them no farther apart
      if (distance(bare, bareOf(lower(withoutNumber)), least) > least) return;
      for (let address = from; address < to; address++) {
        const number = numberOf(this.segment, address);
        const text = form(street, number, this.#postcodeOf(address));
        const edits = text === undefined ? Number.POSITIVE_INFINITY : distance(typed, lower(text), least);
        if (edits > least) continue;
        if (edits < least) rivals = [];
        least = edits;
        rivals.push({ importance: street.importance, isRight: isSame(street, sample) && number === sample.number });
      }
    });
    return chance(rivals);
  }

  #postcodeOf(address: number): string | undefined {
    const postcode = this.segment.postcodeOf(this.segment.streetOf(address), address);
    return postcode < this.segment.meta.counts.things ? this.segment.namesOf(postcode)[0].name : undefined;
  }

  /** All lines that begin with the text: towns and places, streets, and houses once the text reaches a number. */
  #ofCut({ q, sample }: Query): number {
    const reach = reachOf(q, sample);
    const rivals: Rival[] = [];
    for (const place of this.#lines(lower(q)))
      rivals.push({ importance: place.importance, isRight: isMeant(place, sample, reach) });
    return chance(rivals);
  }

  /** Every line that begins with a text. @param isDeep also houses whose street's line begins with it already */
  *#lines(typed: string, isDeep = false): Iterable<CutLine> {
    const number = /^(\d+\p{L}?)(?: (.*))?$/u.exec(typed);
    for (const { name, importance, isTown } of this.#others)
      if (name.startsWith(typed)) yield { importance, town: isTown ? name : undefined };
    for (let i = 0; i < this.#streets.length; i++) {
      const street = this.#streets[i];
      const begin = this.#begins[i];
      if (begin.startsWith(typed)) yield { importance: street.importance, street };
      const isNumberFirst = street.country === "QR";
      const reachesNumber = typed.startsWith(begin) || (isDeep && begin.startsWith(typed));
      if (isNumberFirst ? !number || !begin.startsWith(number[2] ?? "") : !reachesNumber) continue;
      for (let address = street.addresses[0]; address < street.addresses[1]; address++) {
        const its = numberOf(this.segment, address);
        if (lower(lineOf(street, its)).startsWith(typed)) yield { importance: street.importance, street, number: its };
      }
    }
  }

  /**
   * How many letters of a line a matcher needs that knows nothing but beginnings, until the line is among the first
   * five by importance; equally important ones in the order of their numbers.
   */
  lettersToFive(sample: Query["sample"]): number {
    const line = lineOf(sample, sample.number);
    const own = this.#streets.find((street) => isSame(street, sample) && this.#has(street, sample.number))!;
    for (let length = 1; length < line.length; length++) {
      let before = 0;
      let isPast = false;
      for (const rival of this.#lines(lower(line.slice(0, length)), true)) {
        isPast ||= rival.street === own && rival.number === sample.number;
        if (rival.importance > own.importance || (rival.importance === own.importance && !isPast)) before++;
        if (before >= 5) break;
      }
      if (before < 5) return length;
    }
    return line.length;
  }
}

interface CutLine {
  importance: number;
  town?: string;
  street?: StreetLine;
  number?: string;
}

function isMeant({ town, street, number }: CutLine, sample: Query["sample"], reach: Reach): boolean {
  if (reach === "town") return town === lower(sample.town[0].name);
  if (!street || !isSame(street, sample)) return false;
  return reach === "street" ? number === undefined : number === sample.number;
}

/** What a beginning of a sample's line stops in. */
export function reachOf(q: string, { country, street, town }: Query["sample"]): Reach {
  if (country === "QR") return "address";
  const name = street[0].name.length;
  if (country === "QV") return q.length <= name + 1 ? "street" : "address";
  const before = town[0].name.length + 2;
  if (q.length <= before) return "town";
  return q.length <= before + name + 2 ? "street" : "address";
}

/** What a street's line is without a number, as far as the number where it stands behind. */
function beginOf(street: StreetLine): string {
  return street.country === "QV" ? street.street[0].name : lineOf(street, "");
}

const nameOf = (names: Query["sample"]["street"]) => names[0].name;
const isSame = (street: StreetLine, sample: Query["sample"]) =>
  street.country === sample.country &&
  nameOf(street.street) === nameOf(sample.street) &&
  nameOf(street.town) === nameOf(sample.town);

/** The chance of a right line to be drawn from among the most important. */
function chance(rivals: readonly Rival[]): number {
  let most = -1;
  let all = 0;
  let right = 0;
  for (const { importance, isRight } of rivals) {
    if (importance < most) continue;
    if (importance > most) [most, all, right] = [importance, 0, 0];
    all++;
    if (isRight) right++;
  }
  return all ? (right ? 1 : 0) / (right ? all - right + 1 : 1) : 0;
}

const lower = (text: string) => text.normalize("NFC").toLowerCase();
/** A text without numbers and what parts its words. */
const bareOf = (text: string) => text.replace(/\d+\p{L}?(?!\p{L})|[\s,\d]+/gu, "");

/** A text's letters as 32 bits, some letters sharing one. */
function lettersIn(text: string): number {
  let set = 0;
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    if (unit >= 97) set |= 1 << (unit % 32);
  }
  return set;
}

function bits(set: number): number {
  let count = 0;
  for (let rest = set; rest; rest &= rest - 1) count++;
  return count;
}

/**
 * Letters replaced, left out, added, or swapped with their neighbour, as few as make one text of another.
 * @param most gives up beyond this, and says one more
 */
function distance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before: number[] = [];
  let last: number[] = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      // away from the diagonal there are only more edits
      if (Math.abs(i - j) > most) {
        row.push(most + 1);
        continue;
      }
      const same = a[i - 1] === b[j - 1];
      let edits = Math.min(last[j - 1] + (same ? 0 : 1), last[j] + 1, row[j - 1] + 1);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) edits = Math.min(edits, before[j - 2] + 1);
      row.push(edits);
      if (edits < least) least = edits;
    }
    if (least > most) return most + 1;
    before = last;
    last = row;
  }
  return Math.min(most + 1, last[b.length]);
}
