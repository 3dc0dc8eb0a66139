/**
 * The sections of a segment, in the order in which they stand in the file. The number of a section is its place here;
 * a change of any of them is a new FORMAT. docs/index-format.md explains them.
 *
 * A *thing* is anything with a name of its own: first the areas in pre-order (so that "inside" is a comparison), then
 * postcodes, streets and blocks, places, and houses with a name, each by area. Addresses have no names: they stand in
 * their street, sorted.
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
  thingLat: Int32Array,
  thingLon: Int32Array,
  thingImportance: Uint16Array,
  /** Words in the shortest of the names. */
  thingWords: Uint8Array,
  /** First name of each thing, one more at the end. */
  thingName: Uint32Array,

  /** Last thing number inside each area. */
  areaLast: Uint32Array,
  areaCode: Uint32Array,
  /** West, south, east, north in 1e-7 degrees. */
  areaBox: Int32Array,
  /** The highest house number inside each area; 0 where there is none. */
  areaNumber: Uint16Array,
  /** First street, and first place, of each area or of one behind it; one more at the end. */
  areaStreet: Uint32Array,
  areaPlace: Uint32Array,
  /** First ring of each area, one more at the end; first point of each ring, one more at the end; lon, lat pairs. */
  areaRing: Uint32Array,
  ringPoint: Uint32Array,
  pointLonLat: Int32Array,

  /** First address of each street, one more at the end. */
  streetAddress: Uint32Array,
  /** The postcodes of each street's addresses, the most common first: where they begin, one more at the end; things. */
  streetPostcode: Uint32Array,
  postcodeOfStreet: Uint32Array,
  /** The streets of each postcode: where they begin, one more at the end; things. */
  postcodeStreet: Uint32Array,
  streetOfPostcode: Uint32Array,
  /** By street, number, suffix, unit. NO_NUMBER where a house has only a name. */
  addressNumber: Uint16Array,
  /** Place in meta.suffixes, or RARE_SUFFIX: then it is in the details. */
  addressSuffix: Uint8Array,
  addressLat: Int32Array,
  addressLon: Int32Array,
  /** Place in the postcodes of the street, or NO_POSTCODE. */
  addressPostcode: Uint16Array,
  addressIdentity: Uint32Array,
  /** Addresses in the order of a balanced k-d tree. */
  addressTree: Uint32Array,
  /** The few addresses that have a rare suffix, a house name or a unit, in order; strings or NONE. */
  detailAddress: Uint32Array,
  detailSuffix: Uint32Array,
  detailName: Uint32Array,
  detailUnit: Uint32Array,

  /** Facts as JSON (string), and the address it is at or NONE, for each place. */
  placeFacts: Uint32Array,
  placeAddress: Uint32Array,
  /** The address of each house with a name. */
  houseAddress: Uint32Array,

  /** What every identity represents, by identity: a thing, or the count of things plus an address. */
  identityTarget: Uint32Array,

  /** A trie over the folded words: letter, first child, number of children, terms below it (half open). */
  nodeLetter: Uint16Array,
  nodeChild: Uint32Array,
  nodeChildren: Uint16Array,
  nodeTermFrom: Uint32Array,
  nodeTermTo: Uint32Array,
  /**
   * Where the postings of each term begin, three groups for each (areas, postcodes, the rest), one more at the end;
   * postings are things, in each group the most important first.
   */
  termPosting: Uint32Array,
  posting: Uint32Array,
  /** For each posting, which words the thing may have: the bits of the terms (see `hintOf`). */
  postingHint: Uint16Array,
  /** Letters of each term as bits, for finding words that differ in two places. */
  termLetters: Uint32Array,
  termLength: Uint8Array,
  /** Where the terms of each thing begin, one more at the end; its terms. */
  thingTerm: Uint32Array,
  termOfThing: Uint32Array,
  /** Nodes with very many things below, in order; where the most important of them begin, one more at the end. */
  headNode: Uint32Array,
  headThing: Uint32Array,
  thingOfHead: Uint32Array,
  /** As `postingHint`. */
  hintOfHead: Uint16Array,
} as const;

export type SectionName = keyof typeof LAYOUT;
export type Sections = { [K in SectionName]: InstanceType<(typeof LAYOUT)[K]> };

/** "Nothing", where a number is expected. */
export const NONE = 0xffffffff;
export const NO_NUMBER = 0xffff;
export const NO_POSTCODE = 0xffff;
export const RARE_SUFFIX = 0xff;
/** Positions are stored as integers, in ten-millionths of a degree. */
export const SCALE = 1e7;
/** Groups of postings. */
export const GROUPS = 3;
export const [AREAS, POSTCODES, REST] = [0, 1, 2];

/** Where an answer's data comes from. */
export interface Source {
  name: string;
  /** Day of the data, ISO 8601. */
  day: string;
  licence: string;
}

/** The metadata of a segment. */
export interface SegmentMeta {
  /** Digest of publication, format and builder; the segment's name. */
  name: string;
  langs: string[];
  sources: Source[];
  /** Addresses that a less trusted source held too, and that were left out of it. */
  doubles?: number;
  /** What often follows the number of a house: "", "b", "/3". */
  suffixes: string[];
  counts: Record<"things" | "areas" | "postcodes" | "streets" | "places" | "houses" | "addresses", number>;
}
