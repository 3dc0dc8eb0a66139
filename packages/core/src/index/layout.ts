/**
 * The sections of a segment, in the order in which they stand in the file. The number of a section is its place here;
 * a change of any of them is a new FORMAT. docs/index-format.md explains them.
 *
 * A *thing* is anything with a name of its own: first the areas in pre-order (so that "inside" is a comparison), then
 * postcodes, streets and blocks by area, places by area. Addresses have no names: they stand in their street, sorted.
 */
export const LAYOUT = {
  /** JSON, as UTF-16 units: see `SegmentMeta`. */
  meta: Uint16Array,
  stringOffset: Uint32Array,
  stringUnits: Uint16Array,
  /** Names of things, the local one first: language (index into meta.langs), string, string of the short form or NONE. */
  nameLang: Uint8Array,
  nameText: Uint32Array,
  nameAbbr: Uint32Array,

  thingKind: Uint8Array,
  thingIdentity: Uint32Array,
  /** The area a thing lies in; for an area its parent; NONE for a country. */
  thingParent: Uint32Array,
  /** The country's own thing number. */
  thingCountry: Uint32Array,
  thingLat: Int32Array,
  thingLon: Int32Array,
  thingImportance: Uint16Array,
  /** Words in the shortest of its names. */
  thingWords: Uint8Array,
  /** First name of each thing, one more at the end. */
  thingName: Uint32Array,
  /** Postcode that most of its addresses carry, as a thing, or NONE. */
  thingPostcode: Uint32Array,

  /** Last thing number inside each area. */
  areaLast: Uint32Array,
  areaCode: Uint32Array,
  /** West, south, east, north in 1e-7 degrees. */
  areaBox: Int32Array,
  /** First ring of each area, one more at the end; first point of each ring, one more at the end; lon, lat pairs. */
  areaRing: Uint32Array,
  ringPoint: Uint32Array,
  pointLonLat: Int32Array,

  /** First address of each street, one more at the end. */
  streetAddress: Uint32Array,
  addressNumber: Uint16Array,
  addressSuffix: Uint32Array,
  addressLat: Int32Array,
  addressLon: Int32Array,
  addressPostcode: Uint32Array,
  addressIdentity: Uint32Array,
  /** Addresses in the order of a balanced k-d tree. */
  addressTree: Uint32Array,

  /** Facts as JSON (string), and the address it stands at or NONE, for each place. */
  placeFacts: Uint32Array,
  placeAddress: Uint32Array,

  /** Identities sorted, and what each is: a thing, or the count of things plus an address. */
  identity: Uint32Array,
  identityTarget: Uint32Array,

  /** A trie over the folded words: letter, first child, number of children, terms below it (half open). */
  nodeLetter: Uint16Array,
  nodeChild: Uint32Array,
  nodeChildren: Uint16Array,
  nodeTermFrom: Uint32Array,
  nodeTermTo: Uint32Array,
  /** First posting of each term, one more at the end; postings are things, the most important first. */
  termPosting: Uint32Array,
  posting: Uint32Array,
} as const;

export type SectionName = keyof typeof LAYOUT;
export type Sections = { [K in SectionName]: InstanceType<(typeof LAYOUT)[K]> };

/** "Nothing", where a number is expected. */
export const NONE = 0xffffffff;
/** Positions are kept as whole ten-millionths of a degree. */
export const SCALE = 1e7;

/** Where an answer's data comes from. */
export interface Source {
  name: string;
  /** Day of the data, ISO 8601. */
  day: string;
  licence: string;
}

/** What a segment says of itself. */
export interface SegmentMeta {
  /** Digest of publication, format and builder; the segment's name. */
  name: string;
  langs: string[];
  sources: Source[];
  /** String number of every suffix of a house number. */
  suffixes: Record<string, number>;
  counts: { things: number; areas: number; postcodes: number; streets: number; places: number; addresses: number };
}
