import { KINDS, type Kind, type Name } from "../place/index.ts";
import { AREAS, NONE, POSTCODES, REST, SCALE, type Sections, type SegmentMeta } from "./layout.ts";
import type { AreaInput, PlaceInput, PostcodeInput, StreetInput, ThingInput } from "./records.ts";
import type { StringTable } from "./strings.ts";
import { TermTable } from "./terms.ts";

/** A house found by name: its address, and its street's place among the streets. */
export interface NamedHouse {
  name: string;
  address: number;
  street: number;
}

export function namedHouses(
  { detailAddress, detailName, streetAddress }: Pick<Sections, "detailAddress" | "detailName" | "streetAddress">,
  strings: StringTable,
): NamedHouse[] {
  const houses: NamedHouse[] = [];
  let street = 0;
  detailAddress.forEach((address, i) => {
    while (streetAddress[street + 1] <= address) street++;
    if (detailName[i] !== NONE) houses.push({ name: strings.text(detailName[i]), address, street });
  });
  return houses;
}

interface Ordered {
  areas: AreaInput[];
  postcodes: PostcodeInput[];
  streets: StreetInput[];
  places: PlaceInput[];
  houses: NamedHouse[];
  within: (identity: number) => number;
  addresses: Pick<Sections, "addressLat" | "addressLon" | "addressIdentity">;
  meta: SegmentMeta;
  strings: StringTable;
}

/** Everything that things have in common, and the words that find them. */
export function thingSections({
  areas,
  postcodes,
  streets,
  places,
  houses,
  within,
  addresses,
  meta,
  strings,
}: Ordered) {
  const total = meta.counts.things;
  const s = {
    thingKind: new Uint8Array(total),
    thingIdentity: new Uint32Array(total),
    thingParent: new Uint32Array(total).fill(NONE),
    thingLat: new Int32Array(total),
    thingLon: new Int32Array(total),
    thingImportance: new Uint16Array(total),
    thingWords: new Uint8Array(total),
    thingName: new Uint32Array(total + 1),
  };
  const names = { lang: [] as number[], text: [] as number[], abbr: [] as number[] };
  const terms = new TermTable();
  let thing = 0;
  const put = (input: Omit<ThingInput, "names">, kind: Kind, parent: number, own: readonly Name[], around?: number) => {
    s.thingKind[thing] = KINDS.indexOf(kind);
    s.thingIdentity[thing] = input.identity;
    s.thingParent[thing] = parent;
    s.thingLat[thing] = Math.round(input.at.lat * SCALE);
    s.thingLon[thing] = Math.round(input.at.lon * SCALE);
    s.thingImportance[thing] = Math.round(Math.max(0, Math.min(1, input.importance)) * 65535);
    s.thingName[thing] = names.text.length;
    for (const name of own) {
      if (!meta.langs.includes(name.lang)) meta.langs.push(name.lang);
      names.lang.push(meta.langs.indexOf(name.lang));
      names.text.push(strings.add(name.name));
      names.abbr.push(name.abbr === undefined ? NONE : strings.add(name.abbr));
    }
    s.thingWords[thing] = terms.add(
      own.map((name) => name.name),
      kind === "postcode",
      around,
    );
    s.thingName[++thing] = names.text.length;
  };
  for (const area of areas) put(area, area.kind, area.parent === null ? NONE : within(area.parent), area.names);
  for (const code of postcodes) put(code, "postcode", within(code.area), [{ lang: "und", name: code.code }]);
  const firstStreet = thing;
  for (const street of streets) put(street, street.kind, within(street.area), street.names);
  for (const place of places) put(place, "place", within(place.area), place.names);
  for (const house of houses) {
    const { addressLat, addressLon, addressIdentity } = addresses;
    const street = firstStreet + house.street;
    const at = { lat: addressLat[house.address] / SCALE, lon: addressLon[house.address] / SCALE };
    const identity = addressIdentity[house.address];
    put({ identity, at, importance: 0 }, "address", s.thingParent[street], [{ lang: "und", name: house.name }], street);
  }
  const firstPostcode = areas.length;
  return {
    ...s,
    nameLang: Uint8Array.from(names.lang),
    nameText: Uint32Array.from(names.text),
    nameAbbr: Uint32Array.from(names.abbr),
    ...terms.finish(s.thingImportance, (t) => (t < firstPostcode ? AREAS : t < firstStreet ? POSTCODES : REST)),
  };
}
