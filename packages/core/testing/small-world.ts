import { type RecordSink, Segment, SegmentBuilder } from "../src/index/index.ts";
import { Engine } from "../src/search/index.ts";

const square = (west: number, south: number, side: number): [number, number][] => [
  [west, south],
  [west + side, south],
  [west + side, south + side],
  [west, south + side],
  [west, south],
];
const english = (name: string, abbr?: string) => [{ lang: "en", name, ...(abbr ? { abbr } : {}) }];

/** Identities of the small world, by what they are. */
export const IDS = {
  lorramere: 1,
  region: 2,
  sallow: 3,
  marram: 4,
  tidewell: 5,
  tidewick: 6,
  oldQuay: 7,
  thalmyra: 20,
  mesaia: 21,
  pelania: 22,
  ano: 23,
  ht429: 30,
  ht929: 31,
  tha123: 32,
  harbourRow: 40,
  harbourRoad: 41,
  harbourStreet: 42,
  millLane: 43,
  saintLane: 44,
  block7: 50,
  library: 60,
  inn: 61,
  firstAddress: 100,
};

/** Two towns of Lorramere and one of Thalmyra: small enough to know every answer by heart. */
export function smallWorld(): Engine {
  return new Engine(new Segment(smallSegment()));
}

export function smallSegment(): ArrayBuffer {
  const builder = new SegmentBuilder();
  pourSmallWorld(builder);
  return builder.finish({ name: "small", sources: SMALL_SOURCES });
}

export const SMALL_SOURCES = [{ name: "A small world", day: "2026-11-01", licence: "CC0-1.0" }];

/** Gives the records of the small world to a sink. */
export function pourSmallWorld(builder: RecordSink): void {
  const at = (lat: number, lon: number) => ({ lat, lon });
  builder.addArea({
    identity: IDS.lorramere,
    kind: "country",
    parent: null,
    code: "QR",
    names: english("Lorramere"),
    at: at(-35.5, -21.5),
    importance: 1,
    rings: [square(-22, -36, 1)],
  });
  builder.addArea({
    identity: IDS.region,
    kind: "region",
    parent: IDS.lorramere,
    code: "QR-RE",
    names: english("The Reaches"),
    at: at(-35.5, -21.5),
    importance: 0.8,
    rings: [square(-22, -36, 1)],
  });
  builder.addArea({
    identity: IDS.sallow,
    kind: "county",
    parent: IDS.region,
    code: "QR-SA",
    names: english("Sallow"),
    at: at(-35.5, -21.75),
    importance: 0.7,
    rings: [square(-22, -36, 0.5), square(-21.9, -35.9, 0.05)],
  });
  builder.addArea({
    identity: IDS.marram,
    kind: "county",
    parent: IDS.region,
    code: "QR-MA",
    names: english("Marram"),
    at: at(-35.25, -21.25),
    importance: 0.7,
    rings: [square(-21.5, -35.5, 0.5)],
  });
  builder.addArea({
    identity: IDS.tidewell,
    kind: "town",
    parent: IDS.sallow,
    names: english("Tidewell"),
    at: at(-35.8, -21.8),
    importance: 0.6,
    rings: [square(-21.85, -35.85, 0.1)],
  });
  builder.addArea({
    identity: IDS.oldQuay,
    kind: "district",
    parent: IDS.tidewell,
    names: english("Old Quay"),
    at: at(-35.83, -21.83),
    importance: 0.3,
    rings: [square(-21.85, -35.85, 0.04)],
  });
  builder.addArea({
    identity: IDS.tidewick,
    kind: "town",
    parent: IDS.marram,
    names: english("Tidewick"),
    at: at(-35.3, -21.3),
    importance: 0.4,
    rings: [square(-21.35, -35.35, 0.1)],
  });
  builder.addArea({
    identity: IDS.thalmyra,
    kind: "country",
    parent: null,
    code: "QY",
    at: at(-36.5, -22.7),
    importance: 1,
    rings: [square(-23, -37, 0.8)],
    names: [
      { lang: "qth-Grek", name: "Θαλμύρα" },
      { lang: "qth-Latn", name: "Thalmyra" },
    ],
  });
  builder.addArea({
    identity: IDS.mesaia,
    kind: "region",
    parent: IDS.thalmyra,
    code: "QY-03",
    at: at(-36.5, -22.7),
    importance: 0.8,
    rings: [square(-23, -37, 0.8)],
    names: [
      { lang: "qth-Grek", name: "Μεσαία" },
      { lang: "qth-Latn", name: "Mesaia" },
    ],
  });
  builder.addArea({
    identity: IDS.pelania,
    kind: "town",
    parent: IDS.mesaia,
    at: at(-36.6, -22.6),
    importance: 0.5,
    rings: [square(-22.65, -36.65, 0.1)],
    names: [
      { lang: "qth-Grek", name: "Πελανία" },
      { lang: "qth-Latn", name: "Pelania" },
    ],
  });
  builder.addArea({
    identity: IDS.ano,
    kind: "district",
    parent: IDS.pelania,
    at: at(-36.6, -22.6),
    importance: 0.3,
    rings: [square(-22.62, -36.62, 0.04)],
    names: [
      { lang: "qth-Grek", name: "Άνω Λίμνα" },
      { lang: "qth-Latn", name: "Ano Limna" },
    ],
  });
  builder.addPostcode({
    identity: IDS.ht429,
    code: "HT4 29",
    area: IDS.tidewell,
    at: at(-35.8, -21.8),
    importance: 0.2,
  });
  builder.addPostcode({
    identity: IDS.ht929,
    code: "HT9 29",
    area: IDS.tidewick,
    at: at(-35.3, -21.3),
    importance: 0.2,
  });
  builder.addPostcode({
    identity: IDS.tha123,
    code: "ΘΑ-123",
    area: IDS.pelania,
    at: at(-36.6, -22.6),
    importance: 0.2,
  });
  const street = (
    identity: number,
    area: number,
    name: string,
    abbr: string | undefined,
    lat: number,
    lon: number,
    importance: number,
  ) => builder.addStreet({ identity, kind: "street", area, names: english(name, abbr), at: at(lat, lon), importance });
  street(IDS.harbourRow, IDS.oldQuay, "Harbour Row", "Harbour Rw", -35.83, -21.83, 0.3);
  street(IDS.harbourRoad, IDS.tidewell, "Harbour Road", "Harbour Rd", -35.78, -21.78, 0.25);
  street(IDS.harbourStreet, IDS.tidewick, "Harbour Street", "Harbour St", -35.3, -21.3, 0.2);
  street(IDS.millLane, IDS.tidewell, "Mill Lane", "Mill Ln", -35.79, -21.79, 0.2);
  street(IDS.saintLane, IDS.tidewick, "Saint Orrin Lane", undefined, -35.31, -21.31, 0.2);
  builder.addStreet({
    identity: IDS.block7,
    kind: "block",
    area: IDS.ano,
    at: at(-36.6, -22.6),
    importance: 0.2,
    names: [
      { lang: "qth-Grek", name: "Τετράγωνο 7", abbr: "Τετρ. 7" },
      { lang: "qth-Latn", name: "Tetragono 7", abbr: "Tetr. 7" },
    ],
  });
  let identity = IDS.firstAddress;
  const houses = (
    streetId: number,
    postcode: number,
    lat: number,
    lon: number,
    numbers: readonly [number: number | null, suffix: string, more?: { name?: string; unit?: string }][],
  ) => {
    numbers.forEach(([number, suffix, more], i) => {
      builder.addAddress({
        ...more,
        identity: identity++,
        street: streetId,
        number,
        suffix,
        postcode,
        at: at(lat + i * 0.0002, lon),
      });
    });
  };
  houses(IDS.harbourRow, IDS.ht429, -35.83, -21.83, [
    [1, ""],
    [2, ""],
    [10, ""],
    [12, ""],
    [12, "b"],
    [14, ""],
  ]);
  houses(IDS.harbourRoad, IDS.ht429, -35.78, -21.78, [
    [3, ""],
    [12, ""],
  ]);
  houses(IDS.harbourStreet, IDS.ht929, -35.3, -21.3, [
    [5, ""],
    [9, ""],
  ]);
  houses(IDS.millLane, IDS.ht429, -35.79, -21.79, [
    [1, ""],
    [1, "", { unit: "Flat 10" }],
    [1, "", { unit: "Flat 2" }],
    [1, "", { unit: "Flat 3" }],
  ]);
  houses(IDS.millLane, IDS.ht929, -35.7905, -21.79, [[null, "", { name: "Rose Cottage" }]]);
  houses(IDS.saintLane, IDS.ht929, -35.31, -21.31, [[4, ""]]);
  houses(IDS.block7, IDS.tha123, -36.6, -22.6, [
    [1, ""],
    [4, ""],
  ]);
  builder.addPlace({
    identity: IDS.library,
    area: IDS.tidewell,
    address: IDS.firstAddress,
    names: english("Tidewell Branch Library"),
    at: at(-35.83, -21.83),
    importance: 0.3,
    facts: { phone: "+990 1 200 3000", stepFree: true },
  });
  builder.addPlace({
    identity: IDS.inn,
    area: IDS.tidewick,
    address: null,
    names: english("The Lantern Inn"),
    at: at(-35.305, -21.305),
    importance: 0.1,
    facts: {},
  });
}
