import type { Segment } from "@bibliotope/core/index";
import type { Name } from "@bibliotope/core/place";

/** A street or block as its lines name it, with its addresses (half open). */
export interface StreetLine {
  country: "QR" | "QV" | "QY";
  street: Name[];
  town: Name[];
  /** 0 to 1; the addresses of a street share it. */
  importance: number;
  addresses: [from: number, to: number];
}

/** All streets of a corpus. */
export function streetLines(segment: Segment): StreetLine[] {
  const { thingParent, thingImportance } = segment.sections;
  const towns = new Map<number, Name[]>();
  const townOf = (thing: number) => {
    let area = thing;
    let town = thing;
    for (; segment.isArea(area) && thingParent[area] < segment.firstPostcode; area = thingParent[area])
      if (segment.kindOf(area) === "town") town = area;
    const names = towns.get(town) ?? segment.namesOf(town);
    towns.set(town, names);
    return names;
  };
  const lines: StreetLine[] = [];
  for (let street = segment.firstStreet; street < segment.firstPlace; street++) {
    lines.push({
      country: segment.countryCode(street) as StreetLine["country"],
      street: segment.namesOf(street),
      town: townOf(thingParent[street]),
      importance: thingImportance[street] / 65_535,
      addresses: segment.addressesOf(street),
    });
  }
  return lines;
}

/** The number of an address with what follows it: "12b". */
export function numberOf(segment: Segment, address: number): string {
  const held = segment.numberOf(address);
  return held ? `${held.number}${held.suffix}` : (segment.detailOf(address).name ?? "");
}

/** Every address as one line of text, with its importance; one line more where it is written in a second script. */
export function* addressLines(segment: Segment): Iterable<{ line: string; importance: number }> {
  for (const street of streetLines(segment)) {
    const { importance } = street;
    for (let address = street.addresses[0]; address < street.addresses[1]; address++) {
      const number = numberOf(segment, address);
      yield { line: lineOf(street, number), importance };
      const [, other] = street.street;
      if (other) yield { line: lineOf(street, number, other.name, street.town[1]?.name), importance };
    }
  }
}

/** What a line is made of; a sample and a street are such. */
export type LineParts = Pick<StreetLine, "country" | "street" | "town">;

/** The line as a person of the country would type it; without a number the street's. */
export function lineOf(
  { country, street, town }: LineParts,
  number: string,
  name = street[0].name,
  townName = town[0].name,
): string {
  const join = (pieces: string[], by: string) => pieces.filter(Boolean).join(by);
  if (country === "QR") return `${join([number, name], " ")}, ${townName}`;
  return country === "QV" ? `${join([name, number], " ")}, ${townName}` : join([townName, name, number], ", ");
}
