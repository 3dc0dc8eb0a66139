import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { IDS, pourSmallWorld, SMALL_SOURCES } from "../../testing/small-world.ts";
import {
  type AddressInput,
  type AreaInput,
  Overlay,
  OverlayError,
  type PlaceInput,
  type PostcodeInput,
  type RecordSink,
  Segment,
  SegmentBuilder,
  type StreetInput,
} from "../index/index.ts";
import { refOf } from "../place/index.ts";
import { Engine } from "./index.ts";

/** The records as a plain list that changes: what an overlay must be equal to. */
class Ledger implements RecordSink {
  readonly areas = new Map<number, AreaInput>();
  readonly postcodes = new Map<number, PostcodeInput>();
  readonly streets = new Map<number, StreetInput>();
  readonly addresses = new Map<number, AddressInput>();
  readonly places = new Map<number, PlaceInput>();

  constructor() {
    pourSmallWorld(this);
  }

  addArea(area: AreaInput): void {
    this.areas.set(area.identity, area);
  }

  addPostcode(postcode: PostcodeInput): void {
    this.postcodes.set(postcode.identity, postcode);
  }

  addStreet(street: StreetInput): void {
    this.streets.set(street.identity, street);
  }

  addAddress(address: AddressInput): void {
    this.addresses.set(address.identity, address);
  }

  addPlace(place: PlaceInput): void {
    this.places.set(place.identity, place);
  }

  remove(identity: number): void {
    if (this.streets.delete(identity)) {
      for (const address of this.addresses.values()) if (address.street === identity) this.remove(address.identity);
    } else if (this.addresses.delete(identity)) {
      for (const place of this.places.values())
        if (place.address === identity) this.addPlace({ ...place, address: null });
    } else if (this.postcodes.delete(identity)) {
      for (const address of this.addresses.values())
        if (address.postcode === identity) this.addAddress({ ...address, postcode: null });
    } else this.places.delete(identity);
  }

  build(): Engine {
    const builder = new SegmentBuilder();
    for (const area of this.areas.values()) builder.addArea(area);
    for (const postcode of this.postcodes.values()) builder.addPostcode(postcode);
    for (const street of this.streets.values()) builder.addStreet(street);
    for (const address of this.addresses.values()) builder.addAddress(address);
    for (const place of this.places.values()) builder.addPlace(place);
    return new Engine(new Segment(builder.finish({ name: "anew", sources: SMALL_SOURCES })));
  }
}

let ledger: Ledger;
let overlay: Overlay;

const at = { lat: -35.83, lon: -21.83 };
const street = (name: string, more: Partial<StreetInput> = {}): StreetInput => ({
  identity: 900,
  kind: "street",
  area: IDS.tidewell,
  names: [{ lang: "en", name }],
  at,
  importance: 0.2,
  ...more,
});
const house = (more: Partial<AddressInput>): AddressInput => ({
  identity: 950,
  street: IDS.harbourRow,
  number: 16,
  suffix: "",
  postcode: IDS.ht429,
  at: { lat: -35.8286, lon: -21.83 },
  ...more,
});

function begin(): void {
  ledger = new Ledger();
  overlay = new Overlay(ledger.build().segment);
}

const engine = () => new Engine(overlay.finish());
const first = (q: string) => engine().forward({ q }).candidates[0];

beforeAll(begin);

describe("a record that was added", () => {
  it("is found at once: an address in a street that is known", () => {
    begin();
    overlay.addAddress(house({}));
    expect(first("16 Harbour Row")).toMatchObject({ kind: "address", parts: { house: { name: "16" } }, score: 1 });
    const numbers = engine().suggest({ q: "", inside: refOf("QR", IDS.harbourRow) });
    expect(numbers.suggestions.map(({ line }) => line).at(-1)).toBe("16 Harbour Row, Tidewell");
    expect(engine().suggest({ q: "harbour row" }).suggestions[0].more).toBe(7);
  });

  it("is found at once: a street with its houses, in a town that is known", () => {
    begin();
    overlay.addStreet(street("Cormorant Steps"));
    overlay.addAddress(house({ street: 900, number: 3 }));
    expect(engine().suggest({ q: "3 cormo" }).suggestions[0]).toMatchObject({ line: "3 Cormorant Steps, Tidewell" });
    expect(first("3 Cormorant Steps, Sallow").parts.region).toMatchObject({ name: "The Reaches" });
    const inside = engine().suggest({ q: "cormo", inside: refOf("QR", IDS.tidewell) });
    expect(inside.suggestions).toHaveLength(1);
  });

  it("is found at once: a town, and what is then put into it", () => {
    begin();
    overlay.addArea({
      identity: 901,
      kind: "town",
      parent: IDS.marram,
      names: [{ lang: "en", name: "Gannetholm" }],
      at: { lat: -35.1, lon: -21.1 },
      importance: 0.4,
      rings: [
        [
          [-21.15, -35.15],
          [-21.05, -35.15],
          [-21.05, -35.05],
          [-21.15, -35.05],
        ],
      ],
    });
    overlay.addStreet(street("Harbour Row", { area: 901 }));
    expect(engine().suggest({ q: "gannet" }).suggestions[0]).toMatchObject({ kind: "town", line: "Gannetholm" });
    expect(first("harbour row gannetholm").parts).toMatchObject({ town: { name: "Gannetholm" } });
    expect(
      engine()
        .reverse({ at: { lat: -35.1, lon: -21.1 } })
        .candidates.map(({ kind }) => kind),
    ).toEqual(["town", "county", "region", "country"]);
  });
});

describe("a record that was corrected", () => {
  it("answers by its new name and no more by the old, with the same ref", () => {
    begin();
    overlay.addStreet(street("Fulmar Wynd", { identity: IDS.millLane }));
    expect(first("1 fulmar wynd")).toMatchObject({ line: "1 Fulmar Wynd, Tidewell, Sallow, HT4 29" });
    expect(engine().record(refOf("QR", IDS.millLane))?.parts.street).toEqual({ name: "Fulmar Wynd" });
    expect(engine().suggest({ q: "mill" }).suggestions).toEqual([]);
  });

  it("lets what lies in a town be found by the town's new name", () => {
    begin();
    overlay.addArea({ ...ledger.areas.get(IDS.tidewick)!, names: [{ lang: "en", name: "Saltgrave" }] });
    expect(first("5 harbour street saltgrave")).toMatchObject({ score: 1, parts: { town: { name: "Saltgrave" } } });
    expect(engine().suggest({ q: "harbour street saltg" }).suggestions[0].line).toBe("Harbour Street, Saltgrave");
    const old = engine().forward({ q: "5 harbour street tidewick" }).candidates[0];
    expect(old.gloss.find(({ typed }) => typed === "tidewick")).toMatchObject({ how: "ignored" });
    const around = engine().reverse({ at: { lat: -35.3, lon: -21.3 } }).candidates;
    expect(around.map(({ line }) => line)[1]).toBe("Saltgrave, Marram, Lorramere");
  });

  it("gives a postcode's new code to all its streets", () => {
    begin();
    overlay.addPostcode({ ...ledger.postcodes.get(IDS.ht929)!, code: "HT7 55" });
    expect(first("9 harbour street HT7 55")).toMatchObject({ score: 1, parts: { postcode: { name: "HT7 55" } } });
    const { candidates } = engine().postcodes({ country: "QR", starts: "ht7" });
    expect(candidates[0].covers).toEqual(["Mill Lane", "Harbour Street", "Saint Orrin Lane"]);
    expect(engine().postcodes({ country: "QR", starts: "ht9" }).outcome).toBe("none");
  });
});

describe("a record that was removed", () => {
  it("is not found any more: an address, with its neighbours left", () => {
    begin();
    expect(overlay.remove(IDS.firstAddress + 3)).toBe(true);
    expect(first("12 Harbour Row").gloss.find(({ part }) => part === "house")).toMatchObject({ how: "nearby" });
    expect(engine().record(refOf("QR", IDS.firstAddress + 3))).toBeUndefined();
    expect(first("10 Harbour Row").score).toBe(1);
    expect(overlay.remove(IDS.firstAddress + 3)).toBe(false);
  });

  it("is not found any more: a street with its houses, by text and by position", () => {
    begin();
    const here = { lat: -35.79, lon: -21.79 };
    expect(engine().reverse({ at: here }).candidates[0].kind).toBe("address");
    expect(overlay.remove(IDS.millLane)).toBe(true);
    expect(engine().forward({ q: "rose cottage" }).candidates).toEqual([]);
    expect(engine().reverse({ at: here }).candidates[0].kind).toBe("town");
  });

  it("leaves a place without the address it stood at", () => {
    begin();
    expect(first("tidewell branch library").parts.street).toEqual({ name: "Harbour Row", abbr: "Harbour Rw" });
    overlay.remove(IDS.firstAddress);
    expect(first("tidewell branch library").parts).not.toHaveProperty("street");
    overlay.remove(IDS.library);
    expect(engine().suggest({ q: "branch library" }).suggestions).toEqual([]);
  });

  it("may be an area only when nothing lies in it", () => {
    begin();
    expect(() => overlay.remove(IDS.oldQuay)).toThrow(OverlayError);
    overlay.addStreet({ ...ledger.streets.get(IDS.harbourRow)!, area: IDS.tidewell });
    expect(overlay.remove(IDS.oldQuay)).toBe(true);
    expect(engine().suggest({ q: "old quay" }).suggestions).toEqual([]);
  });
});

describe("a change that cannot be stored", () => {
  it("says why, and changes nothing", () => {
    begin();
    const moved = { ...ledger.areas.get(IDS.tidewick)!, parent: IDS.sallow };
    expect(() => overlay.addArea(moved)).toThrow("takes all within along");
    expect(() => overlay.addArea({ ...ledger.areas.get(IDS.lorramere)!, code: "QX" })).toThrow("code of a country");
    expect(() => overlay.addAddress(house({ street: 7777 }))).toThrow("street 7777, which does not exist");
    expect(() => overlay.addAddress(house({ postcode: 7777 }))).toThrow("postcode 7777, which does not exist");
    expect(() => overlay.addStreet(street("Nowhere", { area: 7777 }))).toThrow("area 7777, which does not exist");
    expect(() => overlay.addPlace({ ...ledger.places.get(IDS.inn)!, address: 7777 })).toThrow("address 7777");
    expect(overlay.remove(7777)).toBe(false);
    expect(engine().suggest({ q: "nowhere" }).suggestions).toEqual([]);
  });
});

describe("any changes", () => {
  const streets = [IDS.harbourRow, IDS.harbourRoad, IDS.harbourStreet, IDS.millLane, IDS.saintLane, 900, 902];
  const names = ["Harbour Row", "Gannet Lane", "Mill Road", "Cormorant Steps"];
  const areas = [IDS.tidewell, IDS.tidewick, IDS.oldQuay];
  const change = fc.oneof(
    fc.record({
      what: fc.constant("street" as const),
      identity: fc.constantFrom(...streets),
      name: fc.constantFrom(...names),
      area: fc.constantFrom(...areas),
    }),
    fc.record({
      what: fc.constant("address" as const),
      identity: fc.integer({ min: IDS.firstAddress, max: IDS.firstAddress + 30 }),
      street: fc.constantFrom(...streets),
      number: fc.integer({ min: 1, max: 20 }),
      suffix: fc.constantFrom("", "", "b"),
      postcode: fc.constantFrom(IDS.ht429, IDS.ht929, null),
    }),
    fc.record({ what: fc.constant("town" as const), name: fc.constantFrom("Tidewick", "Saltgrave") }),
    fc.record({
      what: fc.constant("remove" as const),
      identity: fc.constantFrom(...streets, IDS.library, IDS.inn, IDS.ht929, 100, 101, 104, 108, 112, 114),
    }),
  );
  const beginnings = ["mill", "saltgr", "corm", "gann", "tidew", "ht", "libr"];
  const whole = ["12 harbour row", "gannet lane tidewick", "1 mill road", "HT4 29", "rose cottage", "lantern inn"];
  /**
   * What an answer comes to. Equal ones may stand in any order, so they are sorted. What is explained only in part is
   * left out: a word whose last name was removed is still known to an overlay, and no longer to an index built anew.
   */
  const essence = (made: Engine) => ({
    begun: beginnings.map((q) =>
      made
        .suggest({ q, limit: 50 })
        .suggestions.map(({ ref, line, within, more }) => `${ref} ${line} ${within} ${more}`)
        .sort(),
    ),
    found: whole.map((q) =>
      made
        .forward({ q, limit: 50 })
        .candidates.filter(({ score }) => score >= 0.9)
        .map(({ line, score }) => `${score} ${line}`)
        .sort(),
    ),
    near: [at, { lat: -35.79, lon: -21.79 }, { lat: -35.3, lon: -21.3 }].map((position) =>
      made.reverse({ at: position, radius: 4000 }).candidates.map(({ ref, line }) => `${ref} ${line}`),
    ),
    numbers: streets.map((identity) => made.suggest({ q: "", inside: refOf("QR", identity), limit: 50 }).suggestions),
  });

  it("answer as an index does that is built with them", () => {
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 8 }), (changes) => {
        begin();
        for (const one of changes) {
          const both = (apply: (to: Ledger | Overlay) => void) => {
            apply(overlay);
            apply(ledger);
          };
          if (one.what === "street")
            both((to) => to.addStreet(street(one.name, { identity: one.identity, area: one.area })));
          else if (one.what === "town") {
            const tidewick = ledger.areas.get(IDS.tidewick)!;
            both((to) => to.addArea({ ...tidewick, names: [{ lang: "en", name: one.name }] }));
          } else if (one.what === "remove") both((to) => to.remove(one.identity));
          else if (ledger.streets.has(one.street) && (one.postcode === null || ledger.postcodes.has(one.postcode)))
            both((to) => to.addAddress(house(one)));
        }
        expect(essence(engine())).toEqual(essence(ledger.build()));
      }),
      { numRuns: process.env.BIBLIOTOPE_LONG ? 150 : 30 },
    );
  });
});
